/** The frame of the pages beside the desk: the name of the product and where else to go. */
import Link from "next/link";
import type { ReactNode } from "react";

const PLACES = [
  { href: "/", name: "Jobs" },
  { href: "/stockroom", name: "Stockroom" },
  { href: "/rack", name: "Rack" },
  { href: "/combined", name: "Combined layouts" },
  { href: "/settings", name: "Settings" },
] as const;

export function HomeFrame({ current, children }: { readonly current: string; readonly children: ReactNode }) {
  return (
    <div className="flex min-h-screen flex-col">
      <header className="on-dark flex min-h-[52px] shrink-0 flex-wrap items-stretch bg-ink text-ground">
        <Link href="/" className="flex items-center px-5 font-semibold font-slab text-[19px]">
          Rustic Tally
        </Link>
        <nav aria-label="Main menu" className="flex min-h-[44px] flex-wrap">
          {PLACES.map(({ href, name }) => (
            <Link
              key={href}
              href={href}
              aria-current={current === name ? "page" : undefined}
              className={`flex items-center border-t-[3px] px-4 text-[15px] ${current === name ? "border-brass bg-ground font-semibold text-ink" : "border-transparent hover:bg-white/10"}`}
            >
              {name}
            </Link>
          ))}
        </nav>
      </header>
      <main className="min-h-0 flex-1">{children}</main>
    </div>
  );
}
