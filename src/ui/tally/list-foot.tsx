"use client";
/** What stands under the rows of a list: its sums, and what is computed under the cell that the keys are at. */
import type { Column, FootLine, ListTable } from "@/core/lists";
import { ALIGN, type Place } from "./list-row";
import type { CellEdits } from "./use-cell-edits";

/** A sum under its column. */
export function Foot({
  line: { label, cells },
  columns,
  template,
  byHand,
}: {
  readonly line: FootLine;
  readonly columns: readonly Column[];
  readonly template: string;
  readonly byHand: boolean;
}) {
  // The label takes the columns before the first sum, so that neither is cut.
  const before = columns.findIndex((column) => cells[column.id] !== undefined);
  const span = (before < 0 ? columns.length : Math.max(1, before)) + (byHand ? 1 : 0);
  return (
    <div
      role="row"
      className="grid h-7 shrink-0 items-center gap-2 border-seam border-t bg-ground px-3.5 font-semibold"
      style={{ gridTemplateColumns: template }}
    >
      <span role="rowheader" className="truncate" style={{ gridColumn: `1 / span ${span}` }}>
        {label}
      </span>
      {columns.slice(Math.max(1, before)).map(({ id, align }) => {
        const cell = cells[id];
        const missing = cell?.lack === "missing";
        return before < 0 ? null : (
          <span
            key={id}
            role="gridcell"
            title={cell?.text ?? ""}
            className={`whitespace-nowrap ${ALIGN[align]} ${align === "right" ? "justify-self-end" : ""} ${missing ? "text-oxide" : ""}`}
          >
            {cell?.text ?? ""}
          </span>
        );
      })}
    </div>
  );
}

/** What is under the cell that the keys are at, when somebody typed over it, with the way back. */
export function ActiveCell({
  table,
  active,
  edits,
}: {
  readonly table: ListTable;
  readonly active: Place | null;
  readonly edits: CellEdits;
}) {
  const row = active
    ? table.groups.flatMap((group) => group.rows).find((one) => one.id === active.row)
    : undefined;
  const cell = active && row?.cells[active.column];
  const heading = table.columns.find((column) => column.id === active?.column)?.heading;
  if (!active || !row || !cell) return null;
  if (!cell.over)
    return (
      <p aria-live="polite" className="sr-only">
        {heading}: {cell.text}
      </p>
    );
  const { computed, was, changed } = cell.over;
  return (
    <p
      aria-live="polite"
      className="flex h-7 shrink-0 items-center gap-3 border-seam border-t px-3.5 text-[13px]"
    >
      <span className="min-w-0 truncate">
        {heading} is changed by hand: <b className="text-chalk">{cell.text}</b>, computed{" "}
        <b>{computed || "nothing"}</b>
        {changed ? <span className="text-amber"> — computed value was {was || "nothing"} before</span> : null}
      </span>
      <button
        type="button"
        className="shrink-0 font-semibold text-enamel hover:underline"
        onClick={() => edits.putBack(row, active.column)}
      >
        Put back to computed
      </button>
    </p>
  );
}
