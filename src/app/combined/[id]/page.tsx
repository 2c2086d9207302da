/** The layouts of one combined layout. */
import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { connection, layoutTime, openCombined } from "@/server";
import { CombinedHere } from "./combined-here";

export const dynamic = "force-dynamic";
type Props = { readonly params: Promise<{ readonly id: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const open = await openCombined(await connection(), (await params).id);
  return { title: open ? open.combined.name : "No such combined layout" };
}

export default async function Page({ params }: Props) {
  const open = await openCombined(await connection(), (await params).id);
  if (!open) notFound();
  return <CombinedHere opened={open} layoutTime={layoutTime()} />;
}
