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
import { Messages } from "@/ui/common/messages";

export const metadata: Metadata = {
  title: { default: "Rustic Tally", template: "%s · Rustic Tally" },
  description: "From a sized design to cut lists, layouts, a buying list and shop papers.",
};

/** Every page is made for its request: its scripts carry the nonce of that one. */
export const dynamic = "force-dynamic";

export default function RootLayout({ children }: { readonly children: ReactNode }) {
  return (
    <html lang="en">
      <body>
        {children}
        <Messages />
      </body>
    </html>
  );
}
