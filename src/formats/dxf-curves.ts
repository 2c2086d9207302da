/**
 * Ellipses and splines of drawings as runs of arcs that touch one another smoothly (biarcs: two arcs between two places with their
 * directions, after K. M. Bolton, Computer-Aided Design 7, 1975), halved until they lie within a tolerance.
 */
import type { BulgedCorner, Vec2 } from "@/core/geometry";
import { at } from "@/core/kernel";

/** Where a curve is at a parameter, and the way that it runs there; the way need not be a unit vector. */
export type Curve = (t: number) => { readonly place: Vec2; readonly way: Vec2 };

/** A run of arcs: corners with the bulge of the edge after each, and its end. */
export type ArcRun = { readonly corners: readonly BulgedCorner[]; readonly end: Vec2 };

/** mm. Outlines are held to a hundredth. */
const OFF = 0.008;
const MOST_HALVINGS = 12;
const SAMPLES = 8;

/** A smooth part of a curve, between two parameters; at those between two parts it may turn sharply. */
export type CurvePart = { readonly curve: Curve; readonly from: number; readonly to: number };

/** The arcs of the parts of a curve, each within 0.008 mm of it. */
export function arcsOf(parts: readonly CurvePart[]): ArcRun {
  const corners: BulgedCorner[] = [];
  const take = (curve: Curve, from: number, to: number, depth: number) => {
    const arcs = biarc(curve(from), curve(to));
    if (depth < MOST_HALVINGS && !liesOn(curve, from, to, arcs)) {
      take(curve, from, (from + to) / 2, depth + 1);
      take(curve, (from + to) / 2, to, depth + 1);
    } else corners.push(...arcs.slice(0, -1));
  };
  for (const { curve, from, to } of parts) take(curve, from, to, 0);
  const last = at(parts, parts.length - 1);
  return { corners, end: last.curve(last.to).place };
}

const unitOf = ([x, y]: Vec2): Vec2 => {
  const size = Math.hypot(x, y) || 1;
  return [x / size, y / size];
};
const dot = (a: Vec2, b: Vec2) => a[0] * b[0] + a[1] * b[1];
const cross = (a: Vec2, b: Vec2) => a[0] * b[1] - a[1] * b[0];

/** Corners of two arcs (or of one straight line) from one place to another, the last of them the end. */
function biarc(from: ReturnType<Curve>, to: ReturnType<Curve>): readonly BulgedCorner[] {
  const [p, q] = [from.place, to.place];
  const [s, e] = [unitOf(from.way), unitOf(to.way)];
  const v: Vec2 = [q[0] - p[0], q[1] - p[1]];
  const end: BulgedCorner = [q[0], q[1], 0];
  const straight: readonly BulgedCorner[] = [[p[0], p[1], 0], end];
  const sum: Vec2 = [s[0] + e[0], s[1] + e[1]];
  // Both arcs have tangents of one length d: |v|² − 2 d v·(s + e) + 2 d² (s·e − 1) = 0.
  const [a, b, c] = [2 * (dot(s, e) - 1), -2 * dot(v, sum), dot(v, v)];
  if (c === 0) return straight;
  const root = b * b - 4 * a * c;
  const d = Math.abs(a) < 1e-12 ? (b === 0 ? 0 : -c / b) : (-b - Math.sqrt(Math.max(0, root))) / (2 * a);
  if (!(d > 0) || !Number.isFinite(d)) return straight;
  const m: Vec2 = [(p[0] + d * s[0] + q[0] - d * e[0]) / 2, (p[1] + d * s[1] + q[1] - d * e[1]) / 2];
  const half = (way: Vec2, chord: Vec2) => Math.atan2(cross(way, chord), dot(way, chord));
  const first = half(s, [m[0] - p[0], m[1] - p[1]]);
  const chord: Vec2 = [q[0] - m[0], q[1] - m[1]];
  const second = half(chord, e);
  return [[p[0], p[1], Math.tan(first / 2)], [m[0], m[1], Math.tan(second / 2)], end];
}

/** How far a place lies from an arc that is said by two corners. */
function off([x0, y0, bulge = 0]: BulgedCorner, [x1, y1]: BulgedCorner, place: Vec2): number {
  const chord: Vec2 = [x1 - x0, y1 - y0];
  const size = Math.hypot(...chord);
  const from: Vec2 = [place[0] - x0, place[1] - y0];
  const along = size === 0 ? 0 : dot(from, chord) / size;
  const beyond = Math.max(0, -along, along - size);
  if (Math.abs(bulge) < 1e-9)
    return Math.hypot(size === 0 ? Math.hypot(...from) : cross(chord, from) / size, beyond);
  const radius = (size * (1 + bulge * bulge)) / (4 * bulge);
  // The middle lies to the left of the chord for arcs that run anticlockwise by less than half a turn.
  const rise = radius - (bulge * size) / 2;
  const middle: Vec2 = [(x0 + x1) / 2 - (chord[1] / size) * rise, (y0 + y1) / 2 + (chord[0] / size) * rise];
  return Math.hypot(Math.hypot(place[0] - middle[0], place[1] - middle[1]) - Math.abs(radius), beyond);
}

