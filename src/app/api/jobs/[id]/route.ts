/** One job: read it with its saved layouts, or delete it (it can be brought back). */
import { setDeleted } from "@/db";
import { connection, openJobText } from "@/server";
import { guarded, NO_SUCH_JOB, sayJson, sayJsonText } from "../../answer";

type Context = { readonly params: Promise<{ readonly id: string }> };

export function GET(request: Request, { params }: Context) {
  return guarded(async () => {
    const variant = new URL(request.url).searchParams.get("variant") ?? "";
    const job = await openJobText(await connection(), (await params).id, variant);
    return job === null ? NO_SUCH_JOB() : sayJsonText(job);
  });
}

export function DELETE(_: Request, { params }: Context) {
  return guarded(async () =>
    (await setDeleted(await connection(), (await params).id, Date.now())) ? sayJson({}) : NO_SUCH_JOB(),
  );
}
