"use client";
/** The field that narrows a list down to the rows that hold a word. */
import { Search } from "lucide-react";

export function FindField({
  value,
  onChange,
}: {
  readonly value: string;
  readonly onChange: (value: string) => void;
}) {
  return (
    <label className="flex h-7 w-[130px] shrink-0 items-center gap-1 border-seam border-b focus-within:border-enamel focus-within:border-b-2">
      <Search size={13} aria-hidden className="text-ink-soft" />
      <span className="sr-only">Filter rows</span>
      <input
        value={value}
        onChange={(event) => onChange(event.target.value)}
        placeholder="filter rows"
        className="w-full bg-transparent font-table text-[14px] outline-none"
      />
    </label>
  );
}
