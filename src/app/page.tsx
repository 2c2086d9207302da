/** The Jobs page. */
import { thumbnail } from "@/core/drawing";
import { resolveSizes } from "@/core/job";
import { shapeJob } from "@/core/shape";
import { listJobs } from "@/db";
import { connection, currentStockroom } from "@/server";
import { JobsPage } from "@/ui/jobs/jobs-page";

export const dynamic = "force-dynamic";

export default async function Page() {
  const db = await connection();
  const [jobs, stockroom] = await Promise.all([listJobs(db), currentStockroom(db)]);
  const cards = jobs.map(({ id, code, title, revision, updatedAt, job }) => ({
    id,
    code,
    title,
    revision,
    updatedAt,
    pieces: Object.keys(job.members).length + Object.keys(job.panels).length,
    typed: Object.keys(job.typedPieces).length,
    picture: thumbnail(shapeJob(job, resolveSizes(job, null), stockroom), 260, 170),
  }));
  return <JobsPage jobs={cards} />;
}
