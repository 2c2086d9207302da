/** What a plane square to a direction cuts out of a body: loops, each with the surfaces that it runs over one after the other. */
import { add, dot, scale, subtract, type Vec2, type Vec3 } from "../geometry";
import { at } from "../kernel";
import type { Body } from "./body";

export type SliceLoop = {
  readonly points: readonly Vec2[];
  /** Runs of segments on one surface, in the order of the points; the first starts where it changes, if it does anywhere. */
  readonly runs: readonly { readonly surface: number; readonly from: Vec2; readonly to: Vec2 }[];
  /** Above zero for outer loops, with what is inside of holes taken off by their own. */
  readonly area: number;
};

/** Axes of a slice: x, y and `along`, right-handed, from an origin. */
export type SliceAxes = { readonly origin: Vec3; readonly x: Vec3; readonly y: Vec3; readonly along: Vec3 };

/** The loops at a height; null: the body is open there, or the plane runs through a corner of it. */
export function sliceOf(body: Body, axes: SliceAxes, height: number): readonly SliceLoop[] | null {
  const { points, triangles } = body;
  const heights = points.map((point) => dot(subtract(point, axes.origin), axes.along) - height);
  type Part = { readonly from: string; readonly to: string; readonly at: Vec2; readonly surface: number };
  const parts = new Map<string, Part>();
  const crossing = (a: number, b: number): { readonly key: string; readonly at: Vec2 } => {
    const [low, high] = a < b ? [a, b] : [b, a];
    const [h0, h1] = [at(heights, low), at(heights, high)];
    const share = h0 / (h0 - h1);
    const place = add(at(points, low), scale(subtract(at(points, high), at(points, low)), share));
    const from = subtract(place, axes.origin);
    return { key: `${low},${high}`, at: [dot(from, axes.x), dot(from, axes.y)] };
  };
  for (const { corners, surface } of triangles) {
    const above = corners.map((corner) => at(heights, corner) > 0);
    if (above[0] === above[1] && above[1] === above[2]) continue;
    // Runs from where the triangle goes down to where it comes up: what is solid lies to the left, seen from above.
    let [from, to] = [null, null] as [ReturnType<typeof crossing> | null, ReturnType<typeof crossing> | null];
    for (let k = 0; k < 3; k++) {
      const [a, b] = [at(corners, k), at(corners, (k + 1) % 3)];
      if (at(above, k) === at(above, (k + 1) % 3)) continue;
      if (at(above, k)) from = crossing(a, b);
      else to = crossing(a, b);
    }
    if (!from || !to) return null;
    if (parts.has(from.key)) return null;
    parts.set(from.key, { from: from.key, to: to.key, at: from.at, surface });
  }
  const loops: SliceLoop[] = [];
  while (parts.size > 0) {
    const [first] = parts.values();
    if (!first) break;
    const run: Part[] = [];
    for (let part: Part | undefined = first; part; part = parts.get(part.to)) {
      run.push(part);
      parts.delete(part.from);
      if (part.to === first.from) break;
    }
    if (run.at(-1)?.to !== first.from) return null;
    loops.push(loopOf(run.map(({ at: place, surface }) => ({ place, surface }))));
  }
  return loops;
}

function loopOf(parts: readonly { readonly place: Vec2; readonly surface: number }[]): SliceLoop {
  const points = parts.map(({ place }) => place);
  const area = points.reduce((sum, a, i) => {
    const b = at(points, (i + 1) % points.length);
    return sum + (a[0] * b[1] - b[0] * a[1]) / 2;
  }, 0);
  const changes = parts.findIndex(
    ({ surface }, i) => surface !== at(parts, (i + parts.length - 1) % parts.length).surface,
  );
  const start = Math.max(0, changes);
  const runs: { surface: number; from: Vec2; to: Vec2 }[] = [];
  for (let k = 0; k < parts.length; k++) {
    const { place, surface } = at(parts, (start + k) % parts.length);
    const to = at(parts, (start + k + 1) % parts.length).place;
    const last = runs.at(-1);
    if (last && last.surface === surface) last.to = to;
    else runs.push({ surface, from: place, to });
  }
  return { points, runs, area };
}
