"use client";
import { type KeyboardEvent, useMemo, useState } from "react";
import { silhouette, silhouetteLength } from "@/core/drawing";
/** The tally: every row with its mark, count, silhouette and sizes, what changed, and the balance line. */
import { counted } from "@/core/kernel";
import { type ListGroup, type ListRow, styleOf } from "@/core/lists";
import { changeWords, type ListChange } from "@/core/release";
import type { TallyRow } from "@/core/tally";
import { Button } from "../common/button";
import { DisplayList } from "../common/display-list";
import { Tag } from "../common/tag";
import { isRowSelected, useDeskState } from "../desk/desk-context";
import { Out, PaneHead } from "../desk/pane-head";
import { type PickKeys, type PickRow, usePicking } from "../desk/picking";
import { Balance } from "./balance";
import { FindField } from "./find-field";
import { HandSummary } from "./hand-actions";
import { ListChooser } from "./list-chooser";
import { rowsThatHold } from "./list-lines";
import { MarkingBar, RenumberForm } from "./mark-actions";
import { OwnList } from "./own-list";
import { TypeIn } from "./type-in";
import { useSeenList } from "./use-seen-list";
import { useRowsInView, VirtualRows } from "./virtual-rows";

const GRID =
  "grid grid-cols-[44px_minmax(70px,1fr)_44px_150px_minmax(84px,auto)_40px_40px_66px_minmax(80px,1.1fr)] gap-2 px-3.5 items-center";
const DRAWN = 146;

type Line =
  | { readonly kind: "group"; readonly group: ListGroup }
  | { readonly kind: "row"; readonly row: ListRow; readonly tally: TallyRow };

export function TallyLedger() {
  const { tally, cutList } = useDeskState((state) => state.results);
  const info = useDeskState((state) => state.job.info.job);
  const own = useDeskState((state) => (state.list === null ? undefined : state.job.lists[state.list]));
  const { changes, acknowledge } = useSeenList(cutList, null);
  const style = styleOf(info);
  const [find, setFind] = useState("");
  const lines = useMemo(() => linesOf(cutList.groups, tally.rows, find), [cutList, tally, find]);
  const longest = Math.max(1, ...tally.rows.map((row) => silhouetteLength(row.shown)));
  const changed = changes.byRow.size + changes.gone.length;
  return (
    <>
      <PaneHead
        title={own?.name ?? "Cut list"}
        facts={own ? "" : `lengths in ${style.unit}, ends in ° from square`}
      >
        <ListChooser />
        <Out list={own} />
      </PaneHead>
      <MarkingBar />
      {own ? (
        <OwnList key={own.id} setup={own} />
      ) : (
        <>
          <div className="border-seam border-b bg-ground px-3.5 py-0.5">
            <FindField value={find} onChange={setFind} />
          </div>
          <Rows lines={lines} scale={(DRAWN - 4) / longest} changes={changes.byRow} />
        </>
      )}
      <footer className="flex shrink-0 flex-wrap items-center gap-x-4 border-seam border-t px-3.5 py-1 text-[13px]">
        <Balance />
        <span className="ml-auto" />
        <HandSummary />
        <TypeIn />
        <RenumberForm />
        {changed > 0 && !own ? (
          <>
            <span className="font-semibold text-brass-ink">{counted(changed, "row")} changed</span>
            <Button look="plain" onClick={acknowledge}>
              Mark as seen
            </Button>
          </>
        ) : null}
      </footer>
    </>
  );
}

function linesOf(groups: readonly ListGroup[], rows: readonly TallyRow[], find: string): readonly Line[] {
  const byId = new Map(rows.map((row) => [row.id, row]));
  return groups.flatMap((group) => {
    const found = rowsThatHold(group.rows, find).flatMap((row): Line[] => {
      const tally = byId.get(row.id);
      return tally ? [{ kind: "row", row, tally }] : [];
    });
    return found.length === 0 ? [] : [{ kind: "group", group } as const, ...found];
  });
}

const pickRowOf = ({ id, pieces }: TallyRow): PickRow => ({
  key: id,
  ids: pieces.map((piece) => piece.id),
});

type RowsProps = {
  readonly lines: readonly Line[];
  readonly scale: number;
  readonly changes: ReadonlyMap<string, ListChange>;
};

