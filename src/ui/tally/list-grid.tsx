"use client";
/**
 * The rows of a list as a grid that is walked by keys: Enter types over a cell, Delete puts it back, a click on a heading
 * orders the rows, and rows of a list in an order by hand are dragged or moved with Alt and the arrows.
 */
import {
  DndContext,
  type DragEndEvent,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { ArrowDown, ArrowUp, ChevronDown, ChevronRight, GripVertical } from "lucide-react";
import { type KeyboardEvent, useMemo, useState } from "react";
import { silhouetteLength } from "@/core/drawing";
import { type ListSetup, ownColumnIn } from "@/core/job";
import { type Column, type FootLine, type ListRow, type ListTable, SILHOUETTE_COLUMN } from "@/core/lists";
import type { ListChange } from "@/core/release";
import { Tag } from "../common/tag";
import { useDesk, useDeskState } from "../desk/desk-context";
import { CellEditor, CellText, cellTitle, SILHOUETTE_PX, SilhouetteCell } from "./list-cells";
import { type ListLine, movedOrder } from "./list-lines";
import { type CellEdits, useCellEdits } from "./use-cell-edits";
import { useRowsInView, VirtualRows } from "./virtual-rows";

const ALIGN = { left: "text-left", right: "text-right", centre: "text-center" } as const;
const GRIP = "20px";

type Place = { readonly row: string; readonly column: string };

type GridProps = {
  readonly setup: ListSetup;
  readonly table: ListTable;
  readonly lines: readonly ListLine[];
  readonly changes: ReadonlyMap<string, ListChange>;
  readonly onFold: (id: string) => void;
};

const cellId = ({ row, column }: Place) => `cell ${row} ${column}`.replace(/\s/g, "_");

export function ListGrid({ setup, table, lines, changes, onFold }: GridProps) {
  const desk = useDesk();
  const edits = useCellEdits(setup);
  const [active, setActive] = useState<Place | null>(null);
  const [typing, setTyping] = useState<string | null>(null);
  const inView = useRowsInView(lines.length);
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
  const tallyRows = useDeskState((state) => state.results.tally.rows);
  const longest = useMemo(
    () => tallyRows.reduce((most, row) => Math.max(most, silhouetteLength(row.shown)), 1),
    [tallyRows],
  );
  const move = (id: string, to: string) =>
    desk.submit({ kind: "setList", list: { ...setup, handOrder: movedOrder(table, id, to) } });
  const go = (place: Place) => {
    setActive(place);
    const found = rows.find(({ row }) => row.id === place.row);
    if (!found) return;
    desk.select(found.row.records);
    inView.virtual.scrollToIndex(found.index);
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
          label="Rows; walk with the arrow keys, Enter types over a cell, Delete puts it back"
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
  readonly go: (place: Place) => void;
  readonly startTyping: (text: string | null) => void;
};

function gridKeys({ rows, columns, active, edits, byHand, move, go, startTyping }: KeysOf) {
  return (event: KeyboardEvent): void => {
    const at = Math.max(
      -1,
      rows.findIndex((row) => row.id === active?.row),
    );
    const column = Math.max(
      0,
      columns.findIndex((one) => one.id === active?.column),
    );
    const to = (row: number, next: number) => {
      const target = rows[Math.min(rows.length - 1, Math.max(0, row))];
      const id = columns[Math.min(columns.length - 1, Math.max(0, next))]?.id;
      if (target && id) go({ row: target.id, column: id });
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

function GroupLine({
  line: { group, folded },
  onFold,
}: {
  readonly line: Extract<ListLine, { kind: "group" }>;
  readonly onFold: (id: string) => void;
}) {
  return (
    <div role="row" className="flex h-7 items-center gap-2 border-seam border-b bg-ground px-3.5">
      <span role="gridcell" className="min-w-0">
        <FoldButton folded={folded} what={group.heading} onFold={() => onFold(`group ${group.heading}`)} />
        <span className="font-semibold">{group.heading}</span>
      </span>
      <span role="gridcell" className="ml-auto shrink-0 text-[13px] text-ink-soft">
        {group.summary}
      </span>
    </div>
  );
}

function FoldButton({
  folded,
  what,
  onFold,
}: {
  readonly folded: boolean;
  readonly what: string;
  readonly onFold: () => void;
}) {
  const Icon = folded ? ChevronRight : ChevronDown;
  return (
    <button
      type="button"
      tabIndex={-1}
      aria-expanded={!folded}
      aria-label={`${folded ? "Unfold" : "Fold"} ${what}`}
      className="mr-1 inline-flex h-5 w-5 items-center justify-center align-middle text-ink-soft hover:text-ink"
      onClick={(event) => {
        event.stopPropagation();
        onFold();
      }}
    >
      <Icon size={14} aria-hidden />
    </button>
  );
}

type RowLineProps = {
  readonly line: Extract<ListLine, { kind: "row" }>;
  readonly columns: readonly Column[];
  readonly template: string;
  readonly byHand: boolean;
  readonly longest: number;
  readonly change: ListChange | undefined;
  /** The column that the keys are at, when they are at this row. */
  readonly active: string | null;
  readonly typing: string | null;
  readonly edits: CellEdits;
  readonly onFold: (id: string) => void;
  readonly onGo: (place: Place) => void;
  readonly onTyping: (text: string | null) => void;
  readonly onClose: (byKey: boolean) => void;
};

function RowLine(props: RowLineProps) {
  const {
    line,
    columns,
    template,
    byHand,
    longest,
    change,
    active,
    typing,
    edits,
    onFold,
    onGo,
    onTyping,
    onClose,
  } = props;
  const { row } = line;
  const desk = useDesk();
  const tally = useDeskState((state) =>
    row.summed ? undefined : state.results.tally.rowOfPiece.get(row.records[0] ?? ""),
  );
  const chosen = useDeskState((state) => row.records.some((id) => state.selected.has(id)));
  const own = useDeskState((state) => state.job.ownColumns);
  const { setNodeRef, isOver } = useDroppable({ id: row.id, disabled: !byHand });
  return (
    <div
      ref={setNodeRef}
      role="row"
      aria-selected={chosen}
      data-list-row={row.id}
      onClick={() => desk.select(row.records)}
      className={`grid h-7 items-center gap-2 border-seam border-b px-3.5 ${chosen ? "bg-brass-pale" : "hover:bg-ground"} ${isOver ? "border-t-2 border-t-brass" : ""}`}
      style={{ gridTemplateColumns: template }}
    >
      {byHand ? <Grip id={row.id} /> : null}
      {columns.map(({ id, align, heading }) => {
        const cell = row.cells[id];
        if (!cell) return <span key={id} role="gridcell" />;
        const was = change?.kind === "changed" ? change.was[id] : undefined;
        const place = { row: row.id, column: id };
        const isActive = active === id;
        const isMark = id === "mark" && tally !== undefined && !cell.over && !cell.lack;
        return (
          <span
            key={id}
            id={cellId(place)}
            role="gridcell"
            aria-label={isActive ? `${heading}: ${cellTitle(cell, was)}` : undefined}
            title={cellTitle(cell, was)}
            data-column={id}
            onClick={() => onGo(place)}
            onDoubleClick={() => onTyping(cell.text)}
            className={`min-w-0 ${isActive && typing !== null ? "" : "truncate"} ${ALIGN[align]} ${isActive ? "outline-2 outline-enamel -outline-offset-1" : ""}`}
            style={id === "name" && row.level > 1 ? { paddingLeft: (row.level - 1) * 16 } : undefined}
          >
            {isActive && typing !== null && id !== SILHOUETTE_COLUMN ? (
              <CellEditor
                label={`${heading} of ${tally?.name ?? row.cells["name"]?.text ?? "this row"}`}
                start={typing}
                choices={own[ownColumnIn(id) ?? ""]?.choices ?? []}
                onCommit={(text) => edits.type(row, id, text)}
                onClose={onClose}
              />
            ) : id === SILHOUETTE_COLUMN ? (
              tally ? (
                <SilhouetteCell row={tally} longest={longest} />
              ) : null
            ) : (
              <>
                {id === "name" && line.opens ? (
                  <FoldButton folded={line.folded} what={cell.text} onFold={() => onFold(row.id)} />
                ) : null}
                {change?.kind === "new" && id === columns[0]?.id ? (
                  <b className="mr-1 font-semibold text-[12px] text-brass-ink">new</b>
                ) : null}
                {isMark ? <Tag mark={cell.text} selected={chosen} /> : <CellText cell={cell} was={was} />}
              </>
            )}
          </span>
        );
      })}
    </div>
  );
}

function Grip({ id }: { readonly id: string }) {
  const { attributes, listeners, setNodeRef, isDragging } = useDraggable({ id });
  return (
    <span role="gridcell">
      <button
        ref={setNodeRef}
        type="button"
        {...attributes}
        {...listeners}
        tabIndex={-1}
        aria-label="Drag the row to another place"
        className={`flex h-6 w-5 cursor-grab items-center justify-center text-ink-soft hover:text-ink ${isDragging ? "text-brass" : ""}`}
      >
        <GripVertical size={14} aria-hidden />
      </button>
    </span>
  );
}

function Foot({
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
function ActiveCell({
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
        {heading} is typed over: <b className="text-chalk">{cell.text}</b>, computed{" "}
        <b>{computed || "nothing"}</b>
        {changed ? (
          <span className="text-amber"> — it was {was || "nothing"} when this was typed</span>
        ) : null}
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
