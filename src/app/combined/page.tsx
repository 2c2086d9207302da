/** Combined layouts of jobs that are laid out together. */
import type { Metadata } from "next";
import { listCombined, listJobs } from "@/db";
import { connection } from "@/server";
import { CombinedPage } from "@/ui/combined/combined-page";

export const dynamic = "force-dynamic";
export const metadata: Metadata = { title: "Combined layouts" };

export default async function Page() {
  const db = await connection();
  const [combined, jobs] = await Promise.all([listCombined(db), listJobs(db)]);
  return <CombinedPage combined={combined} jobs={jobs.map(({ id, code, title }) => ({ id, code, title }))} />;
}