function liesOn(curve: Curve, from: number, to: number, arcs: readonly BulgedCorner[]): boolean {
  for (let i = 1; i < SAMPLES; i++) {
    const { place } = curve(from + ((to - from) * i) / SAMPLES);
    let nearest = Number.POSITIVE_INFINITY;
    for (let k = 0; k + 1 < arcs.length; k++)
      nearest = Math.min(nearest, off(at(arcs, k), at(arcs, k + 1), place));
    if (nearest > OFF) return false;
  }
  return true;
}

/** centre + cos t · major + sin t · minor, from an angle to another in radians, a quarter at a time. */
export function ellipse(
  centre: Vec2,
  major: Vec2,
  minor: Vec2,
  from = 0,
  to = 2 * Math.PI,
): readonly CurvePart[] {
  const curve: Curve = (t) => {
    const [c, s] = [Math.cos(t), Math.sin(t)];
    return {
      place: [centre[0] + c * major[0] + s * minor[0], centre[1] + c * major[1] + s * minor[1]],
      way: [c * minor[0] - s * major[0], c * minor[1] - s * major[1]],
    };
  };
  const count = Math.max(1, Math.ceil((to - from) / (Math.PI / 2) - 1e-9));
  const stop = (i: number) => from + ((to - from) * i) / count;
  return Array.from({ length: count }, (_, i) => ({ curve, from: stop(i), to: stop(i + 1) }));
}

/** A corner times its weight, and the weight. */
type Weighted = readonly [number, number, number];

/**
 * A B-spline, rational where its corners have weights, by de Boor's algorithm on the weighted corners (C. de Boor, A Practical Guide
 * to Splines; L. Piegl and W. Tiller, The NURBS Book, chapter 4); null: its knots do not fit its corners, or a weight is not above zero.
 */
export function spline(
  degree: number,
  knots: readonly number[],
  corners: readonly Vec2[],
  weights: readonly number[] = corners.map(() => 1),
): readonly CurvePart[] | null {
  if (degree < 1 || degree > 11 || corners.length <= degree || knots.length !== corners.length + degree + 1)
    return null;
  if (knots.some((knot, i) => !Number.isFinite(knot) || (i > 0 && knot < at(knots, i - 1)))) return null;
  if (!corners.every((_, i) => (weights[i] ?? 0) > 0)) return null;
  const weighted = corners.map(([x, y], i): Weighted => {
    const w = at(weights, i);
    return [x * w, y * w, w];
  });
  // The way that it runs is a spline of one degree less over the differences of its corners.
  const slopes = weighted.slice(1).map((corner, i): Weighted => {
    const before = at(weighted, i);
    const width = at(knots, i + degree + 1) - at(knots, i + 1);
    const by = width === 0 ? 0 : degree / width;
    return [(corner[0] - before[0]) * by, (corner[1] - before[1]) * by, (corner[2] - before[2]) * by];
  });
  const inner = knots.slice(1, -1);
  return Array.from({ length: corners.length - degree }, (_, i): CurvePart => {
    const span = degree + i;
    // Each part for itself: at a knot it has the direction of its own side.
    const curve: Curve = (t) => {
      const [x, y, w] = evaluated(degree, weighted, knots, span, t);
      const [dx, dy, dw] = evaluated(degree - 1, slopes, inner, span - 1, t);
      const place: Vec2 = [x / w, y / w];
      return { place, way: [(dx - place[0] * dw) / w, (dy - place[1] * dw) / w] };
    };
    return { curve, from: at(knots, span), to: at(knots, span + 1) };
  }).filter(({ from, to }) => to > from);
}

/** de Boor's algorithm in one span of the knots. */
function evaluated(
  order: number,
  points: readonly Weighted[],
  knots: readonly number[],
  span: number,
  t: number,
): Weighted {
  const d = Array.from({ length: order + 1 }, (_, j) => at(points, span - order + j));
  for (let r = 1; r <= order; r++)
    for (let j = order; j >= r; j--) {
      const low = at(knots, j + span - order);
      const high = at(knots, j + 1 + span - r);
      const share = high === low ? 0 : (t - low) / (high - low);
      const [a, b] = [at(d, j - 1), at(d, j)];
      d[j] = [a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1]), a[2] + share * (b[2] - a[2])];
    }
  return at(d, order);
}
