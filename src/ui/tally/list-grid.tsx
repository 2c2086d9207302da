"use client";
/**
 * The rows of a list as a grid that is walked by keys: Enter types over a cell, Delete puts it back, a click on a heading
 * orders the rows, and rows of a list in an order by hand are dragged or moved with Alt and the arrows.
 */
import { DndContext, type DragEndEvent, PointerSensor, useSensor, useSensors } from "@dnd-kit/core";
import { ArrowDown, ArrowUp } from "lucide-react";
import { type KeyboardEvent, useEffect, useMemo, useState } from "react";
import { silhouetteLength } from "@/core/drawing";
import type { ListSetup } from "@/core/job";
import { type Column, type ListRow, type ListTable, SILHOUETTE_COLUMN } from "@/core/lists";
import type { ListChange } from "@/core/release";
import { useDesk, useDeskState } from "../desk/desk-context";
import { type PickKeys, usePicking } from "../desk/picking";
import { SILHOUETTE_PX } from "./list-cells";
import { ActiveCell, Foot } from "./list-foot";
import { type ListLine, movedOrder } from "./list-lines";
import { ALIGN, GroupLine, type Place, RowLine } from "./list-row";
import { type CellEdits, useCellEdits } from "./use-cell-edits";
import { useRowsInView, VirtualRows } from "./virtual-rows";

const GRIP = "20px";

type GridProps = {
  readonly setup: ListSetup;
  readonly table: ListTable;
  readonly lines: readonly ListLine[];
  readonly changes: ReadonlyMap<string, ListChange>;
  readonly onFold: (id: string) => void;
};

export function ListGrid({ setup, table, lines, changes, onFold }: GridProps) {
  const desk = useDesk();
  const edits = useCellEdits(setup);
  const [active, setActive] = useState<Place | null>(null);
  const [typing, setTyping] = useState<string | null>(null);
  const inView = useRowsInView(lines.length);
  const { bringIntoView } = inView;
  const byHand = setup.handOrder !== null && !setup.levels;
  const { columns } = table;
  const template = [
    ...(byHand ? [GRIP] : []),
    ...columns.map(({ id, width }) =>
      id === SILHOUETTE_COLUMN ? `${SILHOUETTE_PX}px` : `minmax(30px, ${width}fr)`,
    ),
  ].join(" ");
  const rows = useMemo(
    () => lines.flatMap((line, index) => (line.kind === "row" ? [{ index, row: line.row }] : [])),
    [lines],
  );
  const selected = useDeskState((state) => state.selected);
  // What is picked in the picture or found by its name is looked for here too.
  // biome-ignore lint/correctness/useExhaustiveDependencies: rows that only stand in another order now let the list stay where it was left.
  useEffect(() => {
    const chosen = rows.filter(({ row }) => row.records.some((id) => selected.has(id)));
    bringIntoView(chosen.map(({ index }) => index));
  }, [selected, bringIntoView]);
  const tallyRows = useDeskState((state) => state.results.tally.rows);
  const longest = useMemo(
    () => tallyRows.reduce((most, row) => Math.max(most, silhouetteLength(row.shown)), 1),
    [tallyRows],
  );
  const move = (id: string, to: string) =>
    desk.submit({ kind: "setList", list: { ...setup, handOrder: movedOrder(table, id, to) } });
  const pick = usePicking(() => rows.map(({ row }) => ({ key: row.id, ids: row.records })));
  const go = (place: Place, how: PickKeys) => {
    setActive(place);
    const found = rows.find(({ row }) => row.id === place.row);
    if (!found) return;
    pick({ key: found.row.id, ids: found.row.records }, how);
    bringIntoView([found.index]);
  };
  const closeTyping = (byKey: boolean) => {
    setTyping(null);
    if (byKey) inView.box.current?.focus();
  };
  const keys = gridKeys({
    rows: rows.map(({ row }) => row),
    columns,
    active,
    edits,
    byHand,
    move,
    go,
    startTyping: setTyping,
  });
  const drop = ({ active: dragged, over }: DragEndEvent) => {
    if (over && dragged.id !== over.id) move(String(dragged.id), String(over.id));
  };
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  return (
    <DndContext sensors={sensors} onDragEnd={drop}>
      <div
        role="grid"
        aria-label={table.title}
        aria-rowcount={lines.length + 1}
        className="flex min-h-0 flex-1 flex-col font-table text-[14px]"
      >
        <Headings setup={setup} columns={columns} template={template} byHand={byHand} />
        <VirtualRows
          rows={inView}
          label="Rows. Arrow keys move, Enter changes a cell, Delete puts it back to computed"
          onKeyDown={keys}
        >
          {(index) => {
            const line = lines[index];
            if (!line) return null;
            if (line.kind === "group") return <GroupLine line={line} onFold={onFold} />;
            const column = active?.row === line.row.id ? active.column : null;
            return (
              <RowLine
                line={line}
                columns={columns}
                template={template}
                byHand={byHand}
                longest={longest}
                change={changes.get(line.row.id)}
                active={column}
                typing={column === null ? null : typing}
                edits={edits}
                onFold={onFold}
                onGo={go}
                onTyping={setTyping}
                onClose={closeTyping}
              />
            );
          }}
        </VirtualRows>
        {table.foot.map((line) => (
          <Foot key={line.label} line={line} columns={columns} template={template} byHand={byHand} />
        ))}
      </div>
      <ActiveCell table={table} active={active} edits={edits} />
    </DndContext>
  );
}

