/** What a picture shows of solids: vertices, triangles and the edges that are drawn. */
import { at } from "../kernel";
import { type Frame, type Pose, toLocal, toWorld } from "./frame";
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
