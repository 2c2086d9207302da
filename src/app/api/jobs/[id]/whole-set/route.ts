/** All pages of a job as one PDF, with pages more that are sent along and kept nowhere: what was drawn up for one variant. */
import * as v from "valibot";
import { PageItemSchema, PageSchema } from "@/core/job";
import { sentence } from "@/core/kernel";
import { computeJob, connection, fileName, printPages, withPages } from "@/server";
import { download, guarded, NO_SUCH_JOB, readBody, sayProblem } from "../../../answer";

const BodySchema = v.object({
  variant: v.pipe(v.string(), v.maxLength(100)),
  pages: v.pipe(v.array(PageSchema), v.maxLength(2_000)),
  items: v.pipe(v.array(PageItemSchema), v.maxLength(50_000)),
});

export function POST(request: Request, { params }: { readonly params: Promise<{ readonly id: string }> }) {
  return guarded(async () => {
    const body = await readBody(request, BodySchema);
    if (!body.ok) return body.problem;
    const { variant, pages, items } = body.value;
    const db = await connection();
    const stored = await computeJob(db, (await params).id, variant);
    if (!stored) return NO_SUCH_JOB();
    const computed = withPages(stored, { pages, items });
    if (!computed.ok) return sayProblem(sentence(computed.problem), 400);
    const how = { page: null, format: "pdf", variant, signal: request.signal } as const;
    const file = await printPages(db, computed.value, how);
    if (file === null) return sayProblem("There is no page to be printed.", 404);
    return download(file, "application/pdf", fileName(stored, "papers", "pdf", variant));
  });
}
