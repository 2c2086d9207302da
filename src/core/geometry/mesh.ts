/**
 * Solids for the picture: vertices, triangles and the edges that are drawn. Built in closed form near
 * the piece's own origin, then placed. Never used for a size, an area or a mass.
 */
import { at } from "../kernel";
import { type Frame, type Pose, toLocal, toWorld } from "./frame";
import { ringPoints } from "./outline";
import type { Vec3 } from "./vector";

export type Mesh = {
  readonly vertices: readonly Vec3[];
  /** Indices into `vertices`, three a triangle, counter-clockwise seen from outside. */
  readonly triangles: readonly number[];
  /** Indices into `vertices`, two an edge. */
  readonly edges: readonly number[];
};

export function placeMesh(mesh: Mesh, frame: Frame): Mesh {
  return { ...mesh, vertices: mesh.vertices.map((vertex) => toWorld(frame, vertex)) };
}

/** Corners of a drawn ring: fine enough that no corner is seen at the size of a screen. */
const RING_CORNERS = 24;

/** A mesh with level circles drawn on it. */
export function withRings(
  mesh: Mesh,
  rings: readonly { readonly centre: Vec3; readonly radius: number }[],
): Mesh {
  if (rings.length === 0) return mesh;
  const vertices = [...mesh.vertices];
  const edges = [...mesh.edges];
  for (const { centre, radius } of rings) {
    const first = vertices.length;
    ringPoints({ centre: [centre[0], centre[1]], radius }, RING_CORNERS).forEach(([x, y], i) => {
      vertices.push([x, y, centre[2]]);
      edges.push(first + i, first + ((i + 1) % RING_CORNERS));
    });
  }
  return { ...mesh, vertices, edges };
}

/** A mesh where an assembly stands; mirrored, its triangles run the other way round. */
export function poseMesh(mesh: Mesh, { frame, mirrored }: Pose): Mesh {
  const placed = placeMesh(mesh, frame);
  return mirrored ? insideOut(placed) : placed;
}

/** The inverse of `poseMesh`: a mesh of the job as it is seen from an assembly. */
export function unposeMesh(mesh: Mesh, { frame, mirrored }: Pose): Mesh {
  const vertices = mesh.vertices.map((vertex) => toLocal(frame, vertex));
  return mirrored ? insideOut({ ...mesh, vertices }) : { ...mesh, vertices };
}

/** The same mesh with its triangles run the other way round, as a mirror needs it. */
function insideOut(mesh: Mesh): Mesh {
  const triangles = mesh.triangles.map((_, i) => at(mesh.triangles, i - (i % 3) + 2 - (i % 3)));
  return { ...mesh, triangles };
}

/** A box-shaped cut into a block, in the block's own coordinates. */
export type BoxCut = { readonly from: Vec3; readonly to: Vec3 };

/**
 * A block from (0,0,0) to `size` with box-shaped cuts taken out: the cells between all cut planes are
 * either full or empty, and the faces between the two are the surface.
 */
export function blockMesh(size: Vec3, cuts: readonly BoxCut[]): Mesh {
  if (cuts.length > 0) return cutBlock(size, cuts);
  plainBlock ??= cutBlock([1, 1, 1], []);
  // Most boards are whole: all of them share the corners' numbers.
  return {
    ...plainBlock,
    vertices: plainBlock.vertices.map(([x, y, z]) => [x * size[0], y * size[1], z * size[2]]),
  };
}

let plainBlock: Mesh | null = null;

