/** The Jobs page. */
import { connection, jobCards, readShop } from "@/server";
import { JobsPage } from "@/ui/jobs/jobs-page";

export const dynamic = "force-dynamic";

export default async function Page() {
  const db = await connection();
  const [jobs, shop] = await Promise.all([jobCards(db), readShop(db)]);
  return <JobsPage jobs={jobs} unit={shop.unit} />;
}
