/** The outline of a panel that is no rectangle: its corners from formulas to millimetres, and what cannot be. */

import {
  bulgedCorners,
  type Corner,
  cross2,
  crossesItself,
  dot2,
  edgeDistance,
  flattened,
  isInside,
  type Loop,
  loopArea,
  norm2,
  type Polygon,
  reach,
  roundedPolygon,
  stretchesCross,
  subtract2,
  type Vec2,
} from "../geometry";
import { lengthWith, type OutlineCorner, type Sizes } from "../job";
import { at, err, LENGTH_TOLERANCE_MM, ok, type Result } from "../kernel";
import { type LengthStyle, saySizes } from "../measure";
import type { Cornered, ShapeFault } from "./fault";

/** An outline in the panel's own axes, anticlockwise. */
export type OutlineSolid = {
  readonly corners: readonly Corner[];
  /** Whether its corners were set clockwise, so that the last of them stands first here. */
  readonly reversed: boolean;
  readonly loop: Loop;
  /** mm², exact. */
  readonly area: number;
};

type Size = { readonly length: number; readonly width: number };

/** The outline of a panel of that size or of a cut-out in it, or why there is none: a corner that cannot be computed, lies beyond, or cannot be rounded. */
export function outlineSolid(
  corners: readonly OutlineCorner[],
  { length, width }: Size,
  sizes: Sizes,
  of: Cornered = "outline",
): Result<OutlineSolid, ShapeFault> {
  const found: Corner[] = [];
  for (const [i, corner] of corners.entries()) {
    const values: number[] = [];
    for (const text of [corner.x, corner.y, corner.radius]) {
      const value = lengthWith(sizes, text);
      if (!value.ok) return err({ kind: "cornerText", of, corner: i + 1, problem: value.problem });
      values.push(value.value);
    }
    const [x, y, radius] = values as [number, number, number];
    if (radius < 0) return err({ kind: "cornerRadius", of, corner: i + 1 });
    const place: Vec2 = [corner.fromX === "left" ? x : length - x, corner.fromY === "front" ? y : width - y];
    found.push({ at: place, radius });
  }
  const tight = tooRound(found);
  if (tight !== null) return err({ kind: "cornerTooRound", of, corner: tight + 1 });
  const drawn = roundedPolygon(found);
  const reversed = loopArea(drawn) < 0;
  const ordered = reversed ? found.toReversed() : found;
  const loop = reversed ? roundedPolygon(ordered) : drawn;
  const area = loopArea(loop);
  if (area < 1e-3 || crossesItself(flattened(bulgedCorners(loop), CROSSING_FINENESS)))
    return err({ kind: "outlineCrosses", of });
  const inside = [
    length - reach(loop, [1, 0]),
    -reach(loop, [-1, 0]),
    width - reach(loop, [0, 1]),
    -reach(loop, [0, -1]),
  ];
  // A cut-out that reaches beyond is open there; that it does is told beside it.
  if (of === "outline" && Math.min(...inside) < -LENGTH_TOLERANCE_MM) {
    // A rounded corner may stand beyond what it is rounded to.
    const sharp = found.findIndex(({ at: [x, y], radius }) => radius === 0 && isOff([x, y], length, width));
    return err({ kind: "outlineBeyond", of, corner: sharp < 0 ? null : sharp + 1 });
  }
  return ok({ corners: ordered, reversed, loop, area });
}

/** mm. Arcs are straight to this when it is asked whether an outline crosses itself. */
const CROSSING_FINENESS = 0.1;

const isOff = ([x, y]: Vec2, length: number, width: number) =>
  Math.min(x, y, length - x, width - y) < -LENGTH_TOLERANCE_MM;

/** The first corner whose rounding does not leave room on an edge for that of the next; null: all have room. */
function tooRound(corners: readonly Corner[]): number | null {
  const n = corners.length;
  const taken = corners.map((corner, i) => {
    if (corner.radius === 0) return 0;
    const [before, after] = [at(corners, (i + n - 1) % n), at(corners, (i + 1) % n)];
    const [a, b] = [subtract2(corner.at, before.at), subtract2(after.at, corner.at)];
    const turn = Math.atan2(cross2(a, b), dot2(a, b));
    return corner.radius * Math.tan(Math.abs(turn) / 2);
  });
  const found = corners.findIndex((corner, i) => {
    const next = (i + 1) % n;
    const edge = norm2(subtract2(at(corners, next).at, corner.at));
    return at(taken, i) + at(taken, next) > edge + LENGTH_TOLERANCE_MM;
  });
  return found < 0 ? null : at(taken, found) >= at(taken, (found + 1) % n) ? found : (found + 1) % n;
}

/** mm. How far the polygon of an outline may lie outside it, for pictures and for places of holes. */
const OUTLINE_FINENESS = 0.05;

export const outlinePolygon = ({ loop }: OutlineSolid, tolerance = OUTLINE_FINENESS): Polygon =>
  flattened(bulgedCorners(loop), tolerance);

/** What is odd about an outline though it can be made. */
export function outlineRemarks(
  { loop }: OutlineSolid,
  { length, width }: Size,
  style: LengthStyle,
): readonly string[] {
  const [long, wide] = [
    reach(loop, [1, 0]) + reach(loop, [-1, 0]),
    reach(loop, [0, 1]) + reach(loop, [0, -1]),
  ];
  const small = length - long > LENGTH_TOLERANCE_MM || width - wide > LENGTH_TOLERANCE_MM;
  return small
    ? [`its outline takes ${saySizes([long, wide], style)} of its ${saySizes([length, width], style)}`]
    : [];
}

/** Whether a round hole lies wholly inside the outline. */
export function holdsHole(
  polygon: Polygon,
  { x, y, diameter }: { x: number; y: number; diameter: number },
): boolean {
  return isInside(polygon, [x, y]) && edgeDistance(polygon, [x, y]) >= diameter / 2 - OUTLINE_FINENESS;
}

/** Whether a polygon lies wholly inside another, without touching its border. */
export function liesWithin(inner: Polygon, outer: Polygon): boolean {
  return inner.every((point, i) => {
    if (!isInside(outer, point) || edgeDistance(outer, point) < OUTLINE_FINENESS) return false;
    const next = at(inner, (i + 1) % inner.length);
    return outer.every(
      (corner, k) => !stretchesCross(point, next, corner, at(outer, (k + 1) % outer.length)),
    );
  });
}
