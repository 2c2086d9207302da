/** The diagrams of one stock size of a batch as PDF, SVG or DXF. */
import { batchInput, connection, DIAGRAM_FORMATS, isDiagramFormat, openBatch, printDiagrams } from "@/server";
import { download, guarded, sayProblem } from "../../../answer";

export function GET(request: Request, { params }: { readonly params: Promise<{ readonly id: string }> }) {
  return guarded(async () => {
    const query = new URL(request.url).searchParams;
    const format = query.get("format") ?? "pdf";
    if (!isDiagramFormat(format))
      return sayProblem(`There is no format "${format.slice(0, 20)}"; use pdf, svg or dxf.`, 400);
    const db = await connection();
    const open = await openBatch(db, (await params).id);
    if (!open) return sayProblem("There is no such batch; it may have been removed.", 404);
    const made = new Date();
    const body = await printDiagrams(await batchInput(db, open, made), query.get("task") ?? "", format, made);
    if (body === null) return sayProblem("That stock is not laid out yet; lay it out first.", 404);
    return download(body, DIAGRAM_FORMATS[format], `batch-diagrams.${format}`);
  });
}
