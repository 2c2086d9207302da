/** Regions of the plane: polygons taken from one another. Clipper 2 does the work, on whole thousandths of a millimetre. */
import {
  Clipper,
  ClipType,
  FillRule,
  type Path64,
  type Paths64,
  type PolyPath64,
  PolyTree64,
} from "clipper2-ts";
import { at } from "../kernel";
import { type Polygon, polygonArea } from "./polygon";
import { cross2, subtract2, type Vec2 } from "./vector";

/** Whole numbers that a millimetre has for Clipper. */
export const CLIPPER_UNIT = 1000;

export const clipperPath = (polygon: Polygon): Path64 =>
  polygon.map(([x, y]) => ({ x: Math.round(x * CLIPPER_UNIT), y: Math.round(y * CLIPPER_UNIT) }));

const ofClipper = (path: Path64): Polygon =>
  path.map(({ x, y }): Vec2 => [x / CLIPPER_UNIT, y / CLIPPER_UNIT]);

/** An outer ring that runs anticlockwise, and the holes in it. */
export type Region = { readonly outer: Polygon; readonly holes: readonly Polygon[] };

/** Rings as they are, and as regions with their holes. */
export type Rings = { readonly rings: readonly Polygon[]; readonly regions: readonly Region[] };

/** What is left of `subject` without `clip`. */
export const without = (subject: readonly Polygon[], clip: readonly Polygon[]): Rings =>
  combined(ClipType.Difference, subject, clip);

/** What of `subject` lies in `clip`. */
export const within = (subject: readonly Polygon[], clip: readonly Polygon[]): Rings =>
  combined(ClipType.Intersection, subject, clip);

function combined(how: ClipType, subject: readonly Polygon[], clip: readonly Polygon[]): Rings {
  const tree = new PolyTree64();
  const [from, other] = [subject.map(clipperPath), clip.map(clipperPath)];
  Clipper.booleanOpWithPolyTree(how, from, other, tree, FillRule.NonZero);
  const regions: Region[] = [];
  const walk = (node: PolyPath64) => {
    for (let i = 0; i < node.count; i++) {
      const outer = node.child(i);
      const holes = Array.from({ length: outer.count }, (_, k) => outer.child(k));
      regions.push({
        outer: ofClipper(outer.polygon ?? []),
        holes: holes.map((hole) => ofClipper(hole.polygon ?? [])),
      });
      holes.forEach(walk);
    }
  };
  walk(tree);
  const rings: Paths64 = Clipper.polyTreeToPaths64(tree);
  return { rings: rings.map(ofClipper), regions };
}

/** The area in mm² that two polygons share, whichever way round they run. */
export function sharedArea(a: Polygon, b: Polygon): number {
  if (a.length < 3 || b.length < 3) return 0;
  const shared = Clipper.intersect([clipperPath(a)], [clipperPath(b)], FillRule.NonZero);
  return Math.abs(shared.reduce((sum, path) => sum + polygonArea(ofClipper(path)), 0));
}

/** The least convex polygon round points, anticlockwise (Andrew 1979, the monotone chain). */
export function convexHull(points: readonly Vec2[]): Polygon {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (all: readonly Vec2[]): Vec2[] => {
    const chain: Vec2[] = [];
    for (const point of all) {
      while (
        chain.length > 1 &&
        cross2(
          subtract2(at(chain, chain.length - 1), at(chain, chain.length - 2)),
          subtract2(point, at(chain, chain.length - 1)),
        ) <= 0
      )
        chain.pop();
      chain.push(point);
    }
    return chain.slice(0, -1);
  };
  return sorted.length < 2 ? sorted : [...half(sorted), ...half([...sorted].reverse())];
}
