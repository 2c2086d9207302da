/** A solid as it was read: triangles welded at their corners, and the surfaces that they lie on. */
import { dot, norm, subtract, type Vec3, type Welded, welded } from "../geometry";
import { at, grouped } from "../kernel";
import { type Facet, facetOf, type Surface, surfaceOf } from "./surface";

/** Triangles as a reader of files gives them. */
export type SolidMesh = {
  /** Three numbers a corner, in mm. */
  readonly positions: ArrayLike<number>;
  /** Three corners a triangle, anticlockwise seen from outside. */
  readonly corners: ArrayLike<number>;
  /** The triangles of each face of the file: from the first to one past the last. */
  readonly faces: readonly (readonly [number, number])[];
};

export type Triangle = {
  readonly corners: readonly [number, number, number];
  /** Into `surfaces`. */
  readonly surface: number;
};

export type BodySurface = {
  readonly surface: Surface;
  readonly area: number;
  readonly triangles: readonly number[];
};

/** A run of edges that have no face on the other side. */
export type Gap = {
  readonly edges: number;
  readonly length: number;
  readonly middle: Vec3;
  /** The corners along it. */
  readonly rim: readonly Vec3[];
};

export type Body = {
  readonly points: readonly Vec3[];
  readonly triangles: readonly Triangle[];
  /** Faces on one surface are one, wherever they lie. */
  readonly surfaces: readonly BodySurface[];
  readonly volume: number;
  readonly low: Vec3;
  readonly high: Vec3;
  /** Where it is open; none: it is a solid. */
  readonly gaps: readonly Gap[];
  /** Its faces were turned inside out. */
  readonly wasInverted: boolean;
};

/** mm. Corners nearer than this are one. */
const WELD = 1e-4;
/** mm, and sines: surfaces nearer than this are one. */
const SAME_MM = 2e-3;
const SAME_WAY = 1e-5;

export function bodyOf(mesh: SolidMesh): Body {
  const { points, indices } = cornersOf(mesh.positions);
  const faceOf = new Int32Array(mesh.corners.length / 3);
  for (const [face, [from, to]] of mesh.faces.entries()) faceOf.fill(face, from, to);
  const found: { corners: readonly [number, number, number]; face: number; facet: Facet }[] = [];
  for (let t = 0; t < faceOf.length; t++) {
    const corner = (k: number) => indices[mesh.corners[3 * t + k] ?? 0] ?? 0;
    const [a, b, c] = [corner(0), corner(1), corner(2)];
    // Poles and tips come as triangles without area.
    if (a === b || b === c || a === c) continue;
    found.push({
      corners: [a, b, c],
      face: faceOf[t] ?? 0,
      facet: facetOf(at(points, a), at(points, b), at(points, c)),
    });
  }
  const volume = found.reduce((sum, { facet }) => sum + dot(facet.area, facet.corners[0]) / 3, 0);
  const wasInverted = volume < 0;
  const outward = wasInverted
    ? found.map(({ corners: [a, b, c], face, facet }) => ({
        corners: [a, c, b] as const,
        face,
        facet: facetOf(facet.corners[0], facet.corners[2], facet.corners[1]),
      }))
    : found;
  const byFace = grouped(outward.keys(), (i) => at(outward, i).face);
  const surfaces: { surface: Surface; area: number; triangles: number[] }[] = [];
  const surfaceOfTriangle = new Int32Array(outward.length);
  for (const triangles of byFace.values()) {
    const facets = triangles.map((i) => at(outward, i).facet);
    const places = [...new Set(triangles.flatMap((i) => at(outward, i).corners))].map((i) => at(points, i));
    const surface = surfaceOf(facets, places);
    const area = facets.reduce((sum, facet) => sum + norm(facet.area), 0);
    const middle = at(places, 0);
    let index = surfaces.findIndex((other) => isSame(surface, other.surface, middle));
    if (index < 0) index = surfaces.push({ surface, area: 0, triangles: [] }) - 1;
    const known = at(surfaces, index);
    known.area += area;
    known.triangles.push(...triangles);
    for (const i of triangles) surfaceOfTriangle[i] = index;
  }
  const triangles = outward.map(
    ({ corners }, i): Triangle => ({ corners, surface: surfaceOfTriangle[i] ?? 0 }),
  );
  const side = (k: 0 | 1 | 2, pick: (a: number, b: number) => number, from: number) =>
    points.reduce((far, point) => pick(far, point[k]), from);
  const low = ([0, 1, 2] as const).map((k) => side(k, Math.min, Number.POSITIVE_INFINITY));
  const high = ([0, 1, 2] as const).map((k) => side(k, Math.max, Number.NEGATIVE_INFINITY));
  return {
    points,
    triangles,
    surfaces,
    volume: Math.abs(volume),
    low: low as unknown as Vec3,
    high: high as unknown as Vec3,
    gaps: gapsIn(triangles, points),
    wasInverted,
  };
}

