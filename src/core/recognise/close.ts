/**
 * Faces of an open solid joined where their rims lie within a gap of one another. Corners of rims that lie near one another
 * become one, where the flat faces that meet there cut one another; a corner that lies on the rim of another face parts
 * that rim; faces that look the other way than those beside them are turned. Nothing is added: what is missing stays missing, and is told by reading what comes out.
 */
import { add, cross, direction, distance, dot, norm, scale, subtract, type Vec3 } from "../geometry";
import { at, grouped } from "../kernel";
import { cornersOf, openEdges, type SolidMesh } from "./body";
import { facetOf, surfaceOf } from "./surface";

export type Closing = {
  readonly mesh: SolidMesh;
  /** mm. How far a corner was moved at the most. */
  readonly moved: number;
};

type Plane = { readonly normal: Vec3; readonly offset: number };
type Corner3 = readonly [number, number, number];
type FaceTriangle = { readonly corners: Corner3; readonly face: number };

/** Sines: planes whose normals lie nearer to those before them say nothing new about where a corner is. */
const LEAST_TURN = 0.05;
/** So many gaps from the middle of its rims at most a corner is sought where its faces cut one another. */
const MOST_REACH = 4;
/** A rim is parted by corners that lie on it, and its parts may be parted again. */
const MOST_ROUNDS = 4;

/** `gap`: mm. The mesh with its rims joined; its faces stay as they are numbered. */
export function closing(mesh: SolidMesh, gap: number): Closing {
  const { points, indices } = cornersOf(mesh.positions);
  const triangles = mesh.faces.flatMap(([from, to], face) =>
    Array.from({ length: to - from }, (_, i): FaceTriangle => {
      const corner = (k: number) => indices[mesh.corners[3 * (from + i) + k] ?? 0] ?? 0;
      return { corners: [corner(0), corner(1), corner(2)], face };
    }).filter(isWhole),
  );
  const open = openEdges(triangles);
  const rims = [...new Set(open.flat())];
  const clusters = clustersOf(rims, points, triangles, gap);
  const planes = planesOfFaces(triangles, points);
  const facesAt = new Map<number, Set<number>>();
  const note = (corner: number, face: number) => {
    const known = facesAt.get(corner) ?? new Set();
    known.add(face);
    facesAt.set(corner, known);
  };
  for (const { corners, face } of triangles)
    for (const corner of corners) note(clusters.get(corner)?.[0] ?? corner, face);
  // A corner on the rim of another face lies on that face as well.
  const faceOfEdge = new Map(
    triangles.flatMap(({ corners, face }) =>
      corners.map((corner, k) => [`${corner},${at(corners, (k + 1) % 3)}`, face] as const),
    ),
  );
  for (const [a, b] of open)
    for (const corner of cornersOn(at(points, a), at(points, b), rims, points, gap)) {
      const face = faceOfEdge.get(`${a},${b}`);
      if (face !== undefined) note(clusters.get(corner)?.[0] ?? corner, face);
    }
  const placed = [...points];
  let moved = 0;
  for (const [corner, members] of clusters) {
    if (members[0] !== corner) continue;
    const places = members.map((one) => at(points, one));
    const middle = scale(
      places.reduce<Vec3>((sum, place) => add(sum, place), [0, 0, 0]),
      1 / places.length,
    );
    const meeting = [...(facesAt.get(corner) ?? [])].flatMap((face) => planes.get(face) ?? []);
    const met = whereTheyMeet(middle, meeting);
    const place = distance(met, middle) <= MOST_REACH * gap ? met : middle;
    placed[corner] = place;
    for (const one of places) moved = Math.max(moved, distance(one, place));
  }
  const joined = triangles
    .map(({ corners, face }): FaceTriangle => {
      const [a, b, c] = corners.map((corner) => clusters.get(corner)?.[0] ?? corner) as unknown as Corner3;
      return { corners: [a, b, c], face };
    })
    .filter(isWhole);
  let parted: readonly FaceTriangle[] = joined;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const next = partedOnce(parted, placed, gap);
    if (next === null) break;
    parted = next;
  }
  return { mesh: meshOf(oriented(parted), placed, mesh.faces.length), moved };
}

