/** The desk of one job. */
import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { readStock, UnreadableJob } from "@/db";
import { connection, openJob } from "@/server";
import { isStage } from "@/ui/desk/stages";
import { UnreadablePage } from "@/ui/jobs/unreadable-page";
import { DeskHere } from "./desk-here";

export const dynamic = "force-dynamic";

type Props = {
  readonly params: Promise<{ readonly id: string }>;
  readonly searchParams: Promise<{ readonly stage?: string }>;
};

/** The job, or the sentence why it cannot be read. */
async function open(id: string) {
  try {
    return await openJob(await connection(), id, "");
  } catch (thrown) {
    if (thrown instanceof UnreadableJob) return thrown.message;
    throw thrown;
  }
}

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const job = await open((await params).id);
  if (typeof job === "string") return { title: "A job that cannot be read" };
  return { title: job ? `${job.code} ${job.title}` : "No such job" };
}

export default async function Page({ params, searchParams }: Props) {
  const opened = await open((await params).id);
  if (typeof opened === "string") return <UnreadablePage why={opened} id={(await params).id} />;
  if (!opened) notFound();
  const { id, revision, job, layouts, rack, steps } = opened;
  const stage = (await searchParams).stage ?? null;
  return (
    <DeskHere
      opened={{ id, revision, job, layouts, rack, steps }}
      stockroom={(await readStock(await connection())).data}
      stage={isStage(stage) ? stage : "shape"}
    />
  );
}
