/** The diagrams of one stock size of a batch as PDF, SVG or DXF. */
import { batchInput, connection, openBatch } from "@/server";
import { guarded, NO_SUCH_BATCH } from "../../../answer";
import { sayDiagrams } from "../../../layouts-answer";

export function GET(request: Request, { params }: { readonly params: Promise<{ readonly id: string }> }) {
  return guarded(() =>
    sayDiagrams(request, async (_, made) => {
      const db = await connection();
      const open = await openBatch(db, (await params).id);
      if (!open) return NO_SUCH_BATCH();
      return { input: await batchInput(db, open, made), name: (format) => `batch-diagrams.${format}` };
    }),
  );
}
