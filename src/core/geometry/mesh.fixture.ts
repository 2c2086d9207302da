/** What tests ask of a mesh. */
import { at } from "../kernel";
import type { Mesh } from "./mesh";
import { cross, dot } from "./vector";

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
