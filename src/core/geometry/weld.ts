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
  for (let i = 0; i < count; i++) {
    const point = pointAt(i);
    // What lies near the border of a cell is looked for on both sides of it.
    const near = point.map((value) => [
      ...new Set([Math.floor((value - tolerance) / cell), Math.floor((value + tolerance) / cell)]),
    ]);
    let known = -1;
    for (const x of near[0] ?? [])
      for (const y of near[1] ?? [])
        for (const z of near[2] ?? [])
          for (const other of cells.get(`${x},${y},${z}`) ?? [])
            if (known < 0 && distance(at(points, other), point) <= tolerance) known = other;
    if (known < 0) {
      known = points.push(point) - 1;
      const key = point.map((value) => Math.floor(value / cell)).join(",");
      const list = cells.get(key);
      if (list) list.push(known);
      else cells.set(key, [known]);
    }
    indices[i] = known;
  }
  return { points, indices };
}