type KeysOf = {
  readonly rows: readonly ListRow[];
  readonly columns: readonly Column[];
  readonly active: Place | null;
  readonly edits: CellEdits;
  readonly byHand: boolean;
  readonly move: (id: string, to: string) => void;
  readonly go: (place: Place, keys: PickKeys) => void;
  readonly startTyping: (text: string | null) => void;
};

function gridKeys({ rows, columns, active, edits, byHand, move, go, startTyping }: KeysOf) {
  return (event: KeyboardEvent): void => {
    const at = rows.findIndex((row) => row.id === active?.row);
    const column = Math.max(
      0,
      columns.findIndex((one) => one.id === active?.column),
    );
    const to = (row: number, next: number) => {
      const target = rows[Math.min(rows.length - 1, Math.max(0, row))];
      const id = columns[Math.min(columns.length - 1, Math.max(0, next))]?.id;
      if (target && id) go({ row: target.id, column: id }, event);
    };
    const row = rows[at];
    const step = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
    if (step !== 0 && event.altKey && byHand && row) {
      const neighbour = rows[at + step];
      if (neighbour) move(row.id, neighbour.id);
    } else if (step !== 0) to(at + step, column);
    else if (event.key === "ArrowRight") to(Math.max(0, at), column + 1);
    else if (event.key === "ArrowLeft") to(Math.max(0, at), column - 1);
    else if (event.key === "Home") to(0, column);
    else if (event.key === "End") to(rows.length - 1, column);
    else if (!row || !active) return;
    else if (event.key === "Enter" || event.key === "F2") startTyping(row.cells[active.column]?.text ?? "");
    else if (event.key === "Delete" || event.key === "Backspace") edits.putBack(row, active.column);
    else if (event.key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey)
      startTyping(event.key);
    else return;
    event.preventDefault();
  };
}

type HeadingsProps = {
  readonly setup: ListSetup;
  readonly columns: readonly Column[];
  readonly template: string;
  readonly byHand: boolean;
};

/** A click orders by the column, the next one the other way round, the third as in the tally. */
function Headings({ setup, columns, template, byHand }: HeadingsProps) {
  const desk = useDesk();
  const [first] = setup.order;
  const orderBy = (column: string) => {
    const others = setup.order.filter((one) => one.column !== column);
    const order =
      first?.column !== column
        ? [{ column, descending: false }, ...others].slice(0, 6)
        : first.descending
          ? others
          : [{ column, descending: true }, ...others];
    desk.submit({ kind: "setList", list: { ...setup, order, handOrder: null } });
  };
  const sorted = (column: string) =>
    byHand || first?.column !== column ? undefined : first.descending ? "descending" : "ascending";
  return (
    <div role="rowgroup">
      <div
        role="row"
        className="grid h-7 items-center gap-2 border-seam border-b px-3.5 text-[12px] text-ink-soft"
        style={{ gridTemplateColumns: template }}
      >
        {byHand ? <span role="columnheader" aria-label="Drag" /> : null}
        {columns.map(({ id, heading, align }) => (
          <span
            key={id}
            role="columnheader"
            aria-sort={sorted(id)}
            title={`${heading}: order the rows by it`}
            className={`min-w-0 ${ALIGN[align]}`}
          >
            <button
              type="button"
              onClick={() => orderBy(id)}
              className={`inline-flex max-w-full items-center gap-0.5 hover:text-ink ${ALIGN[align]}`}
            >
              <span className="truncate">{heading}</span>
              {sorted(id) === "ascending" ? <ArrowUp size={11} className="shrink-0" aria-hidden /> : null}
              {sorted(id) === "descending" ? <ArrowDown size={11} className="shrink-0" aria-hidden /> : null}
            </button>
          </span>
        ))}
      </div>
    </div>
  );
}
