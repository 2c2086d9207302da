"use client";
/** The ends of the leaders of a selected balloon, to be slid over its piece or on to another, with the pointer or with keys. */
import { type KeyboardEvent, type PointerEvent as PointerOf, useState } from "react";
import { type DrawnPage, type DrawnView, pieceAt, spotOf } from "@/core/drawing";
import type { Vec2 } from "@/core/geometry";
import type { BalloonItem, Pointed } from "@/core/job";
import { useDesk, useDeskState } from "../desk/desk-context";
import { nameOf } from "./item-words";

/** Pixels. */
const HANDLE = 5;
/** mm. How near a line of a piece is still that piece. */
const PICK = 0.6;

type Props = {
  readonly drawn: DrawnPage;
  readonly views: ReadonlyMap<string, DrawnView>;
  readonly zoom: number;
};

export function TipHandles({ drawn, views, zoom }: Props) {
  const selected = useDeskState((state) => state.selected);
  const chosen = drawn.placed.filter(({ item }) => item.kind === "balloon" && selected.has(item.id));
  const [only] = chosen;
  if (!only || chosen.length > 1 || only.item.kind !== "balloon" || !only.tips) return null;
  const { item, at, tips } = only;
  const [view, place] = [views.get(item.view), drawn.places.get(item.view)];
  if (!view || !place) return null;
  /** What a leader would point at if it ended there, from the place of the view. */
  const pointedAt = (end: Vec2): Pointed | null => {
    // What is seen there goes before a line near by, which only the narrowest pieces need.
    const piece = pieceAt(view, place, end, 0) ?? pieceAt(view, place, end, PICK);
    if (!piece) return null;
    const one = { record: piece.record, way: piece.way || null };
    const spot = spotOf(one, end, view, place);
    return spot && { ...one, spot };
  };
  return tips.map((tip, i) =>
    tip ? (
      <TipHandle
        // biome-ignore lint/suspicious/noArrayIndexKey: leaders have no name but their place.
        key={`${item.id} ${i}`}
        item={item}
        leader={i}
        at={at}
        tip={tip}
        zoom={zoom}
        pointedAt={pointedAt}
      />
    ) : null,
  );
}

function TipHandle({
  item,
  leader,
  at,
  tip,
  zoom,
  pointedAt,
}: {
  readonly item: BalloonItem;
  readonly leader: number;
  readonly at: Vec2;
  readonly tip: Vec2;
  readonly zoom: number;
  readonly pointedAt: (end: Vec2) => Pointed | null;
}) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const tally = useDeskState((state) => state.results.tally);
  const [slid, slide] = useState<Vec2 | null>(null);
  const end = slid ?? tip;
  const touched = slid && pointedAt(slid);
  const wordsOf = (record: string) => {
    const mark = tally.rowOfPiece.get(record)?.mark;
    return mark ? `${mark} ${nameOf(record, job)}` : nameOf(record, job);
  };
  const put = (pointed: Pointed) =>
    desk.submit({
      kind: "setPageItems",
      items: [{ ...item, pieces: item.pieces.map((one, i) => (i === leader ? pointed : one)) }],
    });
  const placeOf = (event: PointerOf<SVGCircleElement>): Vec2 => {
    const matrix = event.currentTarget.ownerSVGElement?.getScreenCTM()?.inverse();
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
    return [x - at[0], y - at[1]];
  };
  const keys = (event: KeyboardEvent) => {
    const step = event.altKey ? 0.1 : 1;
    const way = (
      { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] } as const
    )[event.key];
    if (!way) return;
    // The arrow keys move the balloon elsewhere.
    event.preventDefault();
    event.stopPropagation();
    const pointed = pointedAt([tip[0] + way[0], tip[1] + way[1]]);
    if (pointed) put(pointed);
  };
  const record = item.pieces[leader]?.record ?? "";
  return (
    <g transform={`translate(${at[0]} ${at[1]})`}>
      {slid ? (
        <line
          x1={tip[0]}
          y1={tip[1]}
          x2={slid[0]}
          y2={slid[1]}
          stroke="var(--color-chalk)"
          strokeWidth={1.2 / zoom}
          strokeDasharray={`${4 / zoom} ${3 / zoom}`}
        />
      ) : null}
      <circle
        cx={end[0]}
        cy={end[1]}
        r={HANDLE / zoom}
        role="button"
        tabIndex={0}
        aria-label={`End of leader ${leader + 1} on ${wordsOf(record)}: slide it over the piece, or on to another`}
        fill="var(--color-leaf)"
        stroke={slid && !touched ? "var(--color-oxide)" : "var(--color-chalk)"}
        strokeWidth={2 / zoom}
        className="cursor-move outline-none focus-visible:fill-[var(--color-chalk)]"
        onKeyDown={keys}
        onPointerDown={(event) => {
          event.stopPropagation();
          event.currentTarget.setPointerCapture(event.pointerId);
          slide(tip);
        }}
        onPointerMove={(event) => {
          if (slid) slide(placeOf(event));
        }}
        onPointerCancel={() => slide(null)}
        onPointerUp={(event) => {
          event.stopPropagation();
          if (touched) put(touched);
          slide(null);
        }}
      />
      {slid ? (
        <text
          x={slid[0] + 8 / zoom}
          y={slid[1] - 8 / zoom}
          fontSize={13 / zoom}
          fill={touched ? "var(--color-chalk)" : "var(--color-oxide)"}
          className="font-table"
          pointerEvents="none"
        >
          {touched ? wordsOf(touched.record) : "no piece here"}
        </text>
      ) : null}
    </g>
  );
}
