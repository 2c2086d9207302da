"use client";
/** The slip at the foot of the desk: facts and settings of what is selected, and the checks that concern it. */
import { ArrowRight, ChevronDown, ChevronsUpDown, ChevronUp } from "lucide-react";
import { Popover } from "radix-ui";
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";
import { findAssembly } from "@/core/job";
import { counted } from "@/core/kernel";
import { nextStep } from "@/core/next-step";
import { Button } from "../common/button";
import { Tag } from "../common/tag";
import { DrawingSettings } from "../drawings/drawing-settings";
import { itemWords } from "../drawings/item-words";
import { SelectionActions } from "../shape/selection-actions";
import { HandActions } from "../tally/hand-actions";
import { MarkActions } from "../tally/mark-actions";
import { CheckList } from "./checks";
import { useDeskState } from "./desk-context";
import { SelectMore } from "./select-more";
import { SelectionFacts } from "./selection-facts";
import { SelectionSettings } from "./selection-settings";
import type { Stage } from "./stages";

type Staged = { readonly stage: Stage; readonly onStage: (stage: Stage) => void };

export function Slip({ stage, onStage }: Staged) {
  // As somebody left it; until then it is open when there is something to say.
  const [asked, setAsked] = useState<boolean | null>(null);
  const [tall, setTall] = useState(false);
  const selected = useDeskState((state) => state.selected);
  const hasContent = selected.size > 0 || stage === "drawings";
  const open = useSteady(hasContent ? (asked ?? true) : false);
  useRowKeptInView(open, tall);
  const tally = useDeskState((state) => state.results.tally);
  const rows = [...new Set([...selected].flatMap((id) => tally.rowOfPiece.get(id) ?? []))];
  const [only] = rows.length === 1 ? rows : [];
  const keySize = useDeskState((state) => [...state.selected].map((id) => state.job.keySizes[id])[0]);
  const assembly = useDeskState(
    (state) =>
      [...state.selected].map((id) => findAssembly(state.job, state.job.placements[id]?.assembly ?? id))[0],
  );
  const guide = useDeskState((state) => [...state.selected].some((id) => state.job.lines[id]));
  const item = useDeskState((state) =>
    stage === "drawings" ? [...state.selected].map((id) => state.job.pageItems[id]).find(Boolean) : undefined,
  );
  const job = useDeskState((state) => state.job);
  const title = item
    ? itemWords(item, job, tally)
    : keySize
      ? `Key size ${keySize.name}`
      : only
        ? only.name
        : assembly
          ? assembly.name
          : guide
            ? "Guide"
            : selected.size === 0 && stage !== "drawings"
              ? "Nothing selected"
              : rows.length > 1
                ? `${rows.length} rows`
                : "Selection";
  const inRow = only ? only.pieces.reduce((sum, piece) => sum + piece.quantity, 0) : 0;
  const chosen = only
    ? only.pieces.filter((piece) => selected.has(piece.id)).reduce((sum, piece) => sum + piece.quantity, 0)
    : 0;
  return (
    <section
      aria-label="Details"
      className={`flex shrink-0 flex-col border-ink border-t-2 bg-ground ${open ? (tall ? "h-[316px] narrow:h-[420px]" : "h-[176px] narrow:h-[240px]") : "min-h-9"}`}
    >
      <div className="flex min-h-9 shrink-0 items-center gap-2.5 px-3.5 narrow:flex-wrap narrow:gap-y-0">
        {only?.mark ? <Tag mark={only.mark} selected /> : null}
        <h2 className="font-semibold font-slab text-[16px]">{title}</h2>
        {only && item?.kind !== "view" ? (
          <p className="shrink-0 text-[13px] text-ink-soft">{`${chosen} of ${inRow} selected`}</p>
        ) : null}
        {selected.size === 0 ? <Next stage={stage} onStage={onStage} /> : null}
        {stage === "drawings" ? null : <SelectMore />}
        {only?.mark ? <MarkActions row={only} /> : null}
        {stage === "tally" ? <HandActions rows={rows} /> : null}
        {stage === "shape" || stage === "layout" || stage === "buy" ? <SelectionActions /> : null}
        {hasContent ? null : <FirstCheck />}
        {open ? (
          <button
            type="button"
            className="ml-auto flex min-h-6 shrink-0 items-center gap-1 text-[13px] text-ink-soft hover:text-ink"
            aria-pressed={tall}
            onClick={() => setTall(!tall)}
          >
            <ChevronsUpDown size={15} aria-hidden /> {tall ? "Smaller" : "Larger"}
          </button>
        ) : null}
        {hasContent ? (
          <button
            type="button"
            className={`${open ? "" : "ml-auto"} flex min-h-6 shrink-0 items-center gap-1 text-[13px] text-ink-soft hover:text-ink`}
            aria-expanded={open}
            onClick={() => setAsked(!open)}
          >
            {open ? <ChevronDown size={15} aria-hidden /> : <ChevronUp size={15} aria-hidden />}
            {open ? "Collapse" : "Expand"}
          </button>
        ) : null}
      </div>
      {open ? (
        <div className="grid min-h-0 flex-1 grid-cols-[minmax(250px,0.8fr)_minmax(320px,1.3fr)_minmax(280px,1fr)] divide-x divide-seam border-seam border-t narrow:grid-cols-[minmax(0,1fr)_minmax(0,2fr)] narrow:grid-rows-2">
          <section aria-label="Facts" tabIndex={0} className="overflow-auto px-3.5 py-2">
            {stage === "drawings" && !only ? <PageKeys /> : <SelectionFacts />}
          </section>
          <section
            aria-label="Settings"
            tabIndex={0}
            className="overflow-auto px-3.5 py-2 narrow:col-start-2 narrow:row-span-2 narrow:row-start-1"
          >
            {stage === "drawings" ? <DrawingSettings /> : <SelectionSettings />}
          </section>
          <section
            aria-label="Checks"
            tabIndex={0}
            className="overflow-auto px-3.5 py-2 narrow:border-seam narrow:border-t"
          >
            <CheckList />
          </section>
        </div>
      ) : null}
    </section>
  );
}

