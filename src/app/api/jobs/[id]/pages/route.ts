/** The drawing pages of a job: all or one of them as PDF, one as SVG or DXF. */
import { isPageFormat, PAGE_FORMATS } from "@/formats/pages-file";
import { computeJob, connection, fileName, printPages } from "@/server";
import { download, guarded, NO_SUCH_JOB, sayProblem } from "../../../answer";

export function GET(request: Request, { params }: { readonly params: Promise<{ readonly id: string }> }) {
  return guarded(async () => {
    const query = new URL(request.url).searchParams;
    const format = query.get("format") ?? "pdf";
    if (!isPageFormat(format))
      return sayProblem(
        `There is no format "${format.slice(0, 20)}"; use ${Object.keys(PAGE_FORMATS).join(", ")}.`,
        400,
      );
    const [page, variant] = [query.get("page"), query.get("variant") ?? ""];
    const db = await connection();
    const computed = await computeJob(db, (await params).id, variant);
    if (!computed) return NO_SUCH_JOB();
    const file = await printPages(db, computed, { page, format, variant, signal: request.signal });
    if (file === null)
      return sayProblem(page === null ? "This job has no pages yet." : "This job has no such page.", 404);
    return download(
      file,
      PAGE_FORMATS[format],
      fileName(computed, page === null ? "drawings" : "page", format),
    );
  });
}
