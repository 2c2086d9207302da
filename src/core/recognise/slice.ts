/** What a plane square to a direction cuts out of a body: loops, each with the surfaces that it runs over one after the other. */
import { add, dot, scale, subtract, type Vec2, type Vec3 } from "../geometry";
import { at } from "../kernel";
import { type Body, pairKey } from "./body";

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
  const { origin, x, y, along } = axes;
  const heights = Float64Array.from(points, (point) => dot(subtract(point, origin), along) - height);
  const heightAt = (corner: number) => heights[corner] ?? 0;
  type Part = { readonly from: number; readonly to: number; readonly at: Vec2; readonly surface: number };
  const parts = new Map<number, Part>();
  const edgeOf = (a: number, b: number) => (a < b ? pairKey(a, b) : pairKey(b, a));
  const crossing = (a: number, b: number): Vec2 => {
    const [low, high] = a < b ? [a, b] : [b, a];
    const [h0, h1] = [heightAt(low), heightAt(high)];
    const share = h0 / (h0 - h1);
    const place = add(at(points, low), scale(subtract(at(points, high), at(points, low)), share));
    const from = subtract(place, origin);
    return [dot(from, x), dot(from, y)];
  };
  for (const { corners, surface } of triangles) {
    const [a, b, c] = corners;
    const [aboveA, aboveB, aboveC] = [heightAt(a) > 0, heightAt(b) > 0, heightAt(c) > 0];
    if (aboveA === aboveB && aboveB === aboveC) continue;
    // Runs from where the triangle goes down to where it comes up: what is solid lies to the left, seen from above.
    const [p, q] = aboveA && !aboveB ? [a, b] : aboveB && !aboveC ? [b, c] : [c, a];
    const [r, s] = !aboveA && aboveB ? [a, b] : !aboveB && aboveC ? [b, c] : [c, a];
    const from = edgeOf(p, q);
    if (parts.has(from)) return null;
    parts.set(from, { from, to: edgeOf(r, s), at: crossing(p, q), surface });
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
