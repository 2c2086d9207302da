"use client";
/** Settings of a full-size template: which ends, on which side the paper lies, along which line is cut, and in how many parts. */
import type { TemplateItem } from "@/core/job";
import { Chooser } from "../common/chooser";
import { TextField } from "../common/text-field";
import { useDeskState } from "../desk/desk-context";
import { GRID, paperLength, RemoveItems, useItemChange } from "./settings-parts";

const ENDS = [
  { value: "both", label: "Both ends" },
  { value: "start", label: "Start" },
  { value: "end", label: "End" },
] as const;
const SIDES = [
  { value: "outside", label: "Outside" },
  { value: "inside", label: "Inside" },
] as const;
const LINES = [
  { value: "surface", label: "This surface of the wall" },
  { value: "fit", label: "For a blade held square" },
] as const;

export function TemplateSettings({ item }: { readonly item: TemplateItem }) {
  const change = useItemChange(item);
  const form = useDeskState((state) => state.results.tally.rowOfPiece.get(item.record)?.shown.form.kind);
  const { part } = item;
  const count = (label: string, which: "columns" | "rows", own: "column" | "row") => (
    <TextField
      label={label}
      value={String(part[which])}
      onCommit={(text) => {
        const parts = Number(text.trim());
        if (!Number.isInteger(parts) || parts < 1 || parts > 20) return "A whole number from 1 to 20.";
        return change({ part: { ...part, [which]: parts, [own]: Math.min(part[own], parts - 1) } });
      }}
    />
  );
  const parts = Array.from({ length: part.columns * part.rows }, (_, i) => String(i + 1));
  return (
    <div className={GRID}>
      {form === "member" ? (
        <>
          <Chooser label="Shows" value={item.ends} choices={ENDS} onChoose={(ends) => change({ ends })} />
          <Chooser
            label="Paper lies"
            value={item.side}
            choices={SIDES}
            onChoose={(side) => change({ side })}
          />
          <Chooser
            label="Line to cut along"
            value={item.line}
            choices={LINES}
            onChoose={(line) => change({ line })}
          />
          <TextField
            label="Thickness of the paper, mm"
            value={String(item.paper)}
            onCommit={(text) => {
              const paper = paperLength(text, 0, 2);
              return typeof paper === "string" ? paper : change({ paper });
            }}
          />
        </>
      ) : null}
      {count("Parts across", "columns", "column")}
      {count("Parts down", "rows", "row")}
      {parts.length > 1 ? (
        <Chooser
          label="Part that stands here"
          value={String(part.row * part.columns + part.column + 1)}
          choices={parts.map((value) => ({ value, label: `${value} of ${parts.length}` }))}
          onChoose={(value) =>
            change({
              part: {
                ...part,
                column: (Number(value) - 1) % part.columns,
                row: Math.floor((Number(value) - 1) / part.columns),
              },
            })
          }
        />
      ) : null}
      <span className="flex items-end">
        <RemoveItems ids={[item.id]} />
      </span>
    </div>
  );
}
