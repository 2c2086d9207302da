/** The Stockroom page. */
import type { Metadata } from "next";
import { readStock } from "@/db";
import { connection } from "@/server";
import { StockroomPage } from "@/ui/stockroom/stockroom-page";

export const dynamic = "force-dynamic";
export const metadata: Metadata = { title: "Stockroom" };

export default async function Page() {
  const { data, revisions } = await readStock(await connection());
  return <StockroomPage data={data} revisions={revisions} />;
}
