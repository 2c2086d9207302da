/** All that a desk opens with: the job with its saved layouts and the rack, and the stockroom. */
import { readStock } from "@/db";
import { connection, openJobText } from "@/server";
import { guarded, NO_SUCH_JOB, sayJsonText } from "../../../answer";

type Context = { readonly params: Promise<{ readonly id: string }> };

export function GET(_: Request, { params }: Context) {
  return guarded(async () => {
    const db = await connection();
    const opened = await openJobText(db, (await params).id, "");
    if (opened === null) return NO_SUCH_JOB();
    const { data } = await readStock(db);
    return sayJsonText(`{"opened":${opened},"stockroom":${JSON.stringify(data)}}`);
  });
}
