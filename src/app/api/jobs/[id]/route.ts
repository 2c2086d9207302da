/** One job: read it with its kept layouts, or delete it (it can be brought back). */
import { setDeleted } from "@/db";
import { connection, openJob } from "@/server";
import { guarded, NO_SUCH_JOB, sayJson } from "../../answer";

type Context = { readonly params: Promise<{ readonly id: string }> };

export function GET(request: Request, { params }: Context) {
  return guarded(async () => {
    const variant = new URL(request.url).searchParams.get("variant") ?? "";
    const job = await openJob(await connection(), (await params).id, variant);
    return job ? sayJson(job) : NO_SUCH_JOB();
  });
}

export function DELETE(_: Request, { params }: Context) {
  return guarded(async () =>
    (await setDeleted(await connection(), (await params).id, Date.now())) ? sayJson({}) : NO_SUCH_JOB(),
  );
}
