"use client";
/** One list of the job's own: its rows as its setup has them, and the sums under them. */
import { ClipboardCopy, Settings2 } from "lucide-react";
import { useMemo, useState } from "react";
import { toast } from "sonner";
import type { ListSetup } from "@/core/job";
import { type Column, type ListGroup, type ListRow, ownList, tableAsTabs } from "@/core/lists";
import { Button } from "../common/button";
import { Tag } from "../common/tag";
import { isRowSelected, useDesk, useDeskState } from "../desk/desk-context";
import { ListSettings } from "./list-settings";
import { useRowsInView, VirtualRows } from "./virtual-rows";

type Line =
  | { readonly kind: "group"; readonly group: ListGroup }
  | { readonly kind: "row"; readonly row: ListRow };

const ALIGN = { left: "text-left", right: "text-right", centre: "text-center" } as const;

function useOwnList(setup: ListSetup) {
  const job = useDeskState((state) => state.job);
  const stockroom = useDeskState((state) => state.stockroom);
  const { sizes, tally, tasks, quantities } = useDeskState((state) => state.results);
  return useMemo(
    () => ownList(setup, { job, sizes, stockroom, tally, tasks, quantities }),
    [setup, job, sizes, stockroom, tally, tasks, quantities],
  );
}

export function OwnList({ setup }: { readonly setup: ListSetup }) {
  const table = useOwnList(setup);
  const [open, setOpen] = useState(false);
  const lines = table.groups.flatMap((group): Line[] => [
    ...(group.heading === "" ? [] : [{ kind: "group", group } as const]),
    ...group.rows.map((row) => ({ kind: "row", row }) as const),
  ]);
  return (
    <>
      <p className="flex items-center gap-3 border-seam border-b bg-ground px-3.5 py-0.5 text-[13px]">
        <span className="min-w-0 flex-1 truncate text-ink-soft">{table.notes.join(" ")}</span>
        <Button
          look="plain"
          icon={<ClipboardCopy size={14} aria-hidden />}
          onClick={() => void copyTable(tableAsTabs(table))}
        >
          Copy for a spreadsheet
        </Button>
        <Button
          look="plain"
          aria-expanded={open}
          icon={<Settings2 size={14} aria-hidden />}
          onClick={() => setOpen(!open)}
        >
          {open ? "Fold the setup" : "Set it up"}
        </Button>
      </p>
      {open ? <ListSettings key={setup.id} setup={setup} /> : null}
      <Rows columns={table.columns} lines={lines} title={table.title} />
    </>
  );
}

async function copyTable(text: string): Promise<void> {
  try {
    await navigator.clipboard.writeText(text);
    toast("The list is on the clipboard; paste it into a spreadsheet.");
  } catch {
    toast.error("This browser does not let the list onto the clipboard; take the CSV under Out instead.");
  }
}

type RowsProps = {
  readonly columns: readonly Column[];
  readonly lines: readonly Line[];
  readonly title: string;
};

function Rows({ columns, lines, title }: RowsProps) {
  const inView = useRowsInView(lines.length);
  const template = columns.map((column) => `minmax(30px, ${column.width}fr)`).join(" ");
  return (
    <div
      role="grid"
      aria-label={title}
      aria-rowcount={lines.length + 1}
      className="flex min-h-0 flex-1 flex-col font-table text-[14px]"
    >
      <div role="rowgroup">
        <div
          role="row"
          className="grid h-7 items-center gap-2 border-seam border-b px-3.5 text-[12px] text-ink-soft"
          style={{ gridTemplateColumns: template }}
        >
          {columns.map((column) => (
            <span
              key={column.id}
              role="columnheader"
              title={column.heading}
              className={`truncate ${ALIGN[column.align]}`}
            >
              {column.heading}
            </span>
          ))}
        </div>
      </div>
      <VirtualRows rows={inView} label="Rows">
        {(index) => {
          const line = lines[index];
          if (!line) return null;
          return line.kind === "group" ? (
            <div role="row" className="flex h-7 items-center gap-2 border-seam border-b bg-ground px-3.5">
              <span role="gridcell" className="truncate font-semibold">
                {line.group.heading}
              </span>
              <span role="gridcell" className="ml-auto shrink-0 text-[13px] text-ink-soft">
                {line.group.summary}
              </span>
            </div>
          ) : (
            <RowLine row={line.row} columns={columns} template={template} />
          );
        }}
      </VirtualRows>
    </div>
  );
}

function RowLine({
  row,
  columns,
  template,
}: {
  readonly row: ListRow;
  readonly columns: readonly Column[];
  readonly template: string;
}) {
  const desk = useDesk();
  const { rows } = useDeskState((state) => state.results.tally);
  const tally = rows.find((one) => one.id === row.id);
  // A row that adds others up stands for all of them, by the marks that it names.
  const named = new Set((row.cells["mark"]?.text ?? "").split(" ").filter(Boolean));
  const meant = tally ? [tally] : rows.filter((one) => named.has(one.mark));
  const chosen = useDeskState((state) => meant.some((one) => isRowSelected(one, state.selected)));
  return (
    <div
      role="row"
      aria-selected={chosen}
      data-list-row={row.id}
      onClick={() => desk.select(meant.flatMap((one) => one.pieces.map((piece) => piece.id)))}
      className={`grid h-7 items-center gap-2 border-seam border-b px-3.5 ${meant.length > 0 ? "cursor-pointer" : ""} ${chosen ? "bg-brass-pale" : "hover:bg-ground"}`}
      style={{ gridTemplateColumns: template }}
    >
      {columns.map(({ id, align }) => {
        const text = row.cells[id]?.text ?? "";
        const missing = /^(missing|price missing|incomplete|no such column)/.test(text);
        return (
          <span
            key={id}
            role="gridcell"
            title={text}
            className={`truncate ${ALIGN[align]} ${missing ? "font-semibold text-oxide" : ""}`}
          >
            {id === "mark" && tally && text !== "" ? <Tag mark={text} selected={chosen} /> : text}
          </span>
        );
      })}
    </div>
  );
}
