/** What a picture shows of solids: vertices, triangles and the edges that are drawn. */
import { at } from "../kernel";
import { AT_HOME, type Frame, type Pose, toLocal, toWorld } from "./frame";
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

/**
 * A mesh where it stands, as a picture holds tens of thousands: its vertices are one list of numbers, three each. Lists
 * of three would be hundreds of thousands of objects, which a page with 20,000 pieces is long busy to clear away.
 */
export type FlatMesh = Pick<Mesh, "triangles" | "edges"> & { readonly places: readonly number[] };

export const flatMesh = ({ vertices, triangles, edges }: Mesh, frame: Frame = AT_HOME.frame): FlatMesh => ({
  places: placesOf(vertices, (vertex) => toWorld(frame, vertex)),
  triangles,
  edges,
});

function placesOf(vertices: readonly Vec3[], move: (vertex: Vec3) => Vec3): readonly number[] {
  const places: number[] = [];
  for (const vertex of vertices) {
    const [x, y, z] = move(vertex);
    places.push(x, y, z);
  }
  return places;
}

/** A flat mesh with its vertices each by itself. */
export function unflatMesh({ places, triangles, edges }: FlatMesh): Mesh {
  const vertices: Vec3[] = [];
  for (let i = 0; i < places.length; i += 3)
    vertices.push([at(places, i), at(places, i + 1), at(places, i + 2)]);
  return { vertices, triangles, edges };
}

/** A mesh where an assembly stands; mirrored, its triangles run the other way round. */
export const poseMesh = (mesh: FlatMesh, pose: Pose): FlatMesh =>
  moved(mesh, pose, (vertex) => toWorld(pose.frame, vertex));

/** The inverse of `poseMesh`: a mesh of the job as it is seen from an assembly. */
export const unposeMesh = (mesh: FlatMesh, pose: Pose): FlatMesh =>
  moved(mesh, pose, (vertex) => toLocal(pose.frame, vertex));

function moved(mesh: FlatMesh, { mirrored }: Pose, move: (vertex: Vec3) => Vec3): FlatMesh {
  const places = placesOf(unflatMesh(mesh).vertices, move);
  return mirrored ? insideOut({ ...mesh, places }) : { ...mesh, places };
}

/** The same mesh with its triangles run the other way round, as a mirror needs it. */
function insideOut(mesh: FlatMesh): FlatMesh {
  const triangles = mesh.triangles.map((_, i) => at(mesh.triangles, i - (i % 3) + 2 - (i % 3)));
  return { ...mesh, triangles };
}
