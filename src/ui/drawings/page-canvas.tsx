"use client";
/** The page itself: items are selected, moved with the pointer or with keys, and catch on one another; pieces of views can be picked. */
import { type KeyboardEvent, type PointerEvent as PointerOf, useMemo, useRef, useState } from "react";
import {
  type CatchGround,
  type CatchLine,
  type CaughtFeature,
  catchBoxes,
  catchFeature,
  caught,
  type DrawnPage,
  movedBox,
  movedItem,
  type PlacedItem,
  pieceAt,
} from "@/core/drawing";
import type { Vec2 } from "@/core/geometry";
import { movesWith, type PageItem, type Pointed, type SizeMeasure, withThoseOnThem } from "@/core/job";
import { DrawnItems } from "../common/display-list";
import { useDesk, useDeskState } from "../desk/desk-context";
import { CatchMark, Highlights, ItemOnPage, SelectedRows } from "./canvas-parts";
import { useDrawings } from "./drawings-ground";
import { itemWords } from "./item-words";
import { PullHandles } from "./pull-handles";
import { TipHandles } from "./tip-handles";

/** mm. How near something catches; how near a line is picked. */
const CATCH = 1.6;
const PICK = 1.4;
/** Pixels. How near a place is taken hold of. */
const REACH = 9;
/** Pixels that the pointer moves before it drags. */
const DRAGS_FROM = 4;

type Drag = { readonly ids: readonly string[]; readonly by: Vec2; readonly lines: readonly CatchLine[] };
type Press = { readonly id: string; readonly x: number; readonly y: number; readonly add: boolean };

export type CanvasProps = {
  readonly drawn: DrawnPage;
  /** Pixels for a millimetre. */
  readonly zoom: number;
  /** Takes the piece that is clicked in a view, and where, instead of selecting it; null: pieces are selected. */
  readonly onPiece: ((view: string, piece: Pointed, at: Vec2) => void) | null;
  /** What a size is picked from; null: none is. */
  readonly catching: Catching | null;
};

export type Catching = {
  /** What may be taken hold of; "place": any named place. */
  readonly measure: SizeMeasure | "place";
  readonly grounds: ReadonlyMap<string, CatchGround>;
  readonly from: { readonly view: string; readonly caught: CaughtFeature } | null;
  readonly onFeature: (view: string, caught: CaughtFeature) => void;
};

