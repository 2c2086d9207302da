"use client";
/** Chalk over the picture while members are drawn: the place that is caught, the line that would come about, its length. */
import { useMemo } from "react";
import type { Vec3 } from "@/core/geometry";
import { styleOf } from "@/core/lists";
import { formatLength } from "@/core/measure";
import { directionOf, ghostOf, type SnapPlace, whereIs } from "@/core/shape";
import { useDeskState } from "../../desk/desk-context";
import type { AlongWay, OnLine, Project, Spot } from "./pointer";
import type { Drawing } from "./use-drawing";

/** What the pointer means: a place to catch on, a place on a line, a length along a way, or any place. */
export type Hover = {
  readonly snap: SnapPlace | null;
  readonly onLine: OnLine | null;
  readonly along: AlongWay | null;
  readonly free: Vec3 | null;
};

export const NO_HOVER: Hover = { snap: null, onLine: null, along: null, free: null };

export function DrawOverlay({
  drawing,
  hover,
  frames,
  project,
}: {
  readonly drawing: Drawing;
  readonly hover: Hover | null;
  /** Another one with every view. */
  readonly frames: number;
  readonly project: Project;
}) {
  const { points } = drawing;
  // biome-ignore lint/correctness/useExhaustiveDependencies: places are seen elsewhere in another frame, and only then
  const ticks = useMemo(() => ticksAt(points.map(project)), [points, frames]);
  const sizes = useDeskState((state) => state.results.sizes);
  const info = useDeskState((state) => state.job.info.job);
  const start = drawing.from ? whereIs(sizes, drawing.from) : null;
  const from = start?.ok ? start.value : null;
  const plain = hover?.snap?.at ?? hover?.onLine?.at ?? hover?.free ?? null;
  const target = plain
    ? plain
    : from && hover?.along
      ? (([0, 1, 2] as const).map(
          (i) => (from[i] ?? 0) + directionOf(hover.along?.way ?? "right")[i] * (hover.along?.mm ?? 0),
        ) as unknown as typeof from)
      : null;
  const a = from ? project(from) : null;
  const b = target ? project(target) : null;
  const length =
    from && target ? Math.hypot(target[0] - from[0], target[1] - from[1], target[2] - from[2]) : 0;
  return (
    <svg aria-hidden className="pointer-events-none absolute inset-0 h-full w-full">
      <path d={ticks} className="stroke-chalk" strokeWidth={1.2} />
      {a ? <circle cx={a.x} cy={a.y} r={5} className="fill-none stroke-chalk" strokeWidth={2} /> : null}
      {from && target && drawing.how !== "rectangle" ? (
        <Ghost drawing={drawing} from={from} to={target} project={project} />
      ) : null}
      {a && b ? (
        <>
          <line
            x1={a.x}
            y1={a.y}
            x2={b.x}
            y2={b.y}
            className="stroke-chalk"
            strokeWidth={2}
            strokeDasharray="7 4"
          />
          <Words
            at={{ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 - 8 }}
            text={`${formatLength(length, styleOf(info), 0.1)} ${hover?.snap ? "" : (hover?.along?.way ?? "")}`.trim()}
          />
        </>
      ) : null}
      {b && (hover?.snap || hover?.onLine) ? (
        <>
          <Tick at={b} />
          <Words
            at={{ x: b.x + 10, y: b.y + 16 }}
            text={
              hover.snap?.words() ??
              `on ${hover.onLine?.line.words}, ${formatLength(hover.onLine?.mm ?? 0, styleOf(info), 0.1)} along`
            }
          />
        </>
      ) : null}
    </svg>
  );
}

/** The member that a click would draw, as its edges. */
function Ghost({
  drawing,
  from,
  to,
  project,
}: {
  readonly drawing: Drawing;
  readonly from: Vec3;
  readonly to: Vec3;
  readonly project: Project;
}) {
  const { seat, cardinal } = drawing;
  if (!seat.shape || seat.roll === null) return null;
  const edges = ghostOf(from, to, { shape: seat.shape, roll: seat.roll, cardinal });
  const path = edges
    .map(([p, q]) => {
      const [a, b] = [project(p), project(q)];
      return `M${a.x} ${a.y}L${b.x} ${b.y}`;
    })
    .join("");
  return <path d={path} className="fill-none stroke-chalk/60" strokeWidth={1} />;
}

/** Two short strokes of chalk across one another. */
const strokes = ({ x, y }: Spot, size: number) =>
  `M${x - size} ${y + size}L${x + size} ${y - size}M${x - size} ${y - size * 0.2}L${x + size} ${y + size * 0.2}`;

/** Pixels within which one of several ticks is enough, and beyond which no picture reaches. */
const TICK_APART = 6;
const FAR_OFF = 8_000;

/** Ticks where places are seen, one where many fall together. */
function ticksAt(spots: readonly Spot[]): string {
  const taken = new Map<string, Spot>();
  for (const spot of spots) {
    const [column, row] = [Math.round(spot.x / TICK_APART), Math.round(spot.y / TICK_APART)];
    if (spot.x > 0 && spot.y > 0 && spot.x < FAR_OFF && spot.y < FAR_OFF) taken.set(`${column} ${row}`, spot);
  }
  return [...taken.values()].map((spot) => strokes(spot, 3)).join("");
}

/** A tick where something is caught. */
export function Tick({ at }: { readonly at: Spot }) {
  return <path d={strokes(at, 7)} className="stroke-chalk" strokeWidth={2.5} />;
}

export function Words({ at, text }: { readonly at: Spot; readonly text: string }) {
  return (
    <text
      x={at.x}
      y={at.y}
      className="fill-chalk font-semibold font-table text-[13px]"
      stroke="var(--color-leaf)"
      strokeWidth={4}
      paintOrder="stroke"
    >
      {text}
    </text>
  );
}
