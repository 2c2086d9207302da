/** The layouts of one batch. */
import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { connection, layoutTime, openBatch } from "@/server";
import { BatchHere } from "./batch-here";

export const dynamic = "force-dynamic";
type Props = { readonly params: Promise<{ readonly id: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const open = await openBatch(await connection(), (await params).id);
  return { title: open ? open.batch.name : "No such batch" };
}

export default async function Page({ params }: Props) {
  const open = await openBatch(await connection(), (await params).id);
  if (!open) notFound();
  return <BatchHere opened={open} layoutTime={layoutTime()} />;
}