export function PageCanvas({ drawn, zoom, onPiece, catching }: CanvasProps) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const tally = useDeskState((state) => state.results.tally);
  const selected = useDeskState((state) => state.selected);
  const { shown } = useDrawings();
  const svg = useRef<SVGSVGElement>(null);
  const press = useRef<Press | null>(null);
  const [drag, setDrag] = useState<Drag | null>(null);
  const { size, placed, frame, places } = drawn;
  const byId = useMemo(() => new Map(placed.map((one) => [one.item.id as string, one])), [placed]);

  const select = (item: PageItem, add: boolean, more: readonly string[] = []) => {
    const own = [item.id as string, ...recordsOf(item, tally), ...more];
    desk.select(add ? [...selected, ...own] : own);
  };
  const onPage = (event: { readonly clientX: number; readonly clientY: number }): Vec2 => {
    const box = svg.current?.getBoundingClientRect();
    return box ? [(event.clientX - box.left) / zoom, (event.clientY - box.top) / zoom] : [0, 0];
  };

  const [near, setNear] = useState<{ readonly view: string; readonly caught: CaughtFeature } | null>(null);
  /** What a size would take hold of there; of several views that lie over one another the last one drawn. */
  const featureAt = (event: PointerOf) => {
    if (!catching) return null;
    const [x, y] = onPage(event);
    for (const [view, ground] of [...catching.grounds].reverse()) {
      const { at } = ground.place;
      const caught = catchFeature(
        catching.measure === "place" ? "along" : catching.measure,
        [x - at[0], y - at[1]],
        REACH / zoom,
        ground,
      );
      if (caught) return { view, caught };
    }
    return null;
  };

  const move = (event: PointerOf) => {
    if (catching) setNear(featureAt(event));
    const start = press.current;
    if (!start || catching) return;
    const pixels = [event.clientX - start.x, event.clientY - start.y] as const;
    if (!drag && Math.hypot(...pixels) < DRAGS_FROM) return;
    const ids = selected.has(start.id) ? [...selected].filter((id) => byId.has(id)) : [start.id];
    const one = byId.get(start.id);
    if (!one || onPiece) return;
    const by: Vec2 = [pixels[0] / zoom, pixels[1] / zoom];
    const free = event.altKey || one.item.kind === "balloon" || one.item.kind === "callout";
    const moving = new Set(withThoseOnThem(job, ids, movesWith).map(({ id }) => id as string));
    const stop = free
      ? { by, lines: [] }
      : caught(movedBox(one.box, one.at), by, catchBoxes(drawn, moving), CATCH);
    setDrag({ ids, ...stop, by: freeWay(one.item, stop.by) });
  };

  const release = (event: PointerOf) => {
    const start = press.current;
    press.current = null;
    if (!start) return;
    if (drag) {
      shift(drag.ids, drag.by);
      setDrag(null);
      return;
    }
    const one = byId.get(start.id);
    if (!one || catching) return;
    const row = rowIn(one, onPage(event));
    if (row && !onPiece) return select(one.item, start.add, row.records);
    const picked = one.item.kind === "view" ? pieceIn(one, onPage(event)) : null;
    if (onPiece) {
      if (picked && one.item.kind === "view") onPiece(one.item.id, picked.piece, picked.at);
      return;
    }
    select(one.item, start.add, picked ? [picked.piece.record] : []);
  };

  const rowIn = ({ at, rows = [] }: PlacedItem, [x, y]: Vec2) =>
    rows.find(({ box }) => {
      const [right, down] = [x - at[0], y - at[1]];
      return right >= box.x0 && right <= box.x1 && down >= box.y0 && down <= box.y1;
    });

  const pieceIn = (one: PlacedItem, [x, y]: Vec2): { readonly piece: Pointed; readonly at: Vec2 } | null => {
    const [view, place] = [shown.views.get(one.item.id), places.get(one.item.id)];
    if (!view || !place) return null;
    const at: Vec2 = [x - place.at[0], y - place.at[1]];
    const piece = pieceAt(view, place, at, PICK);
    return piece ? { piece: { record: piece.record, way: piece.way || null, spot: null }, at } : null;
  };

  /** Moves items; what goes along with another that is moved as well is not moved twice. */
  const shift = (ids: readonly string[], by: Vec2) => {
    const along = new Set(
      ids.flatMap((id) =>
        withThoseOnThem(job, [id], movesWith).flatMap((item) => (item.id === id ? [] : [item.id as string])),
      ),
    );
    const items = ids.flatMap((id) => {
      const one = byId.get(id);
      return one && !along.has(id) ? [movedItem(one, by)] : [];
    });
    if (items.length > 0) desk.submit({ kind: "setPageItems", items });
  };

  const keys = (event: KeyboardEvent) => {
    const ids = [...selected].filter((id) => byId.has(id));
    const step = event.altKey ? 0.1 : event.shiftKey ? 10 : 1;
    const ways: Readonly<Record<string, Vec2>> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, -step],
      ArrowDown: [0, step],
    };
    const way = ways[event.key];
    if (way && ids.length > 0) {
      event.preventDefault();
      shift(ids, way);
    } else if (event.key === "Delete" && ids.length > 0) {
      if (desk.submit({ kind: "removePageItems", ids }) === null) desk.select([]);
    } else if (event.key === "Escape") desk.select([]);
  };

  const moving = useMemo(
    () => new Set(drag ? withThoseOnThem(job, drag.ids, movesWith).map(({ id }) => id as string) : []),
    [drag, job],
  );
  return (
    <svg
      ref={svg}
      width={size.width * zoom}
      height={size.height * zoom}
      viewBox={`0 0 ${size.width} ${size.height}`}
      role="group"
      aria-label={`Page ${drawn.page.heading}`}
      className={`block shrink-0 select-none bg-leaf shadow ${onPiece || catching ? "cursor-crosshair" : ""}`}
      onPointerMove={move}
      onPointerUp={release}
      onPointerCancel={() => {
        press.current = null;
        setDrag(null);
      }}
      onPointerDown={(event) => {
        if (catching) {
          const found = featureAt(event);
          if (found) catching.onFeature(found.view, found.caught);
          // On an item, that item has taken it.
        } else if (!press.current && !event.shiftKey && !onPiece) desk.select([]);
      }}
      onKeyDown={keys}
    >
      <DrawnItems items={frame} />
      {placed.map((one) => (
        <ItemOnPage
          key={one.item.id}
          placed={one}
          label={itemWords(one.item, job, tally)}
          by={moving.has(one.item.id) && drag ? drag.by : NOWHERE}
          selected={selected.has(one.item.id)}
          onPress={(event) => {
            press.current = { id: one.item.id, x: event.clientX, y: event.clientY, add: event.shiftKey };
            svg.current?.setPointerCapture(event.pointerId);
          }}
          onFocus={() => {
            if (press.current === null && !selected.has(one.item.id)) select(one.item, false);
          }}
        >
          {one.rows ? <SelectedRows rows={one.rows} selected={selected} /> : null}
          {one.item.kind === "view" ? (
            <Highlights
              view={shown.views.get(one.item.id)}
              place={places.get(one.item.id)}
              selected={selected}
            />
          ) : null}
        </ItemOnPage>
      ))}
      {onPiece || catching || drag ? null : <TipHandles drawn={drawn} views={shown.views} zoom={zoom} />}
      {onPiece || catching || drag ? null : <PullHandles drawn={drawn} views={shown.views} zoom={zoom} />}
      {catching
        ? [catching.from, near].map((one, i) => {
            const at = one && places.get(one.view)?.at;
            return one && at ? (
              <CatchMark
                key={i === 0 ? "from" : "near"}
                at={[at[0] + one.caught.at[0], at[1] + one.caught.at[1]]}
                word={i === 0 ? "" : one.caught.feature.place}
                zoom={zoom}
              />
            ) : null;
          })
        : null}
      {drag?.lines.map(({ axis, at }) => (
        <line
          key={axis}
          {...(axis === "x"
            ? { x1: at, x2: at, y1: 0, y2: size.height }
            : { y1: at, y2: at, x1: 0, x2: size.width })}
          stroke="var(--color-chalk)"
          strokeWidth={0.8 / zoom}
          strokeDasharray={`${4 / zoom} ${3 / zoom}`}
        />
      ))}
    </svg>
  );
}

const NOWHERE: Vec2 = [0, 0];

/** What follows a view moves only away from it. */
function freeWay(item: PageItem, [x, y]: Vec2): Vec2 {
  if (item.kind !== "view" || item.from.kind !== "follower") return [x, y];
  return item.from.side === "left" || item.from.side === "right" ? [x, 0] : [0, y];
}

/** The pieces that an item stands for: of a balloon, all of its row. */
function recordsOf(
  item: PageItem,
  tally: {
    readonly rowOfPiece: ReadonlyMap<string, { readonly pieces: readonly { readonly id: string }[] }>;
  },
): readonly string[] {
  if (item.kind === "balloon")
    return item.pieces.flatMap(
      ({ record }) => tally.rowOfPiece.get(record)?.pieces.map(({ id }) => id) ?? [],
    );
  return item.kind === "callout" ? [item.piece.record] : [];
}
