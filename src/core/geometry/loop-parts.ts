/** Outlines seen over a straight line across them: where they meet it, and what lies beyond it. */

import { endOf, type Loop, onArc, type Segment, startOf } from "./outline";
import { dot2, norm2, type Vec2 } from "./vector";

/** c + k·p: zero on a straight line, a plane over the outline elsewhere. */
export type Linear = { readonly slope: Vec2; readonly constant: number };

export const valueAt = ({ slope, constant }: Linear, p: Vec2): number => constant + dot2(slope, p);

/** Shares of a segment, from 0 to 1, at which a linear function of the plane is zero. */
export function zerosOn(segment: Segment, { slope, constant }: Linear): readonly number[] {
  if (segment.kind === "line") {
    const [from, to] = [constant + dot2(slope, segment.from), constant + dot2(slope, segment.to)];
    return from === to ? [] : inside([from / (from - to)]);
  }
  const swing = segment.radius * norm2(slope);
  const middle = constant + dot2(slope, segment.centre);
  if (swing === 0 || Math.abs(middle) > swing) return [];
  const towards = Math.atan2(slope[1], slope[0]);
  const half = Math.acos(-middle / swing);
  return inside([towards + half, towards - half].flatMap((angle) => sharesOf(segment, angle)));
}

/** Where an angle lies on an arc, as a share of its sweep. */
function sharesOf(arc: Extract<Segment, { kind: "arc" }>, angle: number): readonly number[] {
  const turn = Math.sign(arc.sweep) * (angle - arc.start);
  const wrapped = ((turn % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
  return [wrapped / Math.abs(arc.sweep)];
}

const inside = (shares: readonly number[]) => shares.filter((share) => share > 0 && share < 1);

export function pointOn(segment: Segment, share: number): Vec2 {
  if (segment.kind === "arc") return onArc(segment, segment.start + segment.sweep * share);
  const { from, to } = segment;
  return [from[0] + (to[0] - from[0]) * share, from[1] + (to[1] - from[1]) * share];
}

/** Shares of an arc at which its tangent stands square to a direction. */
function turningsOn(segment: Segment, direction: Vec2): readonly number[] {
  if (segment.kind === "line") return [];
  const angle = Math.atan2(direction[1], direction[0]);
  return inside([angle, angle + Math.PI].flatMap((one) => sharesOf(segment, one)));
}

/**
 * The points of an outline among which a function that is linear between straight creases has its least and its
 * greatest value: all corners, where arcs turn against one of the slopes, and where the creases cross the outline.
 */
export function extremePoints(
  loop: Loop,
  slopes: readonly Vec2[],
  creases: readonly Linear[],
): readonly Vec2[] {
  return loop.flatMap((segment) => [
    startOf(segment),
    endOf(segment),
    ...slopes.flatMap((slope) => turningsOn(segment, slope).map((share) => pointOn(segment, share))),
    ...creases.flatMap((crease) => zerosOn(segment, crease).map((share) => pointOn(segment, share))),
  ]);
}

/** Nodes and weights of Gauss and Legendre on (0, 1), eight points: exact to the 15th power (Abramowitz and Stegun, table 25.4). */
const GAUSS = (
  [
    [0.1834346424956498, 0.362683783378362],
    [0.525532409916329, 0.3137066458778873],
    [0.7966664774136267, 0.2223810344533745],
    [0.9602898564975363, 0.1012285362903763],
  ] as const
).flatMap(([node, weight]) => [[(1 - node) / 2, weight / 2] as const, [(1 + node) / 2, weight / 2] as const]);

/** Arcs are cut into parts of at most this share of a turn, on which eight points are exact to the last digits. */
const PARTS_PER_TURN = 8;

/**
 * ∫ min(0, f) over the region that loops bound (holes clockwise): how much of a linear function lies below zero there.
 * By Green's theorem, ∮ F ds with F = f²/2|k| where f < 0; exact on lines, to about 1e-13 on arcs.
 */
export function partBelow(loops: readonly Loop[], f: Linear): number {
  const steep = norm2(f.slope);
  if (steep === 0) return Number.NaN;
  const across: Vec2 = [-f.slope[1] / steep, f.slope[0] / steep];
  let sum = 0;
  for (const segment of loops.flat()) {
    const parts =
      segment.kind === "arc" ? Math.ceil((Math.abs(segment.sweep) / (2 * Math.PI)) * PARTS_PER_TURN) : 1;
    const even = Array.from({ length: parts - 1 }, (_, i) => (i + 1) / parts);
    const stops = [0, ...[...zerosOn(segment, f), ...even].sort((a, b) => a - b), 1];
    for (let i = 1; i < stops.length; i++) {
      const [from, to] = [stops[i - 1] ?? 0, stops[i] ?? 1];
      if (valueAt(f, pointOn(segment, (from + to) / 2)) >= 0) continue;
      for (const [node, weight] of GAUSS) {
        const share = from + (to - from) * node;
        const value = valueAt(f, pointOn(segment, share));
        sum += ((value * value) / (2 * steep)) * dot2(across, runOf(segment, share)) * weight * (to - from);
      }
    }
  }
  return sum;
}

/** How a point moves along a segment, by the share of it. */
function runOf(segment: Segment, share: number): Vec2 {
  if (segment.kind === "line") return [segment.to[0] - segment.from[0], segment.to[1] - segment.from[1]];
  const angle = segment.start + segment.sweep * share;
  const speed = segment.radius * segment.sweep;
  return [-Math.sin(angle) * speed, Math.cos(angle) * speed];
}
