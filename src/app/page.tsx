/** The Jobs page. */
import { thumbnail } from "@/core/drawing";
import { type Home, resolveSizes } from "@/core/job";
import { shapeJob } from "@/core/shape";
import { listJobs } from "@/db";
import { connection, currentStockroom, readShop } from "@/server";
import { JobsPage } from "@/ui/jobs/jobs-page";

export const dynamic = "force-dynamic";

export default async function Page() {
  const db = await connection();
  const [jobs, stockroom, shop] = await Promise.all([listJobs(db), currentStockroom(db), readShop(db)]);
  const cards = jobs.map(({ id, code, title, revision, updatedAt, job }) => {
    const shape = shapeJob(job, resolveSizes(job, null), stockroom);
    const times = (home: Home) => shape.places.get(home)?.length ?? 0;
    const homes = [
      ...[...shape.members, ...shape.uncomputed].map((one) => one.home),
      ...shape.panels.map(({ panel }) => panel.assembly),
    ];
    return {
      id,
      code,
      title,
      revision,
      updatedAt,
      pieces: homes.reduce((sum, home) => sum + times(home), 0),
      typed: Object.keys(job.typedPieces).length,
      picture: thumbnail(shape, 260, 170),
    };
  });
  return <JobsPage jobs={cards} unit={shop.unit} />;
}
