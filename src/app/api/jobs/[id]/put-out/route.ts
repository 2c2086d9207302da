/** Pages of drawings that are put out: as a PDF, and what stood on them, so that what changes from then on can be told. */
import * as v from "valibot";
import { readPagesOut } from "@/db";
import { computeJob, connection, fileName, putPagesOut } from "@/server";
import { download, guarded, NO_SUCH_JOB, readBody, sayJson, sayProblem } from "../../../answer";

type Params = { readonly params: Promise<{ readonly id: string }> };

/** So many pages are asked for at once at most. */
const MOST_PAGES = 100;

/** What stood on pages of a variant when they were put out last, by their ids. */
export function GET(request: Request, { params }: Params) {
  return guarded(async () => {
    const query = new URL(request.url).searchParams;
    const ids = query.getAll("page").slice(0, MOST_PAGES);
    const { id } = await params;
    const pages = await readPagesOut(await connection(), id, query.get("variant") ?? "", ids);
    return sayJson({ pages: Object.fromEntries(pages) });
  });
}

const text = v.pipe(v.string(), v.maxLength(100));
const BodySchema = v.object({
  variant: text,
  /** The id of one page; null: all. */
  page: v.nullable(text),
});

export function POST(request: Request, { params }: Params) {
  return guarded(async () => {
    const body = await readBody(request, BodySchema);
    if (!body.ok) return body.problem;
    const { variant, page } = body.value;
    const db = await connection();
    const computed = await computeJob(db, (await params).id, variant);
    if (!computed) return NO_SUCH_JOB();
    const file = await putPagesOut(db, computed, { variant, page, signal: request.signal });
    if (file === null)
      return sayProblem(page === null ? "This job has no pages yet." : "This job has no such page.", 404);
    return download(file, "application/pdf", fileName(computed, page === null ? "drawings" : "page", "pdf"));
  });
}
