/** The settings of the shop. */
import type { Metadata } from "next";
import { connection, readShop } from "@/server";
import { SettingsPage } from "@/ui/settings/settings-page";

export const dynamic = "force-dynamic";
export const metadata: Metadata = { title: "Settings" };

export default async function Page() {
  return <SettingsPage shop={await readShop(await connection())} />;
}
