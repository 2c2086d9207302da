/** The desk of one job. */
import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { readStock } from "@/db";
import { connection, openJob } from "@/server";
import { isStage } from "@/ui/desk/stages";
import { DeskHere } from "./desk-here";

export const dynamic = "force-dynamic";

type Props = {
  readonly params: Promise<{ readonly id: string }>;
  readonly searchParams: Promise<{ readonly stage?: string }>;
};

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const job = await openJob(await connection(), (await params).id, "");
  return { title: job ? `${job.code} ${job.title}` : "No such job" };
}

export default async function Page({ params, searchParams }: Props) {
  const db = await connection();
  const open = await openJob(db, (await params).id, "");
  if (!open) notFound();
  const { id, revision, job, layouts, rack, steps } = open;
  const stage = (await searchParams).stage ?? null;
  return (
    <DeskHere
      opened={{ id, revision, job, layouts, rack, steps }}
      stockroom={(await readStock(db)).data}
      stage={isStage(stage) ? stage : "shape"}
    />
  );
}
