/** A copy of a job, with a revision of its own. */
import { connection, duplicateJob } from "@/server";
import { guarded, NO_SUCH_JOB, sayJson } from "../../../answer";

export function POST(_: Request, { params }: { readonly params: Promise<{ readonly id: string }> }) {
  return guarded(async () => {
    const id = await duplicateJob(await connection(), (await params).id);
    return id ? sayJson({ id }, 201) : NO_SUCH_JOB();
  });
}
