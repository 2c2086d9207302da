"use client";
/** The open page with its tools: what can be put on it, how near it is seen, and what leaves it. */
import { Maximize, ZoomIn, ZoomOut } from "lucide-react";
import { useState } from "react";
import { toast } from "sonner";
import { type CaughtFeature, NEXT_OUT, SHEETS, scaleWords, standOfSize } from "@/core/drawing";
import type { Vec2 } from "@/core/geometry";
import type { Page, Pointed } from "@/core/job";
import { plainSize } from "@/core/placing";
import { Button } from "../common/button";
import { Notice } from "../common/notice";
import { useDesk, useDeskState } from "../desk/desk-context";
import { PaneHead } from "../desk/pane-head";
import { ToolButton } from "../shape/tool-button";
import { MarkingBar } from "../tally/mark-actions";
import { AddMenu } from "./add-menu";
import { BalloonMenu, missingBalloons } from "./balloon-menu";
import { useFittingZoom } from "./canvas-parts";
import { useDrawings } from "./drawings-ground";
import { addDetailEdit, newCallout, newItemId } from "./new-items";
import { PageCanvas } from "./page-canvas";
import { PagesOut } from "./pages-out";
import { type Pointing, sizesIn } from "./pointing";
import { SizeMenu, useCatchGrounds } from "./size-menu";
import { useProposeSteps } from "./use-set-drawing";

const POINTING_WORDS: Readonly<Record<Exclude<Pointing["kind"], "size">, string>> = {
  balloon: "Click a piece in a view: its row gets a balloon.",
  leader: "Click a piece in the same view: the balloon gets a leader to it.",
  detail: "Click the place in a view that the detail shows larger.",
  callout: "Click the piece in a view that the callout points at.",
};

function pointingWords(pointing: Pointing): string {
  if (pointing.kind !== "size") return POINTING_WORDS[pointing.kind];
  const { measure, from } = pointing;
  if (measure === "diameter") return "Click a hole in a view.";
  if (measure === "radius") return "Click a rounded corner in a view.";
  if (measure === "angle") return from ? "Click the second member." : "Click the first of two members.";
  return from ? "Click the place that the size runs to." : "Click the place that the size begins at.";
}

export function PagePicture() {
  const { page } = useDrawings();
  return page ? (
    <OpenPage page={page} />
  ) : (
    <>
      <PaneHead title="No page yet" />
      <p className="p-5 text-ink-soft">Add a page on the left. Views, lists and balloons go on it.</p>
    </>
  );
}

const NEARER = 1.25;

