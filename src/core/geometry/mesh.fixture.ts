/** What tests ask of a mesh. */
import { at } from "../kernel";
import type { Mesh } from "./mesh";
import type { Loop } from "./outline";
import type { Polygon } from "./polygon";
import { ringOf } from "./ring";
import { cross, dot, norm, subtract, type Vec3 } from "./vector";

/** By the divergence theorem; positive when the triangles run counter-clockwise seen from outside. */
export function volumeOf({ vertices, triangles }: Mesh): number {
  let sum = 0;
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => at(vertices, at(triangles, i + k)));
    if (a && b && c) sum += dot(a, cross(b, c)) / 6;
  }
  return sum;
}

/** Every edge of a triangle is run once either way. */
export function isClosed({ triangles }: Mesh): boolean {
  const runs = new Map<string, number>();
  for (let i = 0; i < triangles.length; i++) {
    const [from, to] = [at(triangles, i), at(triangles, i - (i % 3) + ((i + 1) % 3))];
    const key = from < to ? `${from} ${to}` : `${to} ${from}`;
    runs.set(key, (runs.get(key) ?? 0) + (from < to ? 1 : -1));
  }
  return [...runs.values()].every((sum) => sum === 0);
}

/** An outline as a polygon, with so many steps to a rounded right angle. */
export const polygonOf = (loop: Loop, steps = 2): Polygon =>
  ringOf(loop, { step: Math.PI / 2 / steps }).points.map((point) => point.at);

/** mm. A corner nearer to an edge than this lies on it. */
const ON_EDGE = 2e-3;

/** A mesh in which every edge of a triangle on which a corner of another one lies is parted there, so that it can be closed. */
export function sewn({ vertices, triangles, edges }: Mesh): Mesh {
  const corners = [...new Set(triangles)];
  /** `across`: the third corner; one so thin that it lies on the edge itself would be parted for ever. */
  const onEdge = (a: number, b: number, across: number): number | undefined => {
    const [from, to] = [at(vertices, a), at(vertices, b)];
    const way = subtract(to, from);
    const size = norm(way);
    return corners.find((i) => {
      if (i === a || i === b || norm(subtract(at(vertices, i), at(vertices, across))) < ON_EDGE) return false;
      const there: Vec3 = subtract(at(vertices, i), from);
      const along = dot(there, way) / size;
      return along > ON_EDGE && along < size - ON_EDGE && norm(cross(there, way)) / size < ON_EDGE;
    });
  };
  const isLine = (a: number, b: number, c: number): boolean => {
    const [p, q, r] = [at(vertices, a), at(vertices, b), at(vertices, c)];
    const longest = Math.max(norm(subtract(q, p)), norm(subtract(r, q)), norm(subtract(p, r)));
    return norm(cross(subtract(q, p), subtract(r, p))) <= ON_EDGE * longest;
  };
  const parted: number[] = [];
  const open: (readonly [number, number, number])[] = [];
  for (let i = 0; i < triangles.length; i += 3)
    open.push([at(triangles, i), at(triangles, i + 1), at(triangles, i + 2)]);
  for (let triangle = open.pop(); triangle; triangle = open.pop()) {
    const [a, b, c] = triangle;
    // One that is no wider than a line would be parted for ever; the triangles beside it are parted at its corners.
    if (isLine(a, b, c)) continue;
    const found = (
      [
        [a, b, c],
        [b, c, a],
        [c, a, b],
      ] as const
    ).find(([p, q, r]) => onEdge(p, q, r) !== undefined);
    if (!found) {
      parted.push(a, b, c);
      continue;
    }
    const [p, q, r] = found;
    const on = onEdge(p, q, r) ?? p;
    open.push([p, on, r], [on, q, r]);
  }
  return { vertices, triangles: parted, edges };
}
