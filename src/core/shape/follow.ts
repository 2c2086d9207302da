/** Panels that follow others: a first guess of which two, and letting one go where it stands. */
import { cross, dot, subtract } from "../geometry";
import { type Between, type Panel, textOf } from "../job";
import { type LengthUnit, MM_PER_UNIT, roundTo } from "../measure";
import type { PanelSolid } from "./panel";
import type { Shape } from "./shape";

const PARALLEL = 1e-6;

/** Two parallel panels with room between them that this one could stand between; null where there are none. */
export function facingPair(
  shape: Shape,
  panel: Panel,
): { readonly first: PanelSolid; readonly second: PanelSolid } | null {
  const others = shape.panels.filter(
    (other) => other.panel.id !== panel.id && other.panel.assembly === panel.assembly && !other.panel.between,
  );
  for (const first of others) {
    const second = others.find((other) => {
      if (other === first || Math.hypot(...cross(first.frame.z, other.frame.z)) > PARALLEL) return false;
      const apart = Math.abs(dot(subtract(other.frame.origin, first.frame.origin), first.frame.z));
      return apart > (first.thickness ?? 0) + (other.thickness ?? 0);
    });
    if (second) return { first, second };
  }
  return null;
}

/** Between two panels, from end to end of them, at a distance from the first's left or front end. */
export function between(first: PanelSolid, second: PanelSolid, distance: string): Between {
  return {
    first: first.panel.id,
    second: second.panel.id,
    reachFirst: "0",
    reachSecond: "0",
    runs: "width",
    distance,
    insetStart: "0",
    insetEnd: "0",
  };
}

type Seat = Pick<Panel, "between" | "tilt" | "origin" | "lengthAxis" | "faceAxis" | "length" | "width">;

/** What a panel is set to, to stay where it stands now without following any more: plain numbers. */
export function letGo({ frame, length, width }: PanelSolid, unit: LengthUnit): Seat {
  const mm = (value: number) => textOf(roundTo(value / MM_PER_UNIT[unit], 6));
  const plain = (value: number) => textOf(roundTo(value, 9));
  const { origin, x, z } = frame;
  return {
    between: null,
    tilt: null,
    origin: [mm(origin[0]), mm(origin[1]), mm(origin[2])],
    lengthAxis: [plain(x[0]), plain(x[1]), plain(x[2])],
    faceAxis: [plain(z[0]), plain(z[1]), plain(z[2])],
    length: mm(length),
    width: mm(width),
  };
}
