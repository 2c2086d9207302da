/** The fill-in form of one job. */
import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { findSummary, readStock } from "@/db";
import { connection, layoutTime, openJob } from "@/server";
import { FillInHere } from "./fill-in-here";

export const dynamic = "force-dynamic";

type Props = { readonly params: Promise<{ readonly id: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const job = await findSummary(await connection(), (await params).id);
  return { title: job ? `${job.title} to size` : "No such job" };
}

export default async function Page({ params }: Props) {
  const db = await connection();
  const open = await openJob(db, (await params).id, "");
  if (!open) notFound();
  const { id, revision, job, layouts, rack, steps, shop } = open;
  return (
    <FillInHere
      opened={{ id, revision, job, layouts, rack, steps, shop }}
      stockroom={(await readStock(db)).data}
      layoutTime={layoutTime()}
    />
  );
}
