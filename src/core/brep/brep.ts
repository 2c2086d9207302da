/**
 * Solids by their borders, exact: faces on planes and cylinders, edges on lines, circles and ellipses, and where cylinders cross on
 * splines. A piece of a bar between planes or coped, a panel with its outline, holes and blind holes are said so; what else there is comes as flat facets.
 */
import { add, cross, direction, dot, type Mesh, norm, scale, subtract, type Vec3, welded } from "../geometry";
import { at } from "../kernel";
import { type BrepSpline, onSpline } from "./spline";

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
    }
  | BrepSpline;

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

/** mm. Corners nearer than this are one. */
const SAME = 1e-5;

/** A closed mesh as flat faces, one a triangle; null: it is not closed. */
export function facetedBrep({ vertices, triangles }: Mesh): Brep | null {
  const { points, indices } = welded(vertices.length, (i) => at(vertices, i), SAME);
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
      curve: mirroredCurve(curve, flip),
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

function mirroredCurve(curve: BrepCurve, flip: (place: Vec3) => Vec3): BrepCurve {
  switch (curve.kind) {
    case "line":
      return curve;
    case "spline":
      return { ...curve, poles: curve.poles.map(flip) };
    case "ellipse":
      return {
        ...curve,
        centre: flip(curve.centre),
        major: flip(curve.major),
        // A turn changes its sense in a mirror; the normal says which way it runs.
        normal: scale(flip(curve.normal), -1),
      };
    default:
      return curve satisfies never;
  }
}

/** The middle of an edge, where its curve says. */
export function middleOfEdge({ points }: Brep, { from, to, curve }: BrepEdge): Vec3 {
  const [a, b] = [at(points, from), at(points, to)];
  if (curve.kind === "line") return scale(add(a, b), 0.5);
  if (curve.kind === "spline") return onSpline(curve, curve.pieces / 2);
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