/** What comes next, and the way there. */
function Next({ stage, onStage }: Staged) {
  const job = useDeskState((state) => state.job);
  const results = useDeskState((state) => state.results);
  const saved = useDeskState((state) => state.layouts);
  const next = useMemo(() => nextStep(stage, job, results, saved), [stage, job, results, saved]);
  return (
    <p className="flex min-w-0 shrink-0 items-center gap-1.5 text-[13px]">
      <span className="text-ink-soft">Next:</span>
      {next.stage === null ? (
        <span>{next.words}</span>
      ) : (
        <Button look="plain" onClick={() => next.stage && onStage(next.stage)}>
          {next.words} <ArrowRight size={14} aria-hidden />
        </Button>
      )}
    </p>
  );
}

/** A value that stays as it is while a button of the pointer is down: what is dragged must not move under it. */
function useSteady<T>(value: T): T {
  const [isDown, setDown] = useState(false);
  const [steady, setSteady] = useState(value);
  useEffect(() => {
    const down = () => setDown(true);
    const up = () => setDown(false);
    window.addEventListener("pointerdown", down, true);
    // After what the release itself does.
    const released = () => requestAnimationFrame(up);
    window.addEventListener("pointerup", released, true);
    window.addEventListener("pointercancel", released, true);
    return () => {
      window.removeEventListener("pointerdown", down, true);
      window.removeEventListener("pointerup", released, true);
      window.removeEventListener("pointercancel", released, true);
    };
  }, []);
  if (!isDown && steady !== value) setSteady(value);
  return isDown ? steady : value;
}

/** The details take their room from the lists above them: the row that was clicked, or else is selected, stays in view when they open. */
function useRowKeptInView(open: boolean, tall: boolean): void {
  const clicked = useRef<Element | null>(null);
  useEffect(() => {
    const note = ({ target }: Event) => {
      clicked.current = target instanceof Element ? target.closest("[role=row], li") : null;
    };
    window.addEventListener("pointerdown", note, true);
    return () => window.removeEventListener("pointerdown", note, true);
  }, []);
  useLayoutEffect(() => {
    if (!open && !tall) return;
    const row = clicked.current ?? document.querySelector("[role=row][aria-selected=true]");
    row?.scrollIntoView({ block: "nearest" });
  }, [open, tall]);
}

/** Without a selection: how many checks there are, and the first of them; all in a list that opens over the line. */
function FirstCheck() {
  const checks = useDeskState((state) => state.results.tally.checks);
  const [first] = checks;
  if (!first) return <p className="ml-auto shrink-0 text-[13px] text-ink-soft">No checks in this job.</p>;
  return (
    <Popover.Root>
      <Popover.Trigger className="ml-auto flex min-w-0 items-center gap-2 text-[13px] hover:underline">
        <span
          aria-hidden
          className={`h-2 w-2 shrink-0 rotate-45 ${first.severity === "error" ? "bg-oxide" : "bg-brass"}`}
        />
        <span className="min-w-0 truncate">{first.message}</span>
        <b className="shrink-0 font-semibold">{counted(checks.length, "check")}</b>
        <ChevronUp size={15} className="shrink-0" aria-hidden />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="top"
          align="end"
          sideOffset={4}
          aria-label="Checks"
          className="z-40 max-h-[420px] w-[520px] overflow-auto rounded-sm border border-seam bg-leaf p-3 shadow-lg"
        >
          <CheckList />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** How things on a page are moved. */
function PageKeys() {
  return (
    <p className="text-[13px] text-ink-soft">
      Drag what stands on the page, or move it with the arrow keys: 1 mm, with Alt 0.1 mm, with Shift 10 mm.
      Hold Shift to select several. Delete removes. Click a piece in a view to see its row.
    </p>
  );
}
