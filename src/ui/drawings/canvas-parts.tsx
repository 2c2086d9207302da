"use client";
/** What the page on the desk is made of: an item with its frame, lines of selected pieces, places that are taken hold of. */
import {
  memo,
  type PointerEvent as PointerOf,
  type ReactNode,
  useEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import { type DrawnView, itemFaultWords, type PlacedItem, type ViewPlace } from "@/core/drawing";
import type { Vec2 } from "@/core/geometry";
import { DrawnItems } from "../common/display-list";

/** A place that is taken hold of, with its name. */
export function CatchMark({
  at: [x, y],
  word,
  zoom,
}: {
  readonly at: Vec2;
  readonly word: string;
  readonly zoom: number;
}) {
  const half = 4 / zoom;
  return (
    <g pointerEvents="none">
      <rect
        x={x - half}
        y={y - half}
        width={2 * half}
        height={2 * half}
        fill="none"
        stroke="var(--color-chalk)"
        strokeWidth={1.6 / zoom}
      />
      <text
        x={x + 7 / zoom}
        y={y - 6 / zoom}
        fontSize={12 / zoom}
        fill="var(--color-chalk)"
        className="font-table"
      >
        {word}
      </text>
    </g>
  );
}

type ItemProps = {
  readonly placed: PlacedItem;
  readonly label: string;
  readonly by: Vec2;
  readonly selected: boolean;
  readonly onPress: (event: PointerOf) => void;
  readonly onFocus: () => void;
  readonly children: ReactNode;
};

export function ItemOnPage({ placed, label, by, selected, onPress, onFocus, children }: ItemProps) {
  const { at, box, items, item, fault, grip } = placed;
  const pad = item.kind === "rule" ? 1.5 : 0;
  const room = {
    x: box.x0 - pad,
    y: box.y0 - pad,
    width: box.x1 - box.x0 + 2 * pad,
    height: box.y1 - box.y0 + 2 * pad,
  };
  const lines = selected ? "var(--color-brass)" : fault ? "var(--color-oxide)" : "none";
  return (
    <g
      transform={`translate(${at[0] + by[0]} ${at[1] + by[1]})`}
      role="button"
      tabIndex={0}
      aria-label={fault ? `${label}: ${itemFaultWords(fault)}` : label}
      aria-pressed={selected}
      data-item={item.kind}
      className="outline-none"
      onPointerDown={onPress}
      onFocus={onFocus}
    >
      <rect {...room} fill="transparent" stroke="none" pointerEvents={grip ? "none" : undefined} />
      {grip ? <Grip ends={grip} /> : null}
      <g pointerEvents={item.kind === "balloon" ? "all" : "none"}>
        <DrawnItems items={items} />
      </g>
      {children}
      {lines === "none" ? null : (
        <rect
          {...room}
          fill="none"
          stroke={lines}
          pointerEvents="none"
          strokeWidth={selected ? 0.5 : 0.3}
          strokeDasharray="2 1"
        />
      )}
    </g>
  );
}

/** mm. As wide as a row of dimension lines, so that the text over one is on it. */
const GRIP = 6;

function Grip({ ends: [[x1, y1], [x2, y2]] }: { readonly ends: readonly [Vec2, Vec2] }) {
  return (
    <line
      {...{ x1, y1, x2, y2 }}
      stroke="transparent"
      strokeWidth={GRIP}
      pointerEvents="stroke"
      className="cursor-move"
    />
  );
}

/** Lines of selected pieces of a view, in brass over its own. */
export const Highlights = memo(function Highlights({
  view,
  place,
  selected,
}: {
  readonly view: DrawnView | undefined;
  readonly place: ViewPlace | undefined;
  readonly selected: ReadonlySet<string>;
}) {
  const data = useMemo(() => {
    if (!view || !place || selected.size === 0) return "";
    const chosen = new Set(
      view.pieces.flatMap(({ record, way }, i) =>
        selected.has(record) || way.split("/").some((step) => selected.has(step.split(":")[0] ?? ""))
          ? [i]
          : [],
      ),
    );
    if (chosen.size === 0) return "";
    return view.lines
      .filter(({ owners }) => owners.some((owner) => chosen.has(owner)))
      .map(({ from, to }) => {
        const [a, b] = [place.onPaper([from[0], -from[1]]), place.onPaper([to[0], -to[1]])];
        return `M${a[0].toFixed(2)} ${a[1].toFixed(2)}L${b[0].toFixed(2)} ${b[1].toFixed(2)}`;
      })
      .join("");
  }, [view, place, selected]);
  return data === "" ? null : (
    <path
      d={data}
      fill="none"
      stroke="var(--color-brass)"
      strokeWidth={0.9}
      strokeLinecap="round"
      pointerEvents="none"
    />
  );
});

/** Rows of a list with a selected piece, in brass. */
export const SelectedRows = memo(function SelectedRows({
  rows,
  selected,
}: {
  readonly rows: NonNullable<PlacedItem["rows"]>;
  readonly selected: ReadonlySet<string>;
}) {
  if (selected.size === 0) return null;
  return rows
    .filter(({ records }) => records.some((record) => selected.has(record)))
    .map(({ box: { x0, y0, x1, y1 } }) => (
      <rect
        key={`${x0} ${y0}`}
        data-selected-row
        x={x0}
        y={y0}
        width={x1 - x0}
        height={y1 - y0}
        fill="var(--color-brass)"
        opacity={0.25}
        pointerEvents="none"
      />
    ));
});

/** The zoom at which a page fits into its room, and how large the room is. */
export function useFittingZoom(size: { readonly width: number; readonly height: number }) {
  const room = useRef<HTMLElement>(null);
  const [fit, setFit] = useState(2);
  useEffect(() => {
    const box = room.current;
    if (!box) return;
    const measure = () => {
      const { clientWidth, clientHeight } = box;
      setFit(Math.max(0.2, Math.min((clientWidth - 40) / size.width, (clientHeight - 40) / size.height)));
    };
    measure();
    const watcher = new ResizeObserver(measure);
    watcher.observe(box);
    return () => watcher.disconnect();
  }, [size.width, size.height]);
  return { room, fit };
}
