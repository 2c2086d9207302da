/** The rack: offcuts that lie in the shop. */
import type { Metadata } from "next";
import { readRack, readRackRevisions, readStock } from "@/db";
import { connection } from "@/server";
import { RackPage } from "@/ui/rack/rack-page";

export const dynamic = "force-dynamic";
export const metadata: Metadata = { title: "Rack" };

export default async function Page() {
  const db = await connection();
  const [rack, revisions, { data }] = await Promise.all([readRack(db), readRackRevisions(db), readStock(db)]);
  return <RackPage rack={rack} revisions={revisions} sections={data.sections} boards={data.boards} />;
}
