"use client";
/** Handles beside a selected piece of a view that is pulled apart: along each axis it is drawn farther off, or nearer. */
import { type KeyboardEvent, type PointerEvent as PointerOf, useState } from "react";
import { baseKeyOf, unitName, unitOf } from "@/core/apart";
import { axesOfView, type DrawnPage, type DrawnView, type ViewPlace } from "@/core/drawing";
import type { Vec2, Vec3 } from "@/core/geometry";
import type { ViewItem } from "@/core/job";
import { useDesk, useDeskState } from "../desk/desk-context";
import { nameOf } from "./item-words";

/** Pixels: of the handle, and how far it stands off the middle of the piece. */
const HANDLE = 5;
const OFF = 34;
/** An axis that is seen shorter than this cannot be drawn along. */
const LEAST_SEEN = 0.25;
const AXES = ["width", "depth", "height"] as const;

type Props = {
  readonly drawn: DrawnPage;
  readonly views: ReadonlyMap<string, DrawnView>;
  readonly zoom: number;
};

export function PullHandles({ drawn, views, zoom }: Props) {
  const selected = useDeskState((state) => state.selected);
  const shape = useDeskState((state) => state.results.shape);
  const apart = drawn.placed.flatMap(({ item }) => (item.kind === "view" && item.apart ? [item] : []));
  // The view that is selected, or the only one on the page: then a row of a list will do.
  const own = apart.filter(({ id }) => selected.has(id));
  const chosen = own.length > 0 ? own : apart;
  const [item] = chosen;
  if (!item || chosen.length > 1 || (item.of.kind !== "job" && item.of.kind !== "assembly")) return null;
  const [view, place] = [views.get(item.id), drawn.places.get(item.id)];
  const part = view?.parts.find(({ piece }) => selected.has(view.pieces[piece]?.record ?? ""));
  const piece = part && view?.pieces[part.piece];
  const axes = axesOfView(
    item,
    (id) => drawn.placed.find((one) => one.item.id === id)?.item,
    drawn.page.projection,
  );
  if (!view || !place || !part || !piece || !axes) return null;
  const base = baseKeyOf(shape, item.of.kind === "assembly" ? item.of.assembly : null) ?? "";
  const key = unitOf(piece.record, piece.way, base);
  const [x, y] = place.onPaper(part.at);
  const at: Vec2 = [place.at[0] + x, place.at[1] + y];
  return AXES.map((axis, k) => {
    const seen: Vec2 = [axes.right[k] ?? 0, 0 - (axes.up[k] ?? 0)];
    return Math.hypot(...seen) < LEAST_SEEN ? null : (
      <PullHandle
        key={axis}
        item={item}
        axis={axis}
        number={k}
        seen={seen}
        at={at}
        record={unitName(key).record}
        offset={view.offsets.get(key) ?? [0, 0, 0]}
        place={place}
        zoom={zoom}
      />
    );
  });
}

function PullHandle({
  item,
  axis,
  number,
  seen,
  at,
  record,
  offset,
  place,
  zoom,
}: {
  readonly item: ViewItem;
  readonly axis: string;
  readonly number: number;
  /** Where a millimetre along the axis lies on paper at full size. */
  readonly seen: Vec2;
  readonly at: Vec2;
  readonly record: string;
  readonly offset: Vec3;
  readonly place: ViewPlace;
  readonly zoom: number;
}) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  /** Where it was taken hold of, and how far it was drawn, in mm of the design. */
  const [pull, setPull] = useState<{ readonly from: Vec2; readonly by: number } | null>(null);
  const length = Math.hypot(...seen);
  const shown = pull ? pull.by * place.scale * (item.apart ?? 1) : 0;
  const end: Vec2 = [
    at[0] + (seen[0] / length) * (OFF / zoom + shown * length),
    at[1] + (seen[1] / length) * (OFF / zoom + shown * length),
  ];
  const put = (by: number) => {
    const next = offset.map((mm, k) => Math.round((k === number ? mm + by : mm) * 10) / 10);
    const [x = 0, y = 0, z = 0] = next;
    const others = item.apartBy.filter((one) => one.record !== record);
    desk.submit({
      kind: "setPageItems",
      items: [{ ...item, apartBy: [...others, { record, by: [x, y, z] }] }],
    });
  };
  const placeOf = (event: PointerOf<SVGCircleElement>): Vec2 => {
    const matrix = event.currentTarget.ownerSVGElement?.getScreenCTM()?.inverse();
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
    return [x, y];
  };
  const keys = (event: KeyboardEvent) => {
    const more = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key];
    if (more === undefined) return;
    // The arrow keys move the view elsewhere.
    event.preventDefault();
    event.stopPropagation();
    put(more * (event.shiftKey ? 100 : 10));
  };
  return (
    <g>
      <line
        x1={at[0]}
        y1={at[1]}
        x2={end[0]}
        y2={end[1]}
        stroke="var(--color-chalk)"
        strokeWidth={1.2 / zoom}
        pointerEvents="none"
      />
      <circle
        cx={end[0]}
        cy={end[1]}
        r={HANDLE / zoom}
        role="button"
        tabIndex={0}
        aria-label={`Draw ${nameOf(record, job)} along the ${axis}; arrow keys 10 mm, with Shift 100 mm`}
        fill="var(--color-leaf)"
        stroke="var(--color-chalk)"
        strokeWidth={2 / zoom}
        className="cursor-move outline-none focus-visible:fill-[var(--color-chalk)]"
        onKeyDown={keys}
        onPointerDown={(event) => {
          event.stopPropagation();
          event.currentTarget.setPointerCapture(event.pointerId);
          setPull({ from: placeOf(event), by: 0 });
        }}
        onPointerMove={(event) => {
          if (!pull) return;
          const [x, y] = placeOf(event);
          const along = ((x - pull.from[0]) * seen[0] + (y - pull.from[1]) * seen[1]) / length ** 2;
          setPull({ ...pull, by: along / place.scale / (item.apart || 1) });
        }}
        onPointerCancel={() => setPull(null)}
        onPointerUp={(event) => {
          event.stopPropagation();
          if (pull && Math.abs(pull.by) >= 0.05) put(pull.by);
          setPull(null);
        }}
      />
      {pull ? (
        <text
          x={end[0] + 8 / zoom}
          y={end[1] - 8 / zoom}
          fontSize={13 / zoom}
          fill="var(--color-chalk)"
          className="font-table"
          pointerEvents="none"
        >
          {axis} {Math.round((offset[number] ?? 0) + pull.by)}
        </text>
      ) : null}
    </g>
  );
}
