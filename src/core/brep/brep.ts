/**
 * Solids by their borders, exact: faces on planes and cylinders, edges on lines, circles and ellipses. A piece of a bar
 * between two planes, a panel with its outline, holes and blind holes are said so; what else there is comes as flat facets.
 */
import {
  add,
  cross,
  direction,
  dot,
  type Loop,
  type Mesh,
  norm,
  type Segment,
  scale,
  startOf,
  subtract,
  type Vec2,
  type Vec3,
} from "../geometry";
import { at } from "../kernel";

export type BrepCurve =
  | { readonly kind: "line" }
  /** About `normal`, counted from `major`; both of length one. `minor` is the radius of a circle. */
  | {
      readonly kind: "ellipse";
      readonly centre: Vec3;
      readonly normal: Vec3;
      readonly major: Vec3;
      readonly long: number;
      readonly short: number;
      /** The edge runs as the curve does, anticlockwise about its normal. */
      readonly ahead: boolean;
    };

export type BrepEdge = { readonly from: number; readonly to: number; readonly curve: BrepCurve };
export type BrepSurface =
  | { readonly kind: "plane"; readonly on: Vec3; readonly normal: Vec3 }
  /** `outwards`: the solid lies inside of it. */
  | {
      readonly kind: "cylinder";
      readonly on: Vec3;
      readonly axis: Vec3;
      readonly radius: number;
      readonly outwards: boolean;
    };
/** An edge as a loop of a face runs along it. */
export type BrepUse = { readonly edge: number; readonly ahead: boolean };
export type BrepFace = {
  readonly surface: BrepSurface;
  /** The outer loop first, anticlockwise seen from outside; those of holes run the other way. */
  readonly loops: readonly (readonly BrepUse[])[];
};
export type Brep = {
  readonly points: readonly Vec3[];
  readonly edges: readonly BrepEdge[];
  readonly faces: readonly BrepFace[];
  /** It is of facets where it has curved faces. */
  readonly isFaceted: boolean;
};

/** An end of a bar: z = height + slope · (x, y). */
export type SlantedEnd = { readonly height: number; readonly slope: Vec2 };
class Builder {
  readonly points: Vec3[] = [];
  readonly edges: BrepEdge[] = [];
  readonly faces: BrepFace[] = [];

  point(place: Vec3): number {
    return this.points.push(place) - 1;
  }

  edge(from: number, to: number, curve: BrepCurve): number {
    return this.edges.push({ from, to, curve }) - 1;
  }
}

/** Arcs of half a turn at most: an edge has two ends. */
const inParts = (loop: Loop): Loop =>
  loop.flatMap((segment): readonly Segment[] => {
    if (segment.kind === "line") return [segment];
    const parts = Math.max(1, Math.ceil(Math.abs(segment.sweep) / Math.PI - 1e-9));
    const sweep = segment.sweep / parts;
    return Array.from({ length: parts }, (_, i) => ({ ...segment, start: segment.start + i * sweep, sweep }));
  });

/** A bar along z of a section between two planes. Loops: the outer one anticlockwise, holes clockwise. */
export function prismBrep(loops: readonly Loop[], start: SlantedEnd, end: SlantedEnd): Brep {
  const made = new Builder();
  const [startUses, endUses]: [BrepUse[][], BrepUse[][]] = [[], []];
  for (const loop of loops) {
    const { low, high } = walls(made, inParts(loop), start, end);
    startUses.push(backwards(low));
    endUses.push(high.map((edge) => ({ edge, ahead: true })));
  }
  made.faces.push({ surface: endPlane(start, -1), loops: startUses });
  made.faces.push({ surface: endPlane(end, 1), loops: endUses });
  return { points: made.points, edges: made.edges, faces: made.faces, isFaceted: false };
}

const backwards = (edges: readonly number[]): BrepUse[] =>
  edges.toReversed().map((edge) => ({ edge, ahead: false }));

const heightOn = ({ height, slope }: SlantedEnd, [x, y]: Vec2) => height + slope[0] * x + slope[1] * y;

function endPlane(end: SlantedEnd, side: 1 | -1): BrepSurface {
  const normal = direction([-end.slope[0], -end.slope[1], 1]) ?? [0, 0, 1];
  return { kind: "plane", on: [0, 0, end.height], normal: scale(normal, side) };
}

/** The faces along a loop between two ends, and its edges at either. */
function walls(made: Builder, loop: Loop, start: SlantedEnd, end: SlantedEnd) {
  const starts = loop.map((segment): Vec2 => startOf(segment));
  const lift = (at: SlantedEnd, [x, y]: Vec2): Vec3 => [x, y, heightOn(at, [x, y])];
  const lows = starts.map((place) => made.point(lift(start, place)));
  const highs = starts.map((place) => made.point(lift(end, place)));
  const uprights = starts.map((_, i) => made.edge(at(lows, i), at(highs, i), { kind: "line" }));
  const next = (i: number) => (i + 1) % loop.length;
  const low = loop.map((segment, i) => made.edge(at(lows, i), at(lows, next(i)), curveOf(segment, start)));
  const high = loop.map((segment, i) => made.edge(at(highs, i), at(highs, next(i)), curveOf(segment, end)));
  for (const [i, segment] of loop.entries())
    made.faces.push({
      surface: wallSurface(segment),
      loops: [
        [
          { edge: at(low, i), ahead: true },
          { edge: at(uprights, next(i)), ahead: true },
          { edge: at(high, i), ahead: false },
          { edge: at(uprights, i), ahead: false },
        ],
      ],
    });
  return { low, high };
}