function OpenPage({ page }: { readonly page: Page }) {
  const desk = useDesk();
  const unit = useDeskState((state) => state.job.info.job.unit);
  const { draw, shown, setThread } = useDrawings();
  const drawn = draw(page);
  const { room, fit } = useFittingZoom(drawn.size);
  const [nearer, setNearer] = useState<number | null>(null);
  const [pointing, setPointing] = useState<Pointing | null>(null);
  const zoom = nearer ?? fit;
  const proposeSteps = useProposeSteps(setThread);
  const waiting = drawn.placed.some(({ item }) => shown.waiting.has(item.id));
  const { name } = SHEETS[page.paper];

  const grounds = useCatchGrounds(drawn);
  const onFeature = (view: string, caught: CaughtFeature) => {
    if (pointing?.kind === "detail") {
      const { edit, id } = addDetailEdit(view, caught.feature, { job: desk.store.getState().job, drawn });
      if (desk.submit(edit) === null) desk.select([id]);
      setPointing(null);
    }
    if (pointing?.kind !== "size") return;
    const { measure, run, from, stand } = pointing;
    const isOfOne = measure === "diameter" || measure === "radius";
    if (!isOfOne && (from === null || from.view !== view)) {
      setPointing({ ...pointing, from: { view, caught }, stand: null });
      return;
    }
    const start = from?.caught ?? caught;
    const there = sizesIn(drawn.placed, view);
    const found = standOfSize(measure, [start.at, caught.at], there);
    const stood = stand && run === "steps" ? { ...stand, out: stand.out + NEXT_OUT } : (stand ?? found);
    const made = plainSize({
      id: newItemId(),
      page: page.id,
      view,
      measure,
      from: start.feature,
      to: isOfOne ? null : caught.feature,
      ...stood,
    });
    if (desk.submit({ kind: "setPageItems", items: [made] }) !== null) return;
    const next = run === "single" ? null : { view, caught: run === "chain" ? caught : start };
    setPointing({ ...pointing, from: next, stand: next ? stood : null });
  };

  const onPiece = (view: string, piece: Pointed, at: Vec2) => {
    const { results, job } = desk.store.getState();
    const ring = drawn.rings.get(view);
    const row = results.tally.rowOfPiece.get(piece.record);
    const stands = drawn.placed.find(({ item }) => item.id === view)?.item;
    if (!pointing || pointing.kind === "size" || pointing.kind === "detail" || !ring || !stands) return;
    if (pointing.kind === "callout") {
      const item = newCallout(stands, piece, [ring.box.x1 + 8, Math.max(ring.box.y0, at[1] - 12)]);
      if (desk.submit({ kind: "setPageItems", items: [item] }) === null) desk.select([item.id]);
      setPointing(null);
      return;
    }
    if (pointing.kind === "leader") {
      const balloon = job.pageItems[pointing.balloon];
      if (balloon?.kind === "balloon" && balloon.view === view)
        desk.submit({ kind: "setPageItems", items: [{ ...balloon, pieces: [...balloon.pieces, piece] }] });
      setPointing(null);
      return;
    }
    if (!row) return;
    const made = missingBalloons(drawn, view, [row]);
    if (made.length === 0)
      toast(
        `There is no room for a balloon of ${row.name} round this view. Move the view, or make it smaller.`,
      );
    else desk.submit({ kind: "setPageItems", items: made.map((one) => ({ ...one, pieces: [piece] })) });
  };

  return (
    <>
      <PaneHead
        title={page.heading}
        facts={`${name}, ${page.lying ? "landscape" : "portrait"} · ${scaleWords(page.scale, unit)}${waiting ? " · drawing…" : ""}`}
      >
        <AddMenu drawn={drawn} onPoint={setPointing} onSteps={proposeSteps} />
        <BalloonMenu drawn={drawn} onPoint={setPointing} />
        <SizeMenu drawn={drawn} onPoint={setPointing} />
        <span className="flex">
          <ToolButton word="Zoom out" onClick={() => setNearer(zoom / NEARER)}>
            <ZoomOut size={16} aria-hidden />
          </ToolButton>
          <ToolButton word="Fit page" onClick={() => setNearer(null)}>
            <Maximize size={16} aria-hidden />
          </ToolButton>
          <ToolButton word="Zoom in" onClick={() => setNearer(Math.min(20, zoom * NEARER))}>
            <ZoomIn size={16} aria-hidden />
          </ToolButton>
        </span>
        <PagesOut page={page} />
      </PaneHead>
      <MarkingBar />
      {pointing ? (
        <Notice tone="plain">
          <span className="flex items-center gap-3">
            {pointingWords(pointing)}
            <Button look="plain" onClick={() => setPointing(null)}>
              Done
            </Button>
          </span>
        </Notice>
      ) : null}
      <section
        ref={room}
        aria-label="Page"
        tabIndex={0}
        className="min-h-0 flex-1 overflow-auto bg-ground"
        onWheel={(event) => {
          if (event.ctrlKey) setNearer(Math.min(20, Math.max(0.3, zoom * Math.exp(-event.deltaY / 400))));
        }}
      >
        <div className="flex min-h-full w-max min-w-full items-center justify-center p-5">
          <PageCanvas
            drawn={drawn}
            zoom={zoom}
            onPiece={pointing && pointing.kind !== "size" && pointing.kind !== "detail" ? onPiece : null}
            catching={
              pointing?.kind === "size"
                ? { measure: pointing.measure, grounds, from: pointing.from, onFeature }
                : pointing?.kind === "detail"
                  ? { measure: "place", grounds, from: null, onFeature }
                  : null
            }
          />
        </div>
      </section>
    </>
  );
}
