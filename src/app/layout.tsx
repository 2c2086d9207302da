/** The frame of every page: fonts that ship with the application, tokens, messages. */
import "@fontsource/barlow/400.css";
import "@fontsource/barlow/500.css";
import "@fontsource/barlow/600.css";
import "@fontsource/barlow-semi-condensed/400.css";
import "@fontsource/barlow-semi-condensed/600.css";
import "@fontsource/zilla-slab/500.css";
import "@fontsource/zilla-slab/600.css";
import "./globals.css";
import type { Metadata } from "next";
import type { ReactNode } from "react";
import { readFault } from "@/db";
import { connection } from "@/server";
import { DatabasePage } from "@/ui/common/database-page";
import { Messages } from "@/ui/common/messages";
import { Queries } from "@/ui/common/queries";

export const metadata: Metadata = {
  title: { default: "Rustic Tally", template: "%s · Rustic Tally" },
  description: "From a sized design to cut lists, layouts, a buying list and shop papers.",
};

/** Every page is made for its request: its scripts carry the nonce of that one. */
export const dynamic = "force-dynamic";

/** What is wrong with the database, as a sentence; null: nothing. */
async function databaseWords(): Promise<string | null> {
  try {
    await connection();
    return null;
  } catch (thrown) {
    const fault = readFault(thrown);
    if (fault) return fault.message;
    throw thrown;
  }
}

export default async function RootLayout({ children }: { readonly children: ReactNode }) {
  const fault = await databaseWords();
  return (
    <html lang="en">
      <body>
        {fault === null ? <Queries>{children}</Queries> : <DatabasePage why={fault} />}
        <Messages />
      </body>
    </html>
  );
}
