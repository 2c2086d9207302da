/**
 * Solids as drawings and pictures need them: flat faces and lines with the names of what they belong to, so that what is
 * drawn can be told again after an edit. Never used for a size, an area or a mass.
 *
 * A solid is a soup: faces need not share corners, and a line knows the normals of both faces that meet in it, so that
 * nobody has to find them.
 */
import { at, remembersEach } from "../kernel";
import type { Mesh } from "./mesh";
import type { LineKind } from "./ring";
import { cross, norm, scale, subtract, type Vec2, type Vec3 } from "./vector";

/** A flat face with its corners anticlockwise seen from outside: convex, or a triangle of one that is not. */
export type SolidFace = {
  /** Indices into `points`. */
  readonly corners: readonly number[];
  /** Index into `normals`. */
  readonly normal: number;
  readonly name: string;
};

export type SolidLine = {
  /** Indices into `points`. */
  readonly from: number;
  readonly to: number;
  /** Indices into `normals`: those of the two faces that meet here. */
  readonly normals: readonly [number, number];
  readonly kind: LineKind;
  /** The curve of which it is a chord, as an index into `curves`, and the angles on it at which it begins and ends. */
  readonly curve: { readonly of: number; readonly from: number; readonly to: number } | null;
  readonly name: string;
};

/** An ellipse: centre + u cos φ + v sin φ. */
export type Ellipse = { readonly centre: Vec3; readonly u: Vec3; readonly v: Vec3 };

export type Solid = {
  readonly points: readonly Vec3[];
  /** Outward, of length 1. */
  readonly normals: readonly Vec3[];
  readonly faces: readonly SolidFace[];
  readonly lines: readonly SolidLine[];
  readonly curves: readonly Ellipse[];
};

/** Faces and lines, which solids of one build share. */
export type Build = Pick<Solid, "faces" | "lines">;

type Drawn = Pick<Mesh, "triangles" | "edges">;
const drawnBuilds = remembersEach<Build["faces"], Drawn>();

/** What a picture shows of a build: its faces as triangles, and the lines that are always seen. The same lists for all that share it. */
export const drawnBuild = ({ faces, lines }: Build): Drawn =>
  drawnBuilds(faces, [lines], () => ({
    triangles: faces.flatMap(({ corners }) =>
      corners.slice(2).flatMap((corner, i) => [at(corners, 0), at(corners, i + 1), corner]),
    ),
    edges: lines.flatMap(({ from, to, kind }) => (kind === "smooth" ? [] : [from, to])),
  }));

/** A solid as a picture shows it. */
export const solidMesh = (solid: Solid): Mesh => ({ vertices: solid.points, ...drawnBuild(solid) });

/** The normal of a face by its first three corners. */
export function normalOf(points: readonly Vec3[], corners: readonly number[]): Vec3 {
  const [a, b, c] = [0, 1, 2].map((i) => at(points, at(corners, i))) as [Vec3, Vec3, Vec3];
  const across = cross(subtract(b, a), subtract(c, a));
  const size = norm(across);
  return size === 0 ? [0, 0, 1] : scale(across, 1 / size);
}

/** The name of a line by those of the two faces that meet in it, the same from whichever it is seen. */
export const lineName = (a: string, b: string): string => (a < b ? `${a} / ${b}` : `${b} / ${a}`);

/** The angle at which a curve lies beyond a place of its chord, so far along it from its beginning (0) to its end (1). */
export function angleOnChord(curve: NonNullable<SolidLine["curve"]>, share: number): number {
  const turn = curve.to - curve.from;
  return curve.from + Math.atan2(share * Math.sin(turn), 1 - share + share * Math.cos(turn));
}

/** The angles on a circle at which a chord of less than half a turn begins and ends, the second counted on from the first. */
export function chordAngles(
  centre: Vec2,
  from: Vec2,
  to: Vec2,
): { readonly from: number; readonly to: number } {
  const angle = ([x, y]: Vec2) => Math.atan2(y - centre[1], x - centre[0]);
  const [first, last] = [angle(from), angle(to)];
  return { from: first, to: first + Math.atan2(Math.sin(last - first), Math.cos(last - first)) };
}
