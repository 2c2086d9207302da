/** The job file, with the part of the stockroom that the job uses. */

import { writeJobFile } from "@/formats/job-file";
import { computeJob, connection, currentStockroom, fileName } from "@/server";
import { download, guarded, NO_SUCH_JOB } from "../../../answer";

export function GET(_: Request, { params }: { readonly params: Promise<{ readonly id: string }> }) {
  return guarded(async () => {
    const db = await connection();
    const computed = await computeJob(db, (await params).id, "");
    if (!computed) return NO_SUCH_JOB();
    return download(
      writeJobFile(computed.open.job, await currentStockroom(db), computed.open.revision),
      "application/json",
      fileName(computed, "job", "tally.json"),
    );
  });
}
