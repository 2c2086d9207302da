"use client";
/** A part of the shape ledger under its heading. */
import type { ReactNode } from "react";

export function Section({
  title,
  facts,
  children,
}: {
  readonly title: string;
  readonly facts: string;
  readonly children: ReactNode;
}) {
  return (
    <section aria-label={title}>
      <h3 className="flex justify-between bg-ground px-3.5 py-1 text-[13px]">
        <b className="font-semibold">{title}</b>
        <span className="text-ink-soft">{facts}</span>
      </h3>
      {children}
    </section>
  );
}
