/** New job from a cut list. */
import type { Metadata } from "next";
import { readStock } from "@/db";
import { connection } from "@/server";
import { ListHere } from "./list-here";

export const dynamic = "force-dynamic";
export const metadata: Metadata = { title: "New job from a cut list" };

export default async function Page() {
  return <ListHere stockroom={(await readStock(await connection())).data} />;
}
