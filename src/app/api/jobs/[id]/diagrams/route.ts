/** The diagrams of one stock size of a job as PDF, SVG or DXF. */
import { computeJob, connection, fileName, printInput } from "@/server";
import { guarded, NO_SUCH_JOB } from "../../../answer";
import { sayDiagrams } from "../../../layouts-answer";

export function GET(request: Request, { params }: { readonly params: Promise<{ readonly id: string }> }) {
  return guarded(() =>
    sayDiagrams(request, async (query, made) => {
      const variant = query.get("variant") ?? "";
      const computed = await computeJob(await connection(), (await params).id, variant);
      if (!computed) return NO_SUCH_JOB();
      return {
        input: printInput(computed, variant, made),
        name: (format) => fileName(computed, "diagrams", format),
      };
    }),
  );
}
