"use client";
import {
  BoxSelect as BoxSelectIcon,
  Eye,
  Maximize,
  MoveHorizontal,
  PencilLine,
  Ruler,
  Tag as TagIcon,
} from "lucide-react";
import { useDeferredValue, useEffect, useMemo, useRef, useState } from "react";
import type { PlaneBox, Vec3 } from "@/core/geometry";
import { textOf } from "@/core/job";
/** The picture of the model: views, picking, marks; the last good one stays when an edit cannot be computed. */
import { counted } from "@/core/kernel";
import { MM_PER_UNIT, roundTo } from "@/core/measure";
import {
  guideLines,
  type Instance,
  placeAlong,
  placeOnJobLine,
  type Shape,
  snapPlaces,
  whereIs,
} from "@/core/shape";
import { Button } from "../common/button";
import { Notice } from "../common/notice";
import { useDesk, useDeskState } from "../desk/desk-context";
import { isMore, toggled } from "../desk/picking";
import { BoxSelect } from "./box-select";
import { CutAwayForm } from "./cut-away";
import { DrawBar } from "./draw/draw-bar";
import { DrawOverlay, type Hover, NO_HOVER } from "./draw/draw-overlay";
import { alongWay, createCatcher, type Project, stepped } from "./draw/pointer";
import { type Drawing, onceAsked, useDrawing } from "./draw/use-drawing";
import { usePointDrag } from "./draw/use-point-drag";
import { ImportDialog } from "./import-dialog";
import { JigDialog } from "./jig-dialog";
import { MeasureBar, MeasureOverlay, useMeasuring } from "./measure-bar";
import { modelPieces, pickedId } from "./model-pieces";
import { ModelScene, type ViewName } from "./model-scene";
import { Grips, GuideLines, Marks } from "./picture-overlays";
import { SizeLines, useSizeSpans } from "./size-lines";
import { Starts } from "./starts";
import { ToolButton } from "./tool-button";

const VIEWS: readonly (readonly [ViewName, string])[] = [
  ["iso", "Iso"],
  ["front", "Front"],
  ["top", "Top"],
  ["side", "Side"],
];

/** The newest shape that could be computed whole, and whether it is older than the design. */
function useGoodShape(): { readonly shape: Shape; readonly old: boolean } {
  const shape = useDeskState((state) => state.results.shape);
  const [good, setGood] = useState<Shape | null>(null);
  const whole = shape.uncomputed.every((piece) => piece.why.kind === "noSection");
  useEffect(() => {
    if (whole) setGood(shape);
  }, [shape, whole]);
  return whole || good === null ? { shape, old: false } : { shape: good, old: true };
}

/** The instance that an open assembly is shown in: the first that is not mirrored, so that it reads as drawn. */
function useOpenInstance(): Instance | null {
  const inside = useDeskState((state) => state.inside);
  const places = useDeskState((state) => state.results.shape.places);
  if (inside === null) return null;
  const all = places.get(inside) ?? [];
  return all.find(({ pose }) => !pose.mirrored) ?? all[0] ?? null;
}

const DRAW_BUTTON = "draw-members";

/** Escape steps back out of drawing wherever the focus is; when drawing ends, the focus goes to where it began. */
function useDrawKeys({ active, stepBack }: Drawing): void {
  const was = useRef(false);
  useEffect(() => {
    if (was.current && !active) document.getElementById(DRAW_BUTTON)?.focus();
    was.current = active;
  }, [active]);
  const back = useRef(stepBack);
  back.current = stepBack;
  useEffect(() => {
    if (!active) return;
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== "Escape" || event.defaultPrevented) return;
      event.preventDefault();
      back.current();
    };
    document.addEventListener("keydown", onKey);
    return () => document.removeEventListener("keydown", onKey);
  }, [active]);
}

/** Of more pieces the picture is made after what stands around it. */
const FEW_PIECES = 3_000;
const isMany = ({ members, panels }: Shape) => members.length + panels.length > FEW_PIECES;

