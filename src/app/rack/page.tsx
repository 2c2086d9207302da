/** The rack: offcuts that lie in the shop. */
import type { Metadata } from "next";
import { readRack, readStock } from "@/db";
import { connection } from "@/server";
import { RackPage } from "@/ui/rack/rack-page";

export const dynamic = "force-dynamic";
export const metadata: Metadata = { title: "Rack" };

export default async function Page() {
  const db = await connection();
  const [rack, { data }] = await Promise.all([readRack(db), readStock(db)]);
  return <RackPage rack={rack} sections={data.sections} boards={data.boards} />;
}
