"use client";
/** A box drawn over the picture with the pointer: what lies wholly in it is selected, with Shift or Control as well as what was. */
import { type PointerEvent as PointerOf, useState } from "react";
import { boxOfPoints, type PlaneBox } from "@/core/geometry";
import { useDesk } from "../desk/desk-context";
import { isMore } from "../desk/picking";
import type { Spot } from "./draw/pointer";

const boxOf = (a: Spot, b: Spot): PlaneBox =>
  boxOfPoints([
    [a.x, a.y],
    [b.x, b.y],
  ]);

export function BoxSelect({
  within,
  onDone,
}: {
  /** The ids of what lies wholly in a box, in pixels of the picture. */
  readonly within: (box: PlaneBox) => readonly string[];
  readonly onDone: () => void;
}) {
  const desk = useDesk();
  const [from, setFrom] = useState<Spot | null>(null);
  const [to, setTo] = useState<Spot | null>(null);
  const spot = (event: PointerOf<HTMLElement>): Spot => {
    const { left, top } = event.currentTarget.getBoundingClientRect();
    return { x: event.clientX - left, y: event.clientY - top };
  };
  const end = (event: PointerOf<HTMLElement>) => {
    if (from) {
      const found = within(boxOf(from, spot(event)));
      const { selected } = desk.store.getState();
      desk.select(isMore(event) ? new Set([...selected, ...found]) : found);
    }
    onDone();
  };
  const box = from && to ? boxOf(from, to) : null;
  return (
    <div
      className="absolute inset-0 cursor-crosshair"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        setFrom(spot(event));
      }}
      onPointerMove={(event) => (from ? setTo(spot(event)) : undefined)}
      onPointerUp={end}
      onPointerCancel={onDone}
    >
      {box ? (
        <svg aria-hidden className="pointer-events-none absolute inset-0 h-full w-full">
          <rect
            x={box.x0}
            y={box.y0}
            width={box.x1 - box.x0}
            height={box.y1 - box.y0}
            className="fill-brass/15 stroke-brass"
            strokeDasharray="5 3"
          />
        </svg>
      ) : (
        <p className="pointer-events-none absolute inset-x-0 top-2 text-center text-[13px] text-ink-soft">
          Draw a box round what is to be selected. Escape ends it.
        </p>
      )}
    </div>
  );
}
