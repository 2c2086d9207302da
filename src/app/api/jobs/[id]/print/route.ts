/** The shop papers as PDF, A4 or letter; with `drawings`, the drawing pages after them. */
import { PAGE_SIZES, type PageSize } from "@/core/drawing";
import { computeJob, connection, drawnPages, fileName, printJob } from "@/server";
import { download, guarded, NO_SUCH_JOB, sayProblem } from "../../../answer";

const isPage = (page: string): page is PageSize => Object.hasOwn(PAGE_SIZES, page);

export function GET(request: Request, { params }: { readonly params: Promise<{ readonly id: string }> }) {
  return guarded(async () => {
    const query = new URL(request.url).searchParams;
    const page = query.get("page") ?? "a4";
    if (!isPage(page))
      return sayProblem(`There is no page size "${page.slice(0, 20)}"; use a4 or letter.`, 400);
    const variant = query.get("variant") ?? "";
    const db = await connection();
    const computed = await computeJob(db, (await params).id, variant);
    if (!computed) return NO_SUCH_JOB();
    const drawings = query.has("drawings")
      ? await drawnPages(db, computed, variant, { signal: request.signal })
      : [];
    return download(
      await printJob(computed, page, variant, drawings),
      "application/pdf",
      fileName(computed, "shop-papers", "pdf"),
    );
  });
}
