/**
 * Along which ways convex parts run into one another: separating axes give for each a slab in which the move lies when the two
 * share room (Gottschalk, Lin and Manocha 1996); a ray through all slabs is blocked. One set of axes answers gaps and ways.
 */
import { cross, dot, norm, type Vec3 } from "../geometry";
import type { Convex } from "../shape";
import type { Box } from "./units";

/** mm. What shares less room than this only touches. */
const TOUCHING = 0.3;
/** mm. Facets of two round pieces that touch lie in one another by a skin. */
const ROUND_TOUCHING = 0.8;

/** Where a convex part begins and ends along a direction. */
function span({ points }: Convex, axis: Vec3): readonly [number, number] {
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const point of points) {
    const one = point[0] * axis[0] + point[1] * axis[1] + point[2] * axis[2];
    if (one < low) low = one;
    if (one > high) high = one;
  }
  return [low, high];
}

/** Goes over all axes that can separate two convex parts, until one of them ends it by saying so. */
function overAxes(a: Convex, b: Convex, tell: (axis: Vec3) => boolean): boolean {
  for (const axis of a.normals) if (tell(axis)) return true;
  for (const axis of b.normals) if (tell(axis)) return true;
  for (const p of a.edges)
    for (const q of b.edges) {
      const across = cross(p, q);
      const size = norm(across);
      if (size < 1e-6) continue;
      const axis: Vec3 = [across[0] / size, across[1] / size, across[2] / size];
      // Of boxes that lie alike these are the normals once more.
      if (isAmong(axis, a.normals) || isAmong(axis, b.normals)) continue;
      if (tell(axis)) return true;
    }
  return false;
}

/** Whether an axis is one of some directions, or the other way round. */
function isAmong([x, y, z]: Vec3, directions: readonly Vec3[]): boolean {
  for (const one of directions) if (Math.abs(x * one[0] + y * one[1] + z * one[2]) > 1 - 1e-12) return true;
  return false;
}

const NOWHERE: Vec3 = [0, 0, 0];

/** Whether a box, moved by `from` first, meets another somewhere along a way. */
export function mayMeet(a: Box, b: Box, way: Vec3, from: Vec3 = NOWHERE): boolean {
  let [first, last] = [0, Number.POSITIVE_INFINITY];
  for (let k = 0; k < 3; k++) {
    const move = from[k] as number;
    const low = (b.low[k] as number) - (a.high[k] as number) - move;
    const high = (b.high[k] as number) - (a.low[k] as number) - move;
    const speed = way[k] as number;
    if (Math.abs(speed) < 1e-9) {
      if (low >= 0 || high <= 0) return false;
      continue;
    }
    const [t0, t1] = [low / speed, high / speed];
    first = Math.max(first, Math.min(t0, t1));
    last = Math.min(last, Math.max(t0, t1));
  }
  return first < last;
}

/**
 * How far along a way part `a`, moved by `from` first, shares room with part `b`: from one distance to another, which may be
 * behind it; null: nowhere.
 */
export function sharedAlong(
  a: Convex,
  b: Convex,
  way: Vec3,
  from: Vec3 = NOWHERE,
): readonly [number, number] | null {
  let [first, last] = [Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY];
  const touching = a.round && b.round ? ROUND_TOUCHING : TOUCHING;
  const apart = overAxes(a, b, (axis) => {
    const [a0, a1] = span(a, axis);
    const [b0, b1] = span(b, axis);
    const [low, high] = [b0 - a1 + touching, b1 - a0 - touching];
    const [start, speed] = [dot(axis, from), dot(axis, way)];
    if (high <= low) return true;
    if (Math.abs(speed) < 1e-9) return start <= low || start >= high;
    const [t0, t1] = [(low - start) / speed, (high - start) / speed];
    first = Math.max(first, Math.min(t0, t1));
    last = Math.min(last, Math.max(t0, t1));
    return first >= last;
  });
  return apart ? null : [first, last];
}

/** How far two parts lie apart, and in which direction; below zero where they share room. */
export function gapBetween(a: Convex, b: Convex): { readonly gap: number; readonly normal: Vec3 } {
  let [gap, normal]: [number, Vec3] = [Number.NEGATIVE_INFINITY, [0, 0, 1]];
  overAxes(a, b, (axis) => {
    const [a0, a1] = span(a, axis);
    const [b0, b1] = span(b, axis);
    const one = Math.max(b0 - a1, a0 - b1);
    if (one > gap) [gap, normal] = [one, axis];
    return false;
  });
  return { gap, normal };
}
