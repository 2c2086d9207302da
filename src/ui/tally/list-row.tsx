"use client";
/** The lines of a list's grid: headings of groups that fold, and rows whose cells are walked, typed over and dragged. */
import { useDraggable, useDroppable } from "@dnd-kit/core";
import { ChevronDown, ChevronRight, GripVertical } from "lucide-react";
import { ownColumnIn } from "@/core/job";
import { type Column, SILHOUETTE_COLUMN } from "@/core/lists";
import type { ListChange } from "@/core/release";
import { Tag } from "../common/tag";
import { useDeskState } from "../desk/desk-context";
import type { PickKeys } from "../desk/picking";
import { CellEditor, CellText, ChangeWords, cellTitle, NOTE_COLUMN, SilhouetteCell } from "./list-cells";
import { foldOfGroup, type ListLine } from "./list-lines";
import type { CellEdits } from "./use-cell-edits";

export const ALIGN = { left: "text-left", right: "text-right", centre: "text-center" } as const;

/** A cell by its row and its column. */
export type Place = { readonly row: string; readonly column: string };

const cellId = ({ row, column }: Place) => `cell ${row} ${column}`.replace(/\s/g, "_");

/** The heading of a group, which folds its rows. */
export function GroupLine({
  line: { group, folded },
  onFold,
}: {
  readonly line: Extract<ListLine, { kind: "group" }>;
  readonly onFold: (id: string) => void;
}) {
  return (
    <div role="row" className="flex h-7 items-center gap-2 border-seam border-b bg-ground px-3.5">
      <span role="gridcell" className="min-w-0">
        <FoldButton folded={folded} what={group.heading} onFold={() => onFold(foldOfGroup(group))} />
        <span className="font-semibold">{group.heading}</span>{" "}
        <span className="text-ink-soft">{group.detail}</span>
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
      aria-label={`${folded ? "Expand" : "Collapse"} ${what}`}
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
  readonly onGo: (place: Place, keys: PickKeys) => void;
  readonly onTyping: (text: string | null) => void;
  readonly onClose: (byKey: boolean) => void;
};

/** One row of a list, cell by cell. */
export function RowLine(props: RowLineProps) {
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
  const tally = useDeskState((state) =>
    row.summed ? undefined : state.results.tally.rowOfPiece.get(row.records[0] ?? ""),
  );
  const chosen = useDeskState((state) => row.records.some((id) => state.selected.has(id)));
  const own = useDeskState((state) => state.job.ownColumns);
  const hasNotes = columns.some(({ id }) => id === NOTE_COLUMN);
  const { setNodeRef, isOver } = useDroppable({ id: row.id, disabled: !byHand });
  return (
    <div
      ref={setNodeRef}
      role="row"
      aria-selected={chosen}
      data-list-row={row.id}
      data-mark={tally?.mark}
      onClick={(event) => onGo({ row: row.id, column: active ?? columns[0]?.id ?? "" }, event)}
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
            onClick={(event) => {
              event.stopPropagation();
              onGo(place, event);
            }}
            onDoubleClick={() => onTyping(cell.text)}
            className={`min-h-5 min-w-0 ${isActive && typing !== null ? "" : "truncate"} ${ALIGN[align]} ${isActive ? "outline-2 outline-enamel -outline-offset-1" : ""}`}
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
                {id === NOTE_COLUMN && tally && tally.byHand !== null ? (
                  <b className="mr-1.5 font-semibold text-chalk">by hand</b>
                ) : null}
                {id === NOTE_COLUMN ? <ChangeWords change={change} row={row} columns={columns} /> : null}
                {isMark ? (
                  <Tag mark={cell.text} selected={chosen} />
                ) : (
                  <CellText cell={cell} was={was} told={hasNotes} />
                )}
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