/** Corners of a mesh, those within a tenth of a micron as one, and which each is. */
export const cornersOf = (positions: ArrayLike<number>): Welded =>
  welded(
    positions.length / 3,
    (i) => [positions[3 * i] ?? 0, positions[3 * i + 1] ?? 0, positions[3 * i + 2] ?? 0],
    WELD,
  );

/** Whether two surfaces are one; `on` is a point of the first. */
function isSame(a: Surface, b: Surface, on: Vec3): boolean {
  if (a.kind === "plane" && b.kind === "plane")
    return norm(subtract(a.normal, b.normal)) < SAME_WAY && Math.abs(dot(b.normal, on) - b.offset) < SAME_MM;
  if (a.kind !== "cylinder" || b.kind !== "cylinder") return false;
  if (a.isHollow !== b.isHollow || Math.abs(a.radius - b.radius) > SAME_MM) return false;
  if (Math.abs(dot(a.axis, b.axis)) < 1 - SAME_WAY) return false;
  const between = subtract(a.centre, b.centre);
  const along = dot(between, b.axis);
  return Math.sqrt(Math.max(0, dot(between, between) - along * along)) < SAME_MM;
}

/** Edges that no triangle runs along the other way. */
export function openEdges(
  triangles: readonly Pick<Triangle, "corners">[],
): readonly (readonly [number, number])[] {
  const open = new Map<number, readonly [number, number]>();
  for (const { corners } of triangles)
    for (let k = 0; k < 3; k++) {
      const [a, b] = [at(corners, k), at(corners, (k + 1) % 3)];
      if (!open.delete(pairKey(b, a))) open.set(pairKey(a, b), [a, b]);
    }
  return [...open.values()];
}

/** One number for two corners in their order: there are fewer than 2^26 of them. */
export const pairKey = (a: number, b: number): number => a * 2 ** 26 + b;

function gapsIn(triangles: readonly Triangle[], points: readonly Vec3[]): readonly Gap[] {
  const open = new Map(openEdges(triangles).map((edge) => [pairKey(...edge), edge]));
  const after = grouped(open.values(), ([from]) => from);
  const gaps: Gap[] = [];
  for (const [key, first] of open) {
    if (!open.has(key)) continue;
    const run: (readonly [number, number])[] = [];
    for (let edge: readonly [number, number] | undefined = first; edge; ) {
      run.push(edge);
      open.delete(pairKey(...edge));
      edge = after.get(edge[1])?.find(([a, b]) => open.has(pairKey(a, b)));
    }
    const places = run.map(([a]) => at(points, a));
    gaps.push({
      edges: run.length,
      rim: places,
      length: run.reduce((sum, [a, b]) => sum + norm(subtract(at(points, b), at(points, a))), 0),
      middle: places.reduce<Vec3>(
        (sum, place) => [
          sum[0] + place[0] / run.length,
          sum[1] + place[1] / run.length,
          sum[2] + place[2] / run.length,
        ],
        [0, 0, 0],
      ),
    });
  }
  return gaps;
}
