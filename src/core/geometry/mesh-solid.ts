/** Triangles as a solid: what a mesh from elsewhere does not say is told by the angles between its triangles. */
import { at } from "../kernel";
import type { Mesh } from "./mesh";
import { normalOf, type Solid, type SolidFace, type SolidLine } from "./solid";
import { dot, type Vec3 } from "./vector";

/** Radians. Triangles that meet at less are two of one round surface. */
const SHARP = (20 * Math.PI) / 180;
/** Triangles whose normals differ by less lie in one plane. */
const FLAT = 1 - 1e-6;
/** mm. Corners nearer than this are one. */
const WELD_MM = 1e-3;

/** A solid of triangles, named by their numbers. An edge that only one triangle has is drawn whenever its triangle is seen. */
export function solidOfMesh({ vertices, triangles }: Mesh): Solid {
  const points: Vec3[] = [];
  const known = new Map<string, number>();
  const corner = vertices.map((vertex) => {
    const key = vertex.map((part) => Math.round(part / WELD_MM)).join(" ");
    const before = known.get(key);
    if (before !== undefined) return before;
    known.set(key, points.length);
    return points.push(vertex) - 1;
  });
  const normals: Vec3[] = [];
  const faces: SolidFace[] = [];
  const beside = new Map<string, { readonly a: number; readonly b: number; readonly normals: number[] }>();
  for (let i = 0; i + 2 < triangles.length; i += 3) {
    const corners = [0, 1, 2].map((k) => at(corner, at(triangles, i + k)));
    if (new Set(corners).size < 3) continue;
    const normal = normals.push(normalOf(points, corners)) - 1;
    faces.push({ corners, normal, name: `triangle ${faces.length + 1}` });
    corners.forEach((a, k) => {
      const b = at(corners, (k + 1) % 3);
      const key = `${Math.min(a, b)} ${Math.max(a, b)}`;
      const there = beside.get(key);
      if (there) there.normals.push(normal);
      else beside.set(key, { a, b, normals: [normal] });
    });
  }
  const lines = [...beside.values()].flatMap(
    ({ a, b, normals: [first = 0, second = first] }, i): SolidLine[] => {
      const turn = dot(at(normals, first), at(normals, second));
      if (first !== second && turn > FLAT) return [];
      const kind = first === second || turn < Math.cos(SHARP) ? "sharp" : "smooth";
      return [{ from: a, to: b, normals: [first, second], kind, curve: null, name: `edge ${i + 1}` }];
    },
  );
  return { points, normals, faces, lines, curves: [] };
}
