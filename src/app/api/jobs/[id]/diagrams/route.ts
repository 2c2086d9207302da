/** The diagrams of one stock size of a job as PDF, SVG or DXF. */
import {
  computeJob,
  connection,
  DIAGRAM_FORMATS,
  fileName,
  isDiagramFormat,
  printDiagrams,
  printInput,
} from "@/server";
import { download, guarded, NO_SUCH_JOB, sayProblem } from "../../../answer";

export function GET(request: Request, { params }: { readonly params: Promise<{ readonly id: string }> }) {
  return guarded(async () => {
    const query = new URL(request.url).searchParams;
    const format = query.get("format") ?? "pdf";
    if (!isDiagramFormat(format))
      return sayProblem(`There is no format "${format.slice(0, 20)}"; use pdf, svg or dxf.`, 400);
    const variant = query.get("variant") ?? "";
    const computed = await computeJob(await connection(), (await params).id, variant);
    if (!computed) return NO_SUCH_JOB();
    const made = new Date();
    const task = query.get("task") ?? "";
    const body = await printDiagrams(printInput(computed, variant, made), task, format, made);
    if (body === null) return sayProblem("That stock is not laid out yet; lay it out first.", 404);
    return download(body, DIAGRAM_FORMATS[format], fileName(computed, "diagrams", format));
  });
}