export function ModelPicture({ canDraw = false }: { readonly canDraw?: boolean }) {
  const desk = useDesk();
  const { shape: newest, old } = useGoodShape();
  // The picture of a large job is made after the lists, in a stretch of its own.
  const late = useDeferredValue(newest);
  const shape = isMany(newest) ? late : newest;
  const tally = useDeskState((state) => state.results.tally);
  const selected = useDeskState((state) => state.selected);
  const box = useRef<HTMLDivElement>(null);
  const scene = useRef<ModelScene | null>(null);
  const [frames, setFrames] = useState(0);
  const [view, setView] = useState<ViewName>("iso");
  const [allMarks, setAllMarks] = useState(false);
  const [sizesShown, setSizesShown] = useState(false);
  const spans = useSizeSpans(sizesShown);
  const [fault, setFault] = useState<string | null>(null);
  const [boxing, setBoxing] = useState(false);
  const [jig, setJig] = useState<string | null>(null);
  const [importing, setImporting] = useState(false);
  const hidden = useDeskState((state) => state.hidden);
  const job = useDeskState((state) => state.job);
  const inside = useDeskState((state) => state.inside);
  const assets = useDeskState((state) => state.assets);
  const open = useOpenInstance();
  const { assemblies, points } = job;
  const hasPoints = useMemo(() => Object.keys(points).length > 0, [points]);
  const isEmpty = inside === null && !hasPoints;
  const pieces = useMemo(() => {
    const all = modelPieces({ assemblies }, shape, { open, assets });
    if (hidden.size === 0) return all;
    return all.filter(({ record, path }) => !hidden.has(record) && !path.some((id) => hidden.has(id)));
  }, [assemblies, shape, open, assets, hidden]);

  const expected = useRef(pieces.length);
  useEffect(() => {
    if (!box.current) return;
    try {
      const made = new ModelScene(box.current, expected.current);
      made.onFrame = () => setFrames((count) => count + 1);
      scene.current = made;
      made.onTurned = desk.lookedFrom;
    } catch {
      setFault("This browser cannot draw in 3D; lists, layouts and papers work without it.");
    }
    return () => {
      scene.current?.dispose();
      scene.current = null;
    };
  }, [desk]);
  const many = isMany(shape);
  useEffect(() => {
    if (!many) return scene.current?.setModel(pieces);
    // After what stands around it is on the screen.
    const later = setTimeout(() => scene.current?.setModel(pieces));
    return () => clearTimeout(later);
  }, [pieces, many]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another assembly is another view, and only then
  useEffect(() => {
    if (frames > 0) scene.current?.look(view);
  }, [open?.key]);
  useEffect(() => scene.current?.setSelected(selected), [selected]);

  useEffect(() => {
    if (!boxing) return;
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== "Escape") return;
      // What is selected stays: only the box is given up.
      event.preventDefault();
      setBoxing(false);
    };
    document.addEventListener("keydown", onKey);
    return () => document.removeEventListener("keydown", onKey);
  }, [boxing]);

  const drawing = useDrawing(canDraw);
  useDrawKeys(drawing);
  const [hover, setHover] = useState<Hover | null>(null);
  const pressed = useRef<{ readonly x: number; readonly y: number } | null>(null);
  const unit = useDeskState((state) => state.job.info.job.unit);
  const sizes = useDeskState((state) => state.results.sizes);
  const step = unit === "in" || unit === "ft" ? 25.4 / 2 : 10;
  const spotOf = (event: React.MouseEvent) => {
    const place = box.current?.getBoundingClientRect();
    return { x: event.clientX - (place?.left ?? 0), y: event.clientY - (place?.top ?? 0) };
  };
  const hovered = (event: React.MouseEvent): Hover => {
    const made = scene.current;
    if (!made) return NO_HOVER;
    const spot = spotOf(event);
    const snap = catcher.place(spot);
    if (snap || measuring.active) return { ...NO_HOVER, snap };
    const onLine = catcher.onLine(spot, step);
    if (onLine) return { ...NO_HOVER, onLine };
    const start = drawing.from ? whereIs(sizes, drawing.from) : null;
    if (drawing.way === "place") {
      const through: Vec3 = start?.ok ? start.value : [0, 0, 0];
      const place = made.unproject(spot, through);
      return { ...NO_HOVER, free: place && stepped(place, through, step) };
    }
    return {
      ...NO_HOVER,
      along: start?.ok ? alongWay(start.value, spot, (at) => made.project(at), step) : null,
    };
  };
  const inUnit = (mm: number) => textOf(roundTo(mm / MM_PER_UNIT[unit], 6));
  const draw = (event: React.MouseEvent) => {
    const { snap, onLine, along, free } = hovered(event);
    const { job: now } = desk.store.getState();
    if (snap) drawing.drawTo({ point: snap.point, texts: snap.texts() });
    else if (onLine) {
      const place = placeOnJobLine({ job: now, sizes }, onLine.line.id, inUnit(onLine.mm));
      if (place.ok) drawing.drawTo(place.value);
    } else if (free)
      drawing.drawTo({ point: null, texts: [inUnit(free[0]), inUnit(free[1]), inUnit(free[2])] });
    else if (along && drawing.from)
      drawing.drawTo(placeAlong(now, drawing.from, along.way, inUnit(along.mm)));
  };
  const measuring = useMeasuring();
  const measureSnaps = useMemo(
    () => onceAsked(() => (measuring.active ? snapPlaces(job, shape, inside) : [])),
    [measuring.active, job, shape, inside],
  );
  const snaps = measuring.active ? measureSnaps : drawing.snaps;
  const { lines } = drawing;
  // biome-ignore lint/correctness/useExhaustiveDependencies: places are seen elsewhere in another frame
  const catcher = useMemo(
    () => createCatcher(snaps, lines, (at) => scene.current?.project(at) ?? { x: 0, y: 0 }),
    [snaps, lines, frames],
  );
  const guides = useMemo(() => guideLines(job, shape, inside), [job, shape, inside]);
  const drag = usePointDrag(() => scene.current, step);
  const pick = (event: React.MouseEvent) => {
    // The end of a turn of the picture is no pick.
    const { x, y } = pressed.current ?? { x: event.clientX, y: event.clientY };
    if (Math.hypot(event.clientX - x, event.clientY - y) > 4) return;
    if (drawing.active) {
      draw(event);
      return;
    }
    if (measuring.active) {
      const { snap } = hovered(event);
      if (snap) measuring.take(snap);
      return;
    }
    const piece = scene.current?.pick(event.clientX, event.clientY) ?? null;
    // Where nothing is drawn a piece stands for its row; here it stands for the assembly that holds it.
    const id = piece && (canDraw ? pickedId(piece, open) : piece.record);
    if (id === null) desk.select([]);
    else desk.select(isMore(event) ? toggled(selected, [id]) : [id]);
  };
  const inBox = (within: PlaneBox) => {
    const found = scene.current?.within(within) ?? [];
    return [...new Set(found.map((piece) => (canDraw ? pickedId(piece, open) : piece.record)))];
  };
  const ready = scene.current !== null && frames > 0;
  const project: Project = (at) => scene.current?.project(at) ?? { x: 0, y: 0 };
  return (
    <>
      <div className="flex h-[41px] shrink-0 items-center gap-1 border-seam border-b px-3">
        {VIEWS.map(([name, word]) => (
          <button
            key={name}
            type="button"
            aria-pressed={view === name}
            onClick={() => {
              setView(name);
              scene.current?.look(name);
            }}
            className={`h-full border-b-2 px-2 ${view === name ? "border-enamel font-semibold" : "border-transparent text-ink-soft hover:text-ink"}`}
          >
            {word}
          </button>
        ))}
        <span className="ml-auto" />
        {canDraw ? (
          <Button
            id={DRAW_BUTTON}
            look="plain"
            aria-pressed={drawing.active}
            icon={<PencilLine size={15} aria-hidden />}
            onClick={drawing.active ? drawing.finish : drawing.begin}
          >
            Draw members
          </Button>
        ) : null}
        {canDraw ? <JigDialog first={jig} onOpen={setJig} /> : null}
        {canDraw ? <ImportDialog open={importing} onOpen={setImporting} /> : null}
        {hidden.size > 0 ? (
          <Button look="plain" icon={<Eye size={15} aria-hidden />} onClick={() => desk.hide([])}>
            Show all, {hidden.size} hidden
          </Button>
        ) : null}
        <span className="mx-1 h-5 border-seam border-l" aria-hidden />
        <ToolButton
          word="Key sizes in the 3D view"
          pressed={sizesShown}
          onClick={() => setSizesShown(!sizesShown)}
        >
          <MoveHorizontal size={17} aria-hidden />
        </ToolButton>
        <ToolButton word="Select in a box" pressed={boxing} onClick={() => setBoxing(!boxing)}>
          <BoxSelectIcon size={17} aria-hidden />
        </ToolButton>
        <ToolButton word="Measure" pressed={measuring.active} onClick={measuring.toggle}>
          <Ruler size={17} aria-hidden />
        </ToolButton>
        <CutAwayForm scene={() => scene.current} />
        <ToolButton word="Fit" onClick={() => scene.current?.look(view)}>
          <Maximize size={17} aria-hidden />
        </ToolButton>
        <ToolButton word="Marks" pressed={allMarks} onClick={() => setAllMarks(!allMarks)}>
          <TagIcon size={17} aria-hidden />
        </ToolButton>
      </div>
      {drawing.active ? <DrawBar drawing={drawing} /> : null}
      {measuring.active ? <MeasureBar measuring={measuring} /> : null}
      {old ? (
        <Notice tone="warning">
          The 3D view is outdated: a value cannot be computed. See the checks below.
        </Notice>
      ) : null}
      <div className="relative min-h-0 flex-1 overflow-hidden">
        <div
          ref={box}
          role="img"
          aria-label={`3D view of the job, ${counted(pieces.length, "piece")}, seen ${view}`}
          data-frames={frames}
          className="absolute inset-0"
          onPointerDown={(event) => {
            pressed.current = { x: event.clientX, y: event.clientY };
            if (canDraw && !drawing.active && !measuring.active && drag.press(spotOf(event)))
              event.currentTarget.setPointerCapture(event.pointerId);
          }}
          onPointerMove={(event) => {
            if (drag.drag(spotOf(event))) return;
            if (drawing.active || measuring.active) setHover(hovered(event));
          }}
          onPointerUp={() => drag.release()}
          onPointerCancel={() => drag.release()}
          onClick={pick}
        />
        {canDraw && hidden.size === 0 && ready ? <GuideLines lines={guides} project={project} /> : null}
        {drawing.active && ready ? (
          <DrawOverlay drawing={drawing} hover={hover} frames={frames} project={project} />
        ) : null}
        {canDraw && !drawing.active && !measuring.active && ready ? (
          <Grips grips={drag.grips} project={project} />
        ) : null}
        {measuring.active && ready ? (
          <MeasureOverlay measuring={measuring} hover={hover?.snap ?? null} project={project} />
        ) : null}
        {sizesShown && ready ? <SizeLines spans={spans} project={project} /> : null}
        <Marks scene={scene.current} frames={frames} tally={tally} selected={selected} all={allMarks} />
        {boxing ? <BoxSelect within={inBox} onDone={() => setBoxing(false)} /> : null}
        {fault ? <p className="p-5 text-ink-soft">{fault}</p> : null}
        {pieces.length === 0 && !fault && !drawing.active ? (
          canDraw && isEmpty ? (
            <Starts onJig={setJig} onDraw={drawing.begin} onImport={() => setImporting(true)} />
          ) : (
            <p className="pointer-events-none absolute inset-0 flex items-center justify-center p-8 text-center text-ink-soft">
              {canDraw
                ? "The assembly appears here. Start with Draw members, or with one of the Jigs."
                : "The model appears here. Nothing is drawn yet: start in Shape."}
            </p>
          )
        ) : null}
      </div>
    </>
  );
}