const isWhole = ({ corners: [a, b, c] }: FaceTriangle) => a !== b && b !== c && a !== c;

/**
 * Corners of rims that become one, each with all of them, its first one first. The nearest pair first; corners that one edge
 * joins never become one, or narrow faces would be lost.
 */
function clustersOf(
  rims: readonly number[],
  points: readonly Vec3[],
  triangles: readonly FaceTriangle[],
  gap: number,
): ReadonlyMap<number, readonly number[]> {
  const beside = new Map<number, Set<number>>();
  for (const { corners } of triangles)
    for (const a of corners) {
      const known = beside.get(a) ?? new Set();
      for (const b of corners) if (b !== a) known.add(b);
      beside.set(a, known);
    }
  const clusters = new Map<number, readonly number[]>(rims.map((corner) => [corner, [corner]]));
  for (const [a, b] of nearPairs(rims, points, gap)) {
    const [first, second] = [clusters.get(a) ?? [a], clusters.get(b) ?? [b]];
    if (first === second) continue;
    if (first.some((one) => second.some((other) => beside.get(one)?.has(other)))) continue;
    const both = [...first, ...second].toSorted((one, other) => one - other);
    for (const one of both) clusters.set(one, both);
  }
  return clusters;
}

/** Pairs no farther apart than `gap`, the nearest first. */
function nearPairs(
  corners: readonly number[],
  points: readonly Vec3[],
  gap: number,
): readonly (readonly [number, number])[] {
  const cellOf = (corner: number, k: 0 | 1 | 2) => Math.floor(at(points, corner)[k] / gap);
  const cells = grouped(corners, (corner) => [0, 1, 2].map((k) => cellOf(corner, k as 0 | 1 | 2)).join());
  const pairs: (readonly [number, number, number])[] = [];
  for (const a of corners)
    for (let i = 0; i < 27; i++) {
      const steps = [(i % 3) - 1, (Math.floor(i / 3) % 3) - 1, Math.floor(i / 9) - 1];
      const key = steps.map((step, k) => cellOf(a, k as 0 | 1 | 2) + step).join();
      for (const b of cells.get(key) ?? []) {
        const apart = distance(at(points, a), at(points, b));
        if (b > a && apart <= gap) pairs.push([a, b, apart]);
      }
    }
  return pairs.sort((one, other) => one[2] - other[2]).map(([a, b]) => [a, b]);
}

/** The planes of flat faces. */
function planesOfFaces(
  triangles: readonly FaceTriangle[],
  points: readonly Vec3[],
): ReadonlyMap<number, Plane> {
  const planes = new Map<number, Plane>();
  for (const [face, own] of grouped(triangles, (one) => one.face)) {
    const facets = own.map(({ corners: [a, b, c] }) => facetOf(at(points, a), at(points, b), at(points, c)));
    const places = [...new Set(own.flatMap(({ corners }) => corners))].map((corner) => at(points, corner));
    const surface = surfaceOf(facets, places);
    if (surface.kind === "plane") planes.set(face, surface);
  }
  return planes;
}

/** The place nearest to another where up to three planes meet: on each in turn, along what those before leave free. */
function whereTheyMeet(from: Vec3, planes: readonly Plane[]): Vec3 {
  const taken: Vec3[] = [];
  let place = from;
  for (const { normal, offset } of planes) {
    const free = taken.reduce<Vec3>((rest, one) => subtract(rest, scale(one, dot(rest, one))), normal);
    const way = direction(free);
    if (!way || norm(free) < LEAST_TURN) continue;
    place = add(place, scale(way, (offset - dot(normal, place)) / dot(normal, way)));
    taken.push(way);
    if (taken.length === 3) break;
  }
  return place;
}