function wallSurface(segment: Segment): BrepSurface {
  if (segment.kind === "arc") {
    const { centre, radius, sweep } = segment;
    return { kind: "cylinder", on: [centre[0], centre[1], 0], axis: [0, 0, 1], radius, outwards: sweep > 0 };
  }
  const { from, to } = segment;
  return {
    kind: "plane",
    on: [from[0], from[1], 0],
    normal: direction([to[1] - from[1], from[0] - to[0], 0]) ?? [1, 0, 0],
  };
}

/** Where the wall over a segment meets an end: a plane cuts a cylinder in an ellipse. */
function curveOf(segment: Segment, end: SlantedEnd): BrepCurve {
  if (segment.kind === "line") return { kind: "line" };
  const { centre, radius, sweep } = segment;
  const lean = Math.hypot(...end.slope);
  const uphill: Vec2 = lean === 0 ? [1, 0] : [end.slope[0] / lean, end.slope[1] / lean];
  const stretch = Math.sqrt(1 + lean * lean);
  return {
    kind: "ellipse",
    centre: [centre[0], centre[1], heightOn(end, centre)],
    normal: [-end.slope[0] / stretch, -end.slope[1] / stretch, 1 / stretch],
    major: [uphill[0] / stretch, uphill[1] / stretch, lean / stretch],
    long: radius * stretch,
    short: radius,
    ahead: sweep > 0,
  };
}

/** A closed mesh as flat faces, one a triangle; null: it is not closed. */
export function facetedBrep({ vertices, triangles }: Mesh): Brep | null {
  const points: Vec3[] = [];
  const known = new Map<string, number>();
  const indices = vertices.map((vertex) => {
    const key = vertex.map((value) => Math.round(value * 1e5)).join(",");
    const before = known.get(key);
    if (before !== undefined) return before;
    known.set(key, points.length);
    return points.push(vertex) - 1;
  });
  const edges: BrepEdge[] = [];
  const edgeOf = new Map<string, number>();
  const faces: BrepFace[] = [];
  const uses = new Map<number, number>();
  for (let t = 0; t + 2 < triangles.length; t += 3) {
    const corners = [0, 1, 2].map((k) => at(indices, at(triangles, t + k)));
    const [a, b, c] = corners as [number, number, number];
    if (a === b || b === c || a === c) continue;
    const [p, q, r] = [at(points, a), at(points, b), at(points, c)];
    const normal = direction(cross(subtract(q, p), subtract(r, p)));
    if (!normal || norm(cross(subtract(q, p), subtract(r, p))) < 1e-9) return null;
    const loop = corners.map((from, k): BrepUse => {
      const to = at(corners, (k + 1) % 3);
      const back = edgeOf.get(`${to},${from}`);
      const edge = back ?? edges.push({ from, to, curve: { kind: "line" } }) - 1;
      if (back === undefined) {
        if (edgeOf.has(`${from},${to}`)) uses.set(edge, 9);
        edgeOf.set(`${from},${to}`, edge);
      }
      uses.set(edge, (uses.get(edge) ?? 0) + 1);
      return { edge, ahead: back === undefined };
    });
    faces.push({ surface: { kind: "plane", on: p, normal }, loops: [loop] });
  }
  if (faces.length < 4 || [...uses.values()].some((count) => count !== 2)) return null;
  return { points, edges, faces, isFaceted: true };
}

/** The mirror image across x = 0. */
export function mirroredBrep({ points, edges, faces, isFaceted }: Brep): Brep {
  const flip = ([x, y, z]: Vec3): Vec3 => [0 - x, y, z];
  return {
    points: points.map(flip),
    edges: edges.map(({ from, to, curve }) => ({
      from,
      to,
      curve:
        curve.kind === "line"
          ? curve
          : {
              ...curve,
              centre: flip(curve.centre),
              major: flip(curve.major),
              // A turn changes its sense in a mirror; the normal says which way it runs.
              normal: scale(flip(curve.normal), -1),
            },
    })),
    faces: faces.map(({ surface, loops }) => ({
      surface:
        surface.kind === "plane"
          ? { ...surface, on: flip(surface.on), normal: flip(surface.normal) }
          : { ...surface, on: flip(surface.on), axis: flip(surface.axis) },
      loops: loops.map((loop) => loop.toReversed().map(({ edge, ahead }) => ({ edge, ahead: !ahead }))),
    })),
    isFaceted,
  };
}

/** The middle of an edge, where its curve says. */
export function middleOfEdge({ points }: Brep, { from, to, curve }: BrepEdge): Vec3 {
  const [a, b] = [at(points, from), at(points, to)];
  if (curve.kind === "line") return scale(add(a, b), 0.5);
  const minor = cross(curve.normal, curve.major);
  const angle = (p: Vec3) => {
    const away = subtract(p, curve.centre);
    return Math.atan2(dot(away, minor) / curve.short, dot(away, curve.major) / curve.long);
  };
  const turn = 2 * Math.PI;
  const [start, end] = curve.ahead ? [angle(a), angle(b)] : [angle(b), angle(a)];
  const sweep = (((end - start) % turn) + turn) % turn || turn;
  const middle = start + sweep / 2;
  return add(
    curve.centre,
    add(scale(curve.major, curve.long * Math.cos(middle)), scale(minor, curve.short * Math.sin(middle))),
  );
}
