/** All that a desk opens with: the job with its kept layouts and the rack, and the stockroom. */
import { readStock } from "@/db";
import { connection, openJob } from "@/server";
import { guarded, NO_SUCH_JOB, sayJson } from "../../../answer";

type Context = { readonly params: Promise<{ readonly id: string }> };

export function GET(_: Request, { params }: Context) {
  return guarded(async () => {
    const db = await connection();
    const opened = await openJob(db, (await params).id, "");
    return opened ? sayJson({ opened, stockroom: (await readStock(db)).data }) : NO_SUCH_JOB();
  });
}
