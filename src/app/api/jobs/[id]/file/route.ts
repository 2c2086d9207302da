/** The job file, with the part of the stockroom that the job uses. */

import { assetsOfFile } from "@/core/job";
import { rawDocument, readAssets, UnreadableJob } from "@/db";
import { writeJobFile } from "@/formats/job-file";
import { computeJob, connection, fileName } from "@/server";
import { download, guarded, NO_SUCH_JOB } from "../../../answer";

export function GET(_: Request, { params }: { readonly params: Promise<{ readonly id: string }> }) {
  return guarded(async () => {
    const db = await connection();
    const { id } = await params;
    const document = await rawDocument(db, id);
    if (document === null) return NO_SUCH_JOB();
    // A job that cannot be read leaves as it is stored.
    const computed = await computeJob(db, id, "").catch((thrown) => {
      if (thrown instanceof UnreadableJob) return null;
      throw thrown;
    });
    if (!computed) return download(document, "application/json", "unreadable-job.json");
    const { job, revision } = computed.open;
    return download(
      writeJobFile(job, computed.stockroom, {
        assets: await readAssets(db, assetsOfFile(job, computed.stockroom)),
        revision,
      }),
      "application/json",
      fileName(computed, "job", "tally.json"),
    );
  });
}
