/** The desk of one job. The page is a shell: the desk fetches the job and computes it where it is shown. */
import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { cache } from "react";
import { preload } from "react-dom";
import { findSummary } from "@/db";
import { connection, layoutTime } from "@/server";
import { deskAddress } from "@/ui/desk/desk-address";
import { isStage } from "@/ui/desk/stages";
import { DeskHere } from "./desk-here";

export const dynamic = "force-dynamic";

type Props = {
  readonly params: Promise<{ readonly id: string }>;
  readonly searchParams: Promise<{ readonly stage?: string }>;
};

const summaryOf = cache(async (id: string) => findSummary(await connection(), id));

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const job = await summaryOf((await params).id);
  return { title: job ? `${job.code} ${job.title}` : "No such job" };
}

export default async function Page({ params, searchParams }: Props) {
  const { id } = await params;
  const job = await summaryOf(id);
  if (!job) notFound();
  const stage = (await searchParams).stage ?? null;
  preload(deskAddress(id), { as: "fetch", crossOrigin: "anonymous" });
  return <DeskHere job={job} stage={isStage(stage) ? stage : "shape"} layoutTime={layoutTime()} />;
}