/** Each triangle whose rim runs past corners of other rims, parted at them; null: there is none. */
function partedOnce(
  triangles: readonly FaceTriangle[],
  points: readonly Vec3[],
  gap: number,
): readonly FaceTriangle[] | null {
  const open = openEdges(triangles);
  const rims = [...new Set(open.flat())];
  const isOpen = new Set(open.map(([a, b]) => `${a},${b}`));
  let isAny = false;
  const next = triangles.flatMap((triangle): readonly FaceTriangle[] => {
    const { corners, face } = triangle;
    for (let k = 0; k < 3; k++) {
      const [a, b, c] = [at(corners, k), at(corners, (k + 1) % 3), at(corners, (k + 2) % 3)];
      if (!isOpen.has(`${a},${b}`)) continue;
      const on = cornersOn(at(points, a), at(points, b), rims, points, gap).filter(
        (corner) => corner !== a && corner !== b && corner !== c,
      );
      if (on.length === 0) continue;
      isAny = true;
      const along = [a, ...on, b];
      return along.slice(1).map((to, i) => ({ corners: [at(along, i), to, c] as const, face }));
    }
    return [triangle];
  });
  return isAny ? next : null;
}

/** Corners that lie on an edge and not at its ends, in order along it. */
function cornersOn(
  from: Vec3,
  to: Vec3,
  corners: readonly number[],
  points: readonly Vec3[],
  gap: number,
): readonly number[] {
  const way = subtract(to, from);
  const size = norm(way);
  if (size <= gap) return [];
  const along = scale(way, 1 / size);
  return corners
    .flatMap((corner) => {
      const offset = subtract(at(points, corner), from);
      const t = dot(offset, along);
      const isOn = t > 0 && t < size && norm(cross(offset, along)) <= gap;
      return isOn ? [{ corner, t }] : [];
    })
    .sort((a, b) => a.t - b.t)
    .map(({ corner }) => corner);
}

/** Triangles turned over where they lie against their neighbours: surfaces without a solid have no outside. */
function oriented(triangles: readonly FaceTriangle[]): readonly FaceTriangle[] {
  const edgesOf = ({ corners: [a, b, c] }: FaceTriangle) =>
    [
      [a, b],
      [b, c],
      [c, a],
    ] as const;
  const keyOf = ([a, b]: readonly [number, number]) => (a < b ? `${a},${b}` : `${b},${a}`);
  const byEdge = grouped(
    triangles.flatMap((triangle, i) => edgesOf(triangle).map((edge) => ({ i, edge }))),
    ({ edge }) => keyOf(edge),
  );
  const isTurned: (boolean | undefined)[] = triangles.map(() => undefined);
  for (const first of triangles.keys()) {
    if (isTurned[first] !== undefined) continue;
    isTurned[first] = false;
    const waiting = [first];
    for (let i = waiting.pop(); i !== undefined; i = waiting.pop())
      for (const edge of edgesOf(at(triangles, i))) {
        const both = byEdge.get(keyOf(edge)) ?? [];
        const other = both.length === 2 ? both.find((one) => one.i !== i) : undefined;
        if (!other || isTurned[other.i] !== undefined) continue;
        // Neighbours run along their edge in opposite ways.
        const isAgainst = other.edge[0] === edge[0];
        isTurned[other.i] = isAgainst !== isTurned[i];
        waiting.push(other.i);
      }
  }
  return triangles.map((triangle, i) => {
    const [a, b, c] = triangle.corners;
    return isTurned[i] ? { ...triangle, corners: [a, c, b] } : triangle;
  });
}

function meshOf(triangles: readonly FaceTriangle[], points: readonly Vec3[], faces: number): SolidMesh {
  const byFace = grouped(triangles, ({ face }) => face);
  const corners: number[] = [];
  const ranges = Array.from({ length: faces }, (_, face) => {
    const from = corners.length / 3;
    for (const one of byFace.get(face) ?? []) corners.push(...one.corners);
    return [from, corners.length / 3] as const;
  });
  return { positions: points.flat(), corners, faces: ranges };
}