function Rows({ lines, scale, changes }: RowsProps) {
  const selected = useDeskState((state) => state.selected);
  const inView = useRowsInView(lines.length);
  const rows = lines.flatMap((line, index) => (line.kind === "row" ? [{ index, row: line.tally }] : []));
  const pick = usePicking(() => rows.map(({ row }) => pickRowOf(row)));
  // Where Shift and the arrows go on from.
  const [walked, setWalked] = useState<string | null>(null);
  const walk = (event: KeyboardEvent) => {
    if (event.key !== "ArrowDown" && event.key !== "ArrowUp") return;
    event.preventDefault();
    const last = rows.findIndex(({ row }) => row.id === walked && isRowSelected(row, selected));
    const at = last < 0 ? rows.findIndex(({ row }) => isRowSelected(row, selected)) : last;
    const next = rows[event.key === "ArrowDown" ? Math.min(rows.length - 1, at + 1) : Math.max(0, at - 1)];
    if (!next) return;
    pick(pickRowOf(next.row), event);
    setWalked(next.row.id);
    inView.virtual.scrollToIndex(next.index);
  };
  if (lines.length === 0) {
    return (
      <p className="flex-1 p-4 text-ink-soft">
        The pieces appear here, grouped and marked. Nothing is drawn or typed in yet.
      </p>
    );
  }
  return (
    <div
      role="grid"
      aria-label="Cut list"
      aria-rowcount={lines.length + 1}
      className="flex min-h-0 flex-1 flex-col font-table text-[14px]"
    >
      <div role="rowgroup">
        <div role="row" className={`${GRID} h-7 border-seam border-b text-[12px] text-ink-soft`}>
          {[
            "Mark",
            "Name",
            "Count",
            "Piece, to one scale",
            "Cut length",
            "End 1°",
            "End 2°",
            "Ends",
            "Note",
          ].map((heading, i) => (
            <span
              key={heading}
              role="columnheader"
              className={i === 2 || (i > 3 && i < 7) ? "text-right" : ""}
            >
              {heading}
            </span>
          ))}
        </div>
      </div>
      <VirtualRows rows={inView} label="Rows. Arrow keys move" onKeyDown={walk}>
        {(index) => {
          const line = lines[index];
          if (!line) return null;
          return line.kind === "group" ? (
            <GroupLine group={line.group} />
          ) : (
            <RowLine
              line={line}
              scale={scale}
              change={changes.get(line.row.id)}
              onPick={(keys) => {
                pick(pickRowOf(line.tally), keys);
                setWalked(line.tally.id);
              }}
            />
          );
        }}
      </VirtualRows>
    </div>
  );
}

function GroupLine({ group }: { readonly group: ListGroup }) {
  return (
    <div role="row" className="flex h-7 items-center gap-2 border-seam border-b bg-ground px-3.5">
      <span role="gridcell" className="truncate">
        <b className="font-semibold">{group.heading}</b> <span className="text-ink-soft">{group.detail}</span>
      </span>
      <span role="gridcell" className="ml-auto shrink-0 text-[13px] text-ink-soft">
        {group.summary}
      </span>
    </div>
  );
}

function RowLine({
  line,
  scale,
  change,
  onPick,
}: {
  readonly line: Extract<Line, { kind: "row" }>;
  readonly scale: number;
  readonly change: ListChange | undefined;
  readonly onPick: (keys: PickKeys) => void;
}) {
  const { row, tally } = line;
  const chosen = useDeskState((state) => isRowSelected(tally, state.selected));
  const text = (id: string) => row.cells[id]?.text ?? "";
  const size =
    tally.kind === "panel" ? [text("length"), text("width"), text("thickness")].join(" × ") : text("length");
  const width = Math.max(1, silhouetteLength(tally.shown) * scale);
  const end = (id: string) => (tally.kind === "member" ? text(id) : "");
  return (
    <div
      role="row"
      aria-selected={chosen}
      data-mark={tally.mark}
      onClick={onPick}
      className={`${GRID} h-7 cursor-pointer border-seam border-b ${chosen ? "bg-brass-pale" : "hover:bg-ground"}`}
    >
      <span role="gridcell">
        <Tag mark={tally.mark} selected={chosen} />
      </span>
      <span role="gridcell" className="truncate" title={tally.name}>
        {tally.name}
      </span>
      <span role="gridcell" className="text-right">
        {text("count")}
      </span>
      <span role="gridcell">
        <DisplayList
          drawing={{ width, height: 16, items: silhouette(tally.shown, { scale, depth: 16, line: 1 }) }}
          label={`Silhouette of ${tally.name}`}
        />
      </span>
      <span
        role="gridcell"
        className={`whitespace-nowrap text-right ${change?.kind === "changed" ? "font-semibold text-brass-ink" : ""} ${size === "missing" ? "font-semibold text-oxide" : ""}`}
      >
        {size}
      </span>
      <span role="gridcell" className="text-right">
        {end("end1")}
      </span>
      <span role="gridcell" className="text-right">
        {end("end2")}
      </span>
      <span role="gridcell" className="truncate text-[13px] text-ink-soft">
        {text("stand") === "square" ? "" : text("stand")}
      </span>
      <span role="gridcell" className="truncate text-[13px]" title={text("note")}>
        {tally.byHand === null ? null : <b className="mr-1.5 font-semibold text-chalk">by hand</b>}
        <ChangeWords change={change} text={text} />
        <span className="text-ink-soft">{text("note")}</span>
      </span>
    </div>
  );
}

/** Columns whose figure stands beside what is told of it; others are named. */
const PLAIN: ReadonlySet<string> = new Set(["length", "mark"]);

function ChangeWords({
  change,
  text,
}: {
  readonly change: ListChange | undefined;
  readonly text: (column: string) => string;
}) {
  if (!change) return null;
  const words =
    change.kind === "new"
      ? "new"
      : Object.entries(change.was)
          .map(([column, was]) => `${PLAIN.has(column) ? "" : `${column} `}${changeWords(was, text(column))}`)
          .join(", ");
  return <b className="mr-1.5 font-semibold text-brass-ink">{words}</b>;
}
