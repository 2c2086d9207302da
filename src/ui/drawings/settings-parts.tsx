"use client";
/** What the settings of all items of pages share. */
import { readScale, scaleWords } from "@/core/drawing";
import type { Job, PageItem } from "@/core/job";
import { sentence } from "@/core/kernel";
import { parseLength } from "@/core/measure";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { TextField } from "../common/text-field";
import { useDesk } from "../desk/desk-context";
import { scaleChoices } from "./new-items";

export const GRID = "grid grid-cols-2 gap-x-3 gap-y-1.5 lg:grid-cols-3";

/** Carries a change of an item out; gives the sentence why not, or null. */
export function useItemChange<T extends PageItem>(item: T) {
  const desk = useDesk();
  return (set: Partial<T>) => desk.submit({ kind: "setPageItems", items: [{ ...item, ...set }] });
}

/** A length on paper, in millimetres unless something else is typed; what is not one is said. */
export function paperLength(text: string, least: number, most: number): number | string {
  const read = parseLength(text, "mm");
  if (!read.ok) return sentence(read.problem);
  const value = Math.round(read.value * 1000) / 1000;
  return value < least || value > most ? `Must be from ${least} to ${most} mm.` : value;
}

/** A text of several lines: carried out by leaving it, put back with Escape; it may be left empty where that is said. */
export function LongText({
  label,
  value,
  mayBeEmpty = false,
  onCommit,
}: {
  readonly label: string;
  readonly value: string;
  readonly mayBeEmpty?: boolean;
  readonly onCommit: (text: string) => string | null;
}) {
  return (
    <label className="block">
      <span className="block text-[12px] text-ink-soft">{label}</span>
      <textarea
        key={value}
        rows={2}
        maxLength={2000}
        defaultValue={value}
        className="w-full rounded-sm border border-seam bg-leaf px-1.5 py-0.5 font-table text-[14px]"
        onBlur={(event) => {
          const text = event.target.value.trim();
          if ((mayBeEmpty || text !== "") && text !== value) onCommit(text);
          else event.target.value = value;
        }}
        onKeyDown={(event) => {
          if (event.key !== "Escape") return;
          event.currentTarget.value = value;
          event.currentTarget.blur();
        }}
      />
    </label>
  );
}

/** A length on paper that may be left open. */
export function OptionalLength({
  label,
  value,
  placeholder,
  least,
  most,
  onSet,
}: {
  readonly label: string;
  readonly value: number | null;
  readonly placeholder: string;
  readonly least: number;
  readonly most: number;
  readonly onSet: (value: number | null) => string | null;
}) {
  return (
    <TextField
      label={label}
      value={value === null ? "" : String(value)}
      placeholder={placeholder}
      onCommit={(text) => {
        if (text.trim() === "") return onSet(null);
        const length = paperLength(text, least, most);
        return typeof length === "string" ? length : onSet(length);
      }}
    />
  );
}

export function ScaleField({
  label,
  job,
  scale,
  best,
  onScale,
}: {
  readonly label: string;
  readonly job: Job;
  /** null: that of the page. */
  readonly scale: number | null;
  readonly best: number | null;
  readonly onScale: (scale: number) => string | null;
}) {
  const { unit } = job.info.job;
  const standard = scaleChoices(job).map((one) => ({
    value: String(one),
    label: `${scaleWords(one, unit)}${best !== null && Math.abs(best - one) < 1e-9 ? " (fits best)" : ""}`,
  }));
  return (
    <span className="grid grid-cols-[1fr_74px] gap-1">
      <Chooser
        label={label}
        value={scale === null ? "" : String(scale)}
        placeholder="as the page"
        choices={standard}
        onChoose={(value) => {
          onScale(Number(value));
        }}
      />
      <TextField
        label="Typed"
        value={scale === null ? "" : scaleWords(scale, unit)}
        placeholder="1:8"
        onCommit={(text) => {
          const read = readScale(text);
          return read.ok ? onScale(read.value) : sentence(read.problem);
        }}
      />
    </span>
  );
}

export function RemoveItems({ ids }: { readonly ids: readonly string[] }) {
  const desk = useDesk();
  return (
    <Button
      look="danger"
      onClick={() => {
        if (desk.submit({ kind: "removePageItems", ids: [...ids] }) === null) desk.select([]);
      }}
    >
      Remove
    </Button>
  );
}
