/** Points that are meant to be one, found together. */
import { at } from "../kernel";
import { distance, type Vec3 } from "./vector";

export type Welded = {
  readonly points: readonly Vec3[];
  /** Which of them each is. */
  readonly indices: Int32Array;
};

/** Points no farther apart than `tolerance` as one: that which came first. `pointAt` gives the points from 0 to `count`. */
export function welded(count: number, pointAt: (i: number) => Vec3, tolerance: number): Welded {
  const points: Vec3[] = [];
  const cells = new Map<string, number[]>();
  const indices = new Int32Array(count);
  const cell = 10 * tolerance;
  const cellOf = (value: number) => Math.floor(value / cell + ASIDE);
  const isNearBorder = (value: number) => cellOf(value - tolerance) !== cellOf(value + tolerance);
  const around = (point: Vec3): readonly string[] => {
    const [xs, ys, zs] = point.map((value) => [
      ...new Set([cellOf(value - tolerance), cellOf(value + tolerance)]),
    ]);
    return (xs ?? []).flatMap((x) => (ys ?? []).flatMap((y) => (zs ?? []).map((z) => keyOf(x, y, z))));
  };
  for (let i = 0; i < count; i++) {
    const point = pointAt(i);
    const [x, y, z] = point;
    let known = -1;
    const lookIn = (list: readonly number[] | undefined) => {
      for (const other of list ?? [])
        if (known < 0 && distance(at(points, other), point) <= tolerance) known = other;
    };
    const own = keyOf(cellOf(x), cellOf(y), cellOf(z));
    const list = cells.get(own);
    lookIn(list);
    // What lies near the border of a cell is looked for on both sides of it.
    if (known < 0 && (isNearBorder(x) || isNearBorder(y) || isNearBorder(z)))
      for (const key of around(point)) lookIn(cells.get(key));
    if (known < 0) {
      known = points.push(point) - 1;
      if (list) list.push(known);
      else cells.set(own, [known]);
    }
    indices[i] = known;
  }
  return { points, indices };
}

/** Of a cell: most places are round numbers, which lie on no border then. */
const ASIDE = 0.37;

const keyOf = (x: number, y: number, z: number): string => `${x},${y},${z}`;
