/** Batches of jobs that are laid out together. */
import type { Metadata } from "next";
import { listBatches, listJobs } from "@/db";
import { connection } from "@/server";
import { BatchesPage } from "@/ui/batch/batches-page";

export const dynamic = "force-dynamic";
export const metadata: Metadata = { title: "Combined layouts" };

export default async function Page() {
  const db = await connection();
  const [batches, jobs] = await Promise.all([listBatches(db), listJobs(db)]);
  return <BatchesPage batches={batches} jobs={jobs.map(({ id, code, title }) => ({ id, code, title }))} />;
}
