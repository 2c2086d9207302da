/**
 * The vertices of the 3D picture: all pieces in one set of arrays, faces and edges over the same vertices. A piece
 * whose mesh is another one of the same size is written in its place, so that an edit writes what it changed.
 */
import type { FlatMesh, Vec3 } from "@/core/geometry";
import { at } from "@/core/kernel";

/** Where a piece stands in the arrays: its vertices and its triangles, each from the first to before the last. */
export type PieceRange = {
  readonly mesh: FlatMesh;
  readonly vertices: readonly [number, number];
  readonly triangles: readonly [number, number];
};

export type ModelBuffers = {
  readonly ranges: readonly PieceRange[];
  /** Three numbers a vertex. */
  readonly positions: Float32Array;
  /** Three vertices a triangle, two an edge. */
  readonly triangles: Uint32Array;
  readonly edges: Uint32Array;
};

/** The arrays of pieces, in the order of `meshes`; those that stood first in arrays of `before`, and do so again, are copied as they are. */
export function newBuffers(meshes: readonly FlatMesh[], before: ModelBuffers | null = null): ModelBuffers {
  const count = (size: (mesh: FlatMesh) => number) => meshes.reduce((sum, mesh) => sum + size(mesh), 0);
  const positions = new Float32Array(count(({ places }) => places.length));
  const triangles = new Uint32Array(count((mesh) => mesh.triangles.length));
  const edges = new Uint32Array(count((mesh) => mesh.edges.length));
  const ranges: PieceRange[] = [];
  let [vertex, corner, end] = [0, 0, 0];
  for (const [i, range] of (before?.ranges ?? []).entries()) {
    if (range.mesh !== meshes[i]) break;
    ranges.push(range);
    [vertex, corner, end] = [range.vertices[1], 3 * range.triangles[1], end + range.mesh.edges.length];
  }
  if (before) {
    positions.set(before.positions.subarray(0, 3 * vertex));
    triangles.set(before.triangles.subarray(0, corner));
    edges.set(before.edges.subarray(0, end));
  }
  for (const mesh of meshes.slice(ranges.length)) {
    const first = vertex;
    const from = corner / 3;
    writePlaces(positions, mesh, first);
    vertex += mesh.places.length / 3;
    // Plain loops: hundreds of thousands of corners are written whenever a job opens.
    for (let i = 0; i < mesh.triangles.length; i++) triangles[corner++] = first + at(mesh.triangles, i);
    for (let i = 0; i < mesh.edges.length; i++) edges[end++] = first + at(mesh.edges, i);
    ranges.push({ mesh, vertices: [first, vertex], triangles: [from, corner / 3] });
  }
  return { ranges, positions, triangles, edges };
}

export type Written = {
  readonly buffers: ModelBuffers;
  /** Runs of vertices that were written, each from the first to before the last, none touching another. */
  readonly runs: readonly (readonly [number, number])[];
};

/**
 * Writes other meshes over those of before, in the same arrays; null where one of them has not the vertices, triangles
 * and edges of the one that it takes the place of, so that the arrays must be made anew.
 */
export function rewritten(before: ModelBuffers, meshes: readonly FlatMesh[]): Written | null {
  const { ranges, positions } = before;
  if (meshes.length !== ranges.length) return null;
  if (!meshes.every((mesh, i) => sameBuild(at(ranges, i).mesh, mesh))) return null;
  const runs: [number, number][] = [];
  const after = ranges.map((range, i) => {
    const mesh = at(meshes, i);
    if (mesh === range.mesh) return range;
    const [from, to] = range.vertices;
    writePlaces(positions, mesh, from);
    const last = runs.at(-1);
    if (last && last[1] === from) last[1] = to;
    else runs.push([from, to]);
    return { ...range, mesh };
  });
  return { buffers: { ...before, ranges: after }, runs };
}

function sameBuild(a: FlatMesh, b: FlatMesh): boolean {
  if (a === b) return true;
  return a.places.length === b.places.length && same(a.triangles, b.triangles) && same(a.edges, b.edges);
}

function same(a: readonly number[], b: readonly number[]): boolean {
  if (a === b) return true;
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
}

function writePlaces(positions: Float32Array, { places }: FlatMesh, first: number): void {
  positions.set(places, 3 * first);
}

/** The middle of a mesh's vertices, where its tag stands; the origin where it has none. */
export function middleOf({ places }: FlatMesh): Vec3 {
  const sum: [number, number, number] = [0, 0, 0];
  for (let i = 0; i < places.length; i += 3) {
    sum[0] += at(places, i);
    sum[1] += at(places, i + 1);
    sum[2] += at(places, i + 2);
  }
  const count = Math.max(1, places.length / 3);
  return [sum[0] / count, sum[1] / count, sum[2] / count];
}

/** The piece that a triangle belongs to, by its number among `ranges`; found by halving. */
export function rangeOfTriangle(ranges: readonly PieceRange[], triangle: number): number | null {
  let [low, high] = [0, ranges.length - 1];
  while (low <= high) {
    const middle = (low + high) >> 1;
    const [from, to] = at(ranges, middle).triangles;
    if (triangle < from) high = middle - 1;
    else if (triangle >= to) low = middle + 1;
    else return middle;
  }
  return null;
}
