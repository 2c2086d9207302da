/**
 * Minkowski sums of polygons on a whole-number grid, exact: each polygon is parted into convex ones (ear clipping, then
 * triangles joined as long as they stay convex: Hertel and Mehlhorn 1983), and the sum of two convex ones is their edges in
 * the order of their direction.
 */
import { Clipper, FillRule, type Path64, type Paths64, type Point64 } from "clipper2-ts";
import earcut from "earcut";
import { convexHull, type Vec2 } from "../../geometry";
import { at } from "../../kernel";

const turn = (a: Point64, b: Point64, c: Point64) => (b.x - a.x) * (c.y - b.y) - (b.y - a.y) * (c.x - b.x);

const distance = (a: Point64, b: Point64) => Math.hypot(b.x - a.x, b.y - a.y);

/**
 * Whether a ring that runs anticlockwise turns left at every corner. Corners were rounded to whole numbers, so one that
 * stands less than one of them inside the line between its neighbours counts as straight on: arcs would else be hollow.
 */
function isConvex(ring: readonly Point64[]): boolean {
  const n = ring.length;
  return ring.every((b, i) => {
    const [a, c] = [at(ring, (i + n - 1) % n), at(ring, (i + 1) % n)];
    const left = turn(a, b, c);
    // Straight on, and not straight back: a spike turns by half a turn and encloses nothing either.
    const ahead = (b.x - a.x) * (c.x - b.x) + (b.y - a.y) * (c.y - b.y) > 0;
    return left > 0 || (ahead && left >= -distance(a, c));
  });
}

/** A polygon as convex ones, each anticlockwise. */
export function convexParts(path: Path64): Paths64 {
  const ring = Clipper.area(path) < 0 ? [...path].reverse() : path;
  if (isConvex(ring)) return [hullOf(ring)];
  const found = earcut(ring.flatMap(({ x, y }) => [x, y]));
  const parts: (readonly number[] | null)[] = [];
  for (let i = 0; i < found.length; i += 3) {
    const [a, b, c] = [at(found, i), at(found, i + 1), at(found, i + 2)];
    const area = turn(at(ring, a), at(ring, b), at(ring, c));
    if (area !== 0) parts.push(area > 0 ? [a, b, c] : [c, b, a]);
  }
  /** The part that has an edge, by its two corners in order. */
  const owner = new Map<string, number>();
  const own = (part: readonly number[], index: number) =>
    part.forEach((from, i) => {
      owner.set(`${from},${at(part, (i + 1) % part.length)}`, index);
    });
  parts.forEach((part, i) => {
    if (part) own(part, i);
  });
  for (const edge of [...owner.keys()]) {
    const [from, to] = edge.split(",").map(Number) as [number, number];
    const [first, second] = [owner.get(edge), owner.get(`${to},${from}`)];
    if (first === undefined || second === undefined || first === second) continue;
    const [a, b] = [parts[first], parts[second]];
    const whole = a && b && joinedAcross(a, b, from, to);
    if (!whole || !isConvex(whole.map((corner) => at(ring, corner)))) continue;
    parts[first] = whole;
    parts[second] = null;
    owner.delete(edge);
    owner.delete(`${to},${from}`);
    own(whole, first);
  }
  return parts.flatMap((part) => (part ? [hullOf(part.map((corner) => at(ring, corner)))] : []));
}

/**
 * What is convex but for rounding as what is convex: a corner that stands a hair inside goes, and with it short edges whose
 * direction is that of the rounding alone. The sum of two parts goes by the directions of their edges.
 */
const hullOf = (ring: Path64): Path64 =>
  convexHull(ring.map(({ x, y }): Vec2 => [x, y])).map(([x, y]) => ({ x, y }));

/** Two rings of corners as one across the edge that runs `from`–`to` in the first and back in the second. */
function joinedAcross(a: readonly number[], b: readonly number[], from: number, to: number): number[] {
  const [i, k] = [a.indexOf(to), b.indexOf(from)];
  // Round a from the end of the shared edge to its start, then round b from there.
  const first = a.map((_, j) => at(a, (i + j) % a.length));
  const second = b.map((_, j) => at(b, (k + j) % b.length)).slice(1, -1);
  return [...first, ...second];
}

/** The sum of two convex polygons that run anticlockwise. */
function convexSum(a: Path64, b: Path64): Path64 {
  const [p, q] = [fromLowest(a), fromLowest(b)];
  const sum: Path64 = [];
  let [i, k] = [0, 0];
  while (i < p.length || k < q.length) {
    const [pi, qk] = [at(p, i % p.length), at(q, k % q.length)];
    sum.push({ x: pi.x + qk.x, y: pi.y + qk.y });
    const [pn, qn] = [at(p, (i + 1) % p.length), at(q, (k + 1) % q.length)];
    const cross = (pn.x - pi.x) * (qn.y - qk.y) - (pn.y - pi.y) * (qn.x - qk.x);
    const [stepP, stepQ] = [
      i < p.length && (k >= q.length || cross >= 0),
      k < q.length && (i >= p.length || cross <= 0),
    ];
    if (stepP) i++;
    if (stepQ) k++;
  }
  return sum;
}

/** The same ring from its lowest corner, the leftmost of those. */
function fromLowest(ring: Path64): Path64 {
  let lowest = 0;
  ring.forEach((point, i) => {
    const best = at(ring, lowest);
    if (point.y < best.y || (point.y === best.y && point.x < best.x)) lowest = i;
  });
  return [...ring.slice(lowest), ...ring.slice(0, lowest)];
}

/** The sum of two polygons that are given as convex parts, as one region. */
export function minkowskiSum(a: Paths64, b: Paths64): Paths64 {
  const sums = a.flatMap((one) => b.map((other) => convexSum(one, other)));
  return sums.length === 1 ? sums : Clipper.union(sums, FillRule.NonZero);
}
