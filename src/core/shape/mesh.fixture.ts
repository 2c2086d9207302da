/** What the tests of the shape stage share: meshes of single records, their images and volumes. */
import { type Mesh, unflatMesh, type Vec3 } from "../geometry";
import { meshesOf, type PlacedMesh, type Shape } from ".";

/** What the picture shows, each vertex by itself. */
export const picturedMeshes = (
  shape: Shape,
): readonly (Omit<PlacedMesh, "mesh"> & { readonly mesh: Mesh })[] =>
  meshesOf(shape).map((placed) => ({ ...placed, mesh: unflatMesh(placed.mesh) }));

export const meshOf = (shape: Shape, id: string): Mesh | undefined =>
  picturedMeshes(shape).find(({ record }) => record === id)?.mesh;

/** A mesh's corners seen in the mirror at `plane` across an axis. */
export function reflected(mesh: Mesh, axis: 0 | 1 | 2, plane: number): Mesh {
  const image = (vertex: Vec3): Vec3 => {
    const [x, y, z] = vertex.map((value, i) => (i === axis ? 2 * plane - value : value));
    return [x ?? 0, y ?? 0, z ?? 0];
  };
  return { ...mesh, vertices: mesh.vertices.map(image) };
}

/** Whether every corner of the one lies on a corner of the other. */
export function sameVertices(first: Mesh, second: Mesh): boolean {
  const near = (a: Vec3, b: Vec3) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]) < 1e-6;
  return (
    first.vertices.length === second.vertices.length &&
    first.vertices.every((vertex) => second.vertices.some((other) => near(vertex, other)))
  );
}
