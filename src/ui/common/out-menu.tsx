"use client";
/** The menu under which everything stands that leaves a pane. */
import { Download } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";
import { buttonClass } from "./button";

export function OutMenu({
  heading,
  disabled = false,
  children,
}: {
  /** What it is made from, and as of when. */
  readonly heading: string;
  readonly disabled?: boolean;
  readonly children: ReactNode;
}) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className={buttonClass("plain")} disabled={disabled}>
        <Download size={16} aria-hidden /> Export
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={4}
          className="z-50 w-[300px] rounded-sm border border-seam bg-leaf p-1 shadow-lg"
        >
          <DropdownMenu.Label className="px-2 py-1 text-[12px] text-ink-soft">{heading}</DropdownMenu.Label>
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** How a thing that leaves is listed: its name, and what it contains. */
export const OUT_ITEM =
  "block cursor-pointer rounded-sm px-2 py-1 data-[highlighted]:bg-brass-pale data-[highlighted]:outline-none";

export function OutWords({ label, contains }: { readonly label: string; readonly contains: string }) {
  return (
    <>
      <span className="block text-[14px]">{label}</span>
      <span className="block text-[12px] text-ink-soft">{contains}</span>
    </>
  );
}
