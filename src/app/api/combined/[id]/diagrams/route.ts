/** The diagrams of one stock size of a combined layout as PDF, SVG or DXF. */
import { combinedInput, connection, openCombined } from "@/server";
import { guarded, NO_SUCH_COMBINED } from "../../../answer";
import { sayDiagrams } from "../../../layouts-answer";

export function GET(request: Request, { params }: { readonly params: Promise<{ readonly id: string }> }) {
  return guarded(() =>
    sayDiagrams(request, async (_, made) => {
      const db = await connection();
      const open = await openCombined(db, (await params).id);
      if (!open) return NO_SUCH_COMBINED();
      return { input: await combinedInput(db, open, made), name: (format) => `combined-diagrams.${format}` };
    }),
  );
}
