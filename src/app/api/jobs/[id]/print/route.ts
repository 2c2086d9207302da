/** The shop papers as PDF, A4 or letter. */
import { PAGE_SIZES, type PageSize } from "@/core/drawing";
import { computeJob, connection, fileName, printJob } from "@/server";
import { download, guarded, NO_SUCH_JOB, sayProblem } from "../../../answer";

const isPage = (page: string): page is PageSize => Object.hasOwn(PAGE_SIZES, page);

export function GET(request: Request, { params }: { readonly params: Promise<{ readonly id: string }> }) {
  return guarded(async () => {
    const query = new URL(request.url).searchParams;
    const page = query.get("page") ?? "a4";
    if (!isPage(page))
      return sayProblem(`There is no page size "${page.slice(0, 20)}"; use a4 or letter.`, 400);
    const variant = query.get("variant") ?? "";
    const computed = await computeJob(await connection(), (await params).id, variant);
    if (!computed) return NO_SUCH_JOB();
    return download(
      await printJob(computed, page, variant),
      "application/pdf",
      fileName(computed, "shop-papers", "pdf"),
    );
  });
}
