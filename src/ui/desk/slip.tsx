"use client";
/** The slip at the foot of the desk: facts and settings of what is selected, and the checks that concern it. */
import { ChevronDown, ChevronsUpDown, ChevronUp } from "lucide-react";
import { useState } from "react";
import { findAssembly } from "@/core/job";
import { Tag } from "../common/tag";
import { DrawingSettings } from "../drawings/drawing-settings";
import { itemWords } from "../drawings/item-words";
import { SelectionActions } from "../shape/selection-actions";
import { HandActions } from "../tally/hand-actions";
import { MarkActions } from "../tally/mark-actions";
import { CheckList } from "./checks";
import { useDeskState } from "./desk-context";
import { SelectionFacts } from "./selection-facts";
import { SelectionSettings } from "./selection-settings";
import type { Stage } from "./stages";

export function Slip({ stage }: { readonly stage: Stage }) {
  const [open, setOpen] = useState(true);
  const [tall, setTall] = useState(false);
  const selected = useDeskState((state) => state.selected);
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
      className={`shrink-0 border-ink border-t-2 bg-ground ${open ? (tall ? "h-[316px]" : "h-[176px]") : "h-9"}`}
    >
      <div className="flex h-9 items-center gap-2.5 px-3.5">
        {only?.mark ? <Tag mark={only.mark} selected /> : null}
        <h2 className="font-semibold font-slab text-[16px]">{title}</h2>
        <p className="shrink-0 text-[13px] text-ink-soft">
          {only && item?.kind !== "view"
            ? `${chosen} of ${inRow} selected`
            : selected.size === 0 && stage !== "drawings"
              ? "Select a row, or a piece in the 3D view. Hold Shift to add."
              : ""}
        </p>
        {only?.mark ? <MarkActions row={only} /> : null}
        {stage === "tally" ? <HandActions rows={rows} /> : null}
        {stage === "shape" || stage === "layout" || stage === "buy" ? <SelectionActions /> : null}
        {open ? (
          <button
            type="button"
            className="ml-auto flex shrink-0 items-center gap-1 text-[13px] text-ink-soft hover:text-ink"
            aria-pressed={tall}
            onClick={() => setTall(!tall)}
          >
            <ChevronsUpDown size={15} aria-hidden /> {tall ? "Smaller" : "Larger"}
          </button>
        ) : null}
        <button
          type="button"
          className={`${open ? "" : "ml-auto"} flex shrink-0 items-center gap-1 text-[13px] text-ink-soft hover:text-ink`}
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        >
          {open ? <ChevronDown size={15} aria-hidden /> : <ChevronUp size={15} aria-hidden />}
          {open ? "Collapse" : "Expand"}
        </button>
      </div>
      {open ? (
        <div className="grid h-[calc(100%-36px)] grid-cols-[minmax(250px,0.8fr)_minmax(320px,1.3fr)_minmax(280px,1fr)] divide-x divide-seam border-seam border-t">
          <section aria-label="Facts" tabIndex={0} className="overflow-auto px-3.5 py-2">
            {stage === "drawings" && !only ? <PageKeys /> : <SelectionFacts />}
          </section>
          <section aria-label="Settings" tabIndex={0} className="overflow-auto px-3.5 py-2">
            {stage === "drawings" ? <DrawingSettings /> : <SelectionSettings />}
          </section>
          <section aria-label="Checks" tabIndex={0} className="overflow-auto px-3.5 py-2">
            <CheckList />
          </section>
        </div>
      ) : null}
    </section>
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
