/** New job from a cutting list. */
import type { Metadata } from "next";
import { readStock } from "@/db";
import { connection } from "@/server";
import { FromListPage } from "@/ui/jobs/from-list-page";

export const dynamic = "force-dynamic";
export const metadata: Metadata = { title: "New job from a cutting list" };

export default async function Page() {
  return <FromListPage stockroom={(await readStock(await connection())).data} />;
}