function cutBlock(size: Vec3, cuts: readonly BoxCut[]): Mesh {
  const axes = ([0, 1, 2] as const).map((axis) => planesOf(size, cuts, axis));
  const [xs, ys, zs] = [at(axes, 0), at(axes, 1), at(axes, 2)];
  const full = (i: number, j: number, k: number): boolean => {
    if (i < 0 || j < 0 || k < 0 || i >= xs.length - 1 || j >= ys.length - 1 || k >= zs.length - 1)
      return false;
    const middle: Vec3 = [between(xs, i), between(ys, j), between(zs, k)];
    return !cuts.some((cut) =>
      ([0, 1, 2] as const).every((d) => middle[d] > cut.from[d] && middle[d] < cut.to[d]),
    );
  };
  const surface = new SurfaceBuilder();
  for (let i = 0; i < xs.length - 1; i++) {
    for (let j = 0; j < ys.length - 1; j++) {
      for (let k = 0; k < zs.length - 1; k++) {
        if (!full(i, j, k)) continue;
        const low: Vec3 = [at(xs, i), at(ys, j), at(zs, k)];
        const high: Vec3 = [at(xs, i + 1), at(ys, j + 1), at(zs, k + 1)];
        for (const [axis, side] of SIDES) {
          const step: [number, number, number] = [i, j, k];
          step[axis] += side;
          if (!full(step[0], step[1], step[2])) surface.face(low, high, axis, side);
        }
      }
    }
  }
  return surface.mesh();
}

const SIDES = [
  [0, 1],
  [0, -1],
  [1, 1],
  [1, -1],
  [2, 1],
  [2, -1],
] as const;

const between = (planes: readonly number[], i: number) => (at(planes, i) + at(planes, i + 1)) / 2;

function planesOf(size: Vec3, cuts: readonly BoxCut[], axis: 0 | 1 | 2): readonly number[] {
  const all = [0, size[axis], ...cuts.flatMap((cut) => [cut.from[axis], cut.to[axis]])]
    .map((value) => Math.min(Math.max(value, 0), size[axis]))
    .sort((a, b) => a - b);
  return all.filter((value, i) => i === 0 || value - at(all, i - 1) > 1e-6);
}

/** Gathers square faces; an edge between two coplanar faces is not drawn. */
class SurfaceBuilder {
  private readonly vertices: Vec3[] = [];
  private readonly indexOf = new Map<string, number>();
  private readonly triangles: number[] = [];
  private readonly normalsOfEdge = new Map<string, number[]>();

  private vertex(point: Vec3): number {
    const key = point.join(",");
    const known = this.indexOf.get(key);
    if (known !== undefined) return known;
    this.vertices.push(point);
    this.indexOf.set(key, this.vertices.length - 1);
    return this.vertices.length - 1;
  }

  face(low: Vec3, high: Vec3, axis: 0 | 1 | 2, side: 1 | -1): void {
    const u = ((axis + 1) % 3) as 0 | 1 | 2;
    const v = ((axis + 2) % 3) as 0 | 1 | 2;
    const level = side > 0 ? high[axis] : low[axis];
    const corner = (cu: number, cv: number): number => {
      const point: [number, number, number] = [0, 0, 0];
      point[axis] = level;
      point[u] = cu;
      point[v] = cv;
      return this.vertex(point);
    };
    const ring = [
      corner(low[u], low[v]),
      corner(high[u], low[v]),
      corner(high[u], high[v]),
      corner(low[u], high[v]),
    ];
    if (side < 0) ring.reverse();
    const [a, b, c, d] = [at(ring, 0), at(ring, 1), at(ring, 2), at(ring, 3)];
    this.triangles.push(a, b, c, a, c, d);
    ring.forEach((from, i) => {
      const to = at(ring, (i + 1) % 4);
      const key = from < to ? `${from}|${to}` : `${to}|${from}`;
      this.normalsOfEdge.set(key, [...(this.normalsOfEdge.get(key) ?? []), axis * 2 + (side > 0 ? 1 : 0)]);
    });
  }

  mesh(): Mesh {
    const edges: number[] = [];
    for (const [key, normals] of this.normalsOfEdge) {
      if (normals.length === 2 && normals[0] === normals[1]) continue;
      const [from, to] = key.split("|").map(Number);
      edges.push(from ?? 0, to ?? 0);
    }
    return { vertices: this.vertices, triangles: this.triangles, edges };
  }
}
