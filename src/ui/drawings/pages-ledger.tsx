"use client";
/** The pages of the job in their order, as small pictures, and what the set still lacks. */
import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { useVirtualizer } from "@tanstack/react-virtual";
import { Copy, GripVertical, Plus, Trash2 } from "lucide-react";
import { memo, useEffect, useRef } from "react";
import { type DrawnPage, SHEETS } from "@/core/drawing";
import { copyOfPage, type Page } from "@/core/job";
import { counted } from "@/core/kernel";
import { Button } from "../common/button";
import { DrawnItems } from "../common/display-list";
import { newId } from "../common/fresh-id";
import { Hint } from "../common/hint";
import { useDesk, useDeskState } from "../desk/desk-context";
import { PaneHead } from "../desk/pane-head";
import { useDrawings } from "./drawings-ground";
import { newPage } from "./new-items";
import { Lacks } from "./set-lacks";
import { WholeSetDialog } from "./whole-set-dialog";

const ROW = 104;

export function PagesLedger() {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const { pages, page, showSmall } = useDrawings();
  const list = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: pages.length,
    getScrollElement: () => list.current,
    estimateSize: () => ROW,
    overscan: 2,
  });
  const seen = rows.getVirtualItems();
  const ids = seen.flatMap(({ index }) => pages[index]?.id ?? []).join("\n");
  useEffect(() => showSmall(ids.split("\n")), [ids, showSmall]);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const add = () => {
    const made = newPage(job, pages);
    if (desk.submit({ kind: "setPages", pages: [made] }) === null) desk.openPage(made.id);
  };
  const drop = ({ active, over }: DragEndEvent) => {
    const [from, to] = [active.id, over?.id].map((id) => pages.findIndex((one) => one.id === id));
    if (from === undefined || to === undefined || from < 0 || to < 0 || from === to) return;
    const moved = arrayMove([...pages], from, to);
    const [before, after] = [moved[to - 1]?.position, moved[to + 1]?.position];
    const position =
      before === undefined ? (after ?? 1) - 1 : after === undefined ? before + 1 : (before + after) / 2;
    const one = moved[to];
    if (one) desk.submit({ kind: "setPages", pages: [{ ...one, position }] });
  };
  return (
    <>
      <PaneHead title="Pages">
        <WholeSetDialog />
        <Button look="plain" icon={<Plus size={16} aria-hidden />} onClick={add}>
          Add page
        </Button>
      </PaneHead>
      <div
        ref={list}
        className="min-h-0 flex-1 overflow-auto"
        tabIndex={0}
        role="region"
        aria-label="Pages in order"
      >
        {pages.length === 0 ? (
          <p className="max-w-[44ch] p-4 text-ink-soft">
            Pages show the job from any side, with lists and balloons. They follow every change of the design.
            Add one to begin, or draw up the whole set at once.
          </p>
        ) : null}
        <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
          <SortableContext items={pages.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
            <ul className="relative" style={{ height: rows.getTotalSize() }}>
              {seen.map(({ index, start }) => {
                const one = pages[index];
                return one ? (
                  <PageRow
                    key={one.id}
                    page={one}
                    number={index + 1}
                    top={start}
                    current={one.id === page?.id}
                  />
                ) : null;
              })}
            </ul>
          </SortableContext>
        </DndContext>
      </div>
      {pages.length === 0 ? null : <Lacks />}
    </>
  );
}

type RowProps = {
  readonly page: Page;
  readonly number: number;
  readonly top: number;
  readonly current: boolean;
};

function PageRow({ page, number, top, current }: RowProps) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const { draw, changes } = useDrawings();
  const changed = changes(page)?.length ?? 0;
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id: page.id,
  });
  const drawn = draw(page);
  const faults = drawn.placed.filter(({ fault }) => fault !== null).length;
  const copy = () => {
    const edits = copyOfPage(job, page.id, (kind) => newId(kind === "page" ? "page" : "item"));
    if (edits) desk.submit({ kind: "together", what: `Copy page ${page.heading}`, edits: [...edits] });
  };
  const open = () => desk.openPage(page.id);
  return (
    <li
      ref={setNodeRef}
      className={`absolute left-0 flex w-full items-stretch border-seam border-b ${current ? "bg-brass-pale" : "bg-leaf"} ${isDragging ? "z-10 shadow" : ""}`}
      style={{ top, height: ROW, transform: CSS.Translate.toString(transform), transition: transition ?? "" }}
    >
      <button
        type="button"
        className="flex w-7 shrink-0 cursor-grab items-center justify-center text-ink-soft"
        aria-label={`Move page ${page.heading}`}
        {...attributes}
        {...listeners}
      >
        <GripVertical size={16} aria-hidden />
      </button>
      <button
        type="button"
        aria-current={current ? "true" : undefined}
        onClick={open}
        className="flex min-w-0 flex-1 items-center gap-3 py-2 text-left"
      >
        <span aria-hidden className="block h-[84px] w-[116px] shrink-0 border border-seam bg-leaf">
          <SmallPage drawn={drawn} />
        </span>
        <span className="min-w-0">
          <span className="block truncate font-semibold">
            {number}. {page.heading}
          </span>
          <span className="block truncate text-[13px] text-ink-soft">
            {SHEETS[page.paper].name}, {page.lying ? "landscape" : "portrait"}
          </span>
          <span className="block truncate text-[13px] text-ink-soft">{whatIsOn(drawn)}</span>
          {faults > 0 ? (
            <span className="block text-[13px] text-oxide">{counted(faults, "item")} to look at</span>
          ) : changed > 0 ? (
            <span className="block truncate text-[13px]">Changed since put out</span>
          ) : null}
        </span>
      </button>
      <span className="flex shrink-0 flex-col justify-center pr-2">
        <Hint text="Copy page">
          <button
            type="button"
            aria-label={`Copy page ${page.heading}`}
            className="p-1.5 text-enamel"
            onClick={copy}
          >
            <Copy size={15} aria-hidden />
          </button>
        </Hint>
        <Hint text="Remove page">
          <button
            type="button"
            aria-label={`Remove page ${page.heading}`}
            className="p-1.5 text-oxide"
            onClick={() => desk.submit({ kind: "removePages", ids: [page.id] })}
          >
            <Trash2 size={15} aria-hidden />
          </button>
        </Hint>
      </span>
    </li>
  );
}

/** Item by item, as on the desk: what did not change is not drawn anew. */
const SmallPage = memo(function SmallPage({ drawn }: { readonly drawn: DrawnPage }) {
  const { size, frame, placed } = drawn;
  return (
    <svg
      aria-hidden
      viewBox={`0 0 ${size.width} ${size.height}`}
      width="100%"
      height="100%"
      className="block"
    >
      <DrawnItems items={frame} />
      {placed.map(({ item, items, at }) => (
        <g key={item.id} transform={`translate(${at[0]} ${at[1]})`}>
          <DrawnItems items={items} />
        </g>
      ))}
    </svg>
  );
});

/** What stands on a page, as far as it tells pages apart: "2 views, 1 list". */
function whatIsOn({ placed }: DrawnPage): string {
  const words = (["view", "list", "card", "template", "step"] as const).flatMap((kind) => {
    const count = placed.filter(({ item }) => item.kind === kind).length;
    return count === 0 ? [] : [counted(count, kind)];
  });
  return words.length === 0 ? "nothing on it yet" : words.join(", ");
}
