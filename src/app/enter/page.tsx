/** Asks for the passcode of a server that is open to the shop. */
import type { Metadata } from "next";
import { EnterPage } from "@/ui/enter/enter-page";

export const dynamic = "force-dynamic";
export const metadata: Metadata = { title: "Passcode" };

type Props = { readonly searchParams: Promise<{ readonly to?: string | readonly string[] }> };

export default async function Page({ searchParams }: Props) {
  const { to } = await searchParams;
  // Only to a page of ours: "//elsewhere" and "\elsewhere" would lead away.
  const isOurs = typeof to === "string" && /^\/(?![/\\])/.test(to);
  return <EnterPage to={isOurs ? to : "/"} />;
}
