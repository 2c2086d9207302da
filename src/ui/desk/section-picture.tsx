"use client";
/** A small true picture of a section as it is seen from the start of its line, with the points that may lie on the line to be clicked. */
import { RotateCcw, RotateCw } from "lucide-react";
import { sectionSeat } from "@/core/shape";
import type { SectionShape } from "@/core/stockroom";
import { CARDINALS } from "./cardinals";

const SIZE = 108;
const MARGIN = 16;

type Props = {
  readonly shape: SectionShape;
  /** Degrees. */
  readonly roll: number;
  readonly cardinal: number;
  /** Plumb lines have no up across them. */
  readonly isPlumb?: boolean;
  readonly onRoll: (degrees: number) => void;
  readonly onCardinal: (cardinal: number) => void;
};

export function SectionPicture({ shape, roll, cardinal, isPlumb = false, onRoll, onCardinal }: Props) {
  const { outlines, points, names } = sectionSeat(shape, roll, cardinal);
  const all = outlines.flat();
  const [xs, ys] = [all.map(([x]) => x), all.map(([, y]) => y)];
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const scale = (SIZE - 2 * MARGIN) / Math.max(x1 - x0, y1 - y0, 1);
  const place = ([x, y]: readonly [number, number]) => ({
    x: SIZE / 2 + (x - (x0 + x1) / 2) * scale,
    y: SIZE / 2 - (y - (y0 + y1) / 2) * scale,
  });
  const path = outlines
    .map((outline) =>
      outline
        .map((point, i) => {
          const { x, y } = place(point);
          return `${i === 0 ? "M" : "L"}${x.toFixed(1)} ${y.toFixed(1)}`;
        })
        .join(""),
    )
    .map((one) => `${one}Z`)
    .join("");
  const isTopLeftTaken = names.some(({ at }) => place(at).x < SIZE / 2 && place(at).y < SIZE / 3);
  const turned = (by: number) => (((roll + by) % 360) + 360) % 360;
  return (
    <fieldset className="flex shrink-0 items-center gap-1" aria-label="Section on its line">
      <div className="relative bg-leaf" style={{ width: SIZE, height: SIZE }}>
        <svg width={SIZE} height={SIZE} aria-hidden className="absolute inset-0 border border-seam">
          <path d={path} fillRule="evenodd" className="fill-brass-pale stroke-ink" strokeWidth={1} />
          {names.map(({ words, at }) => {
            const { x, y } = place(at);
            const left = x < SIZE / 2;
            return (
              <text
                key={`${words} ${x} ${y}`}
                x={Math.min(SIZE - 24, Math.max(2, left ? x + 5 : x - 22))}
                y={Math.min(SIZE - 3, Math.max(9, y < SIZE / 2 ? y - 4 : y + 10))}
                className="fill-ink-soft text-[9px]"
              >
                {words}
              </text>
            );
          })}
          <text
            x={isTopLeftTaken ? SIZE - 3 : 3}
            y={9}
            textAnchor={isTopLeftTaken ? "end" : "start"}
            className="fill-ink-soft text-[9px]"
          >
            {isPlumb ? "back ↑" : "up ↑"}
          </text>
        </svg>
        {points.map(({ cardinal: one, at }) => {
          const { x, y } = place(at);
          const words = CARDINALS.find(({ value }) => value === String(one))?.label ?? "";
          // Of a symmetrical section the centroid is the middle.
          if (one === 5 && cardinal !== 5 && Math.hypot(...minus(at, centroid(points))) * scale < 3)
            return null;
          return (
            <button
              key={one}
              type="button"
              aria-label={`Line passes through ${words}`}
              aria-pressed={one === cardinal}
              // The points of a flat section stand close: "Line passes through" beside the picture sets the same.
              data-chosen-beside
              title={words}
              onClick={() => onCardinal(one)}
              className="absolute flex h-4 w-4 items-center justify-center"
              style={{ left: x - 8, top: y - 8 }}
            >
              <span
                className={`rounded-full border ${one === cardinal ? "h-2.5 w-2.5 border-chalk bg-chalk" : "h-1.5 w-1.5 border-ink-soft bg-leaf hover:bg-chalk"}`}
              />
            </button>
          );
        })}
      </div>
      <div className="flex flex-col gap-1">
        <button
          type="button"
          aria-label="A quarter turn to the left"
          onClick={() => onRoll(turned(-90))}
          className={TURN}
        >
          <RotateCcw size={15} aria-hidden />
        </button>
        <button
          type="button"
          aria-label="A quarter turn to the right"
          onClick={() => onRoll(turned(90))}
          className={TURN}
        >
          <RotateCw size={15} aria-hidden />
        </button>
      </div>
    </fieldset>
  );
}

const TURN = "flex h-7 w-7 items-center justify-center rounded-sm text-enamel hover:bg-leaf";

type Points = ReturnType<typeof sectionSeat>["points"];
const centroid = (points: Points) => points.find(({ cardinal }) => cardinal === 10)?.at ?? ([0, 0] as const);
const minus = (a: readonly [number, number], b: readonly [number, number]) => [a[0] - b[0], a[1] - b[1]];
