/** Borders of the flats of a body: loops of corners, each with the surface that lies beyond the edge that leads on from it. */
import { dot, polygonArea, type Vec2, type Vec3 } from "../geometry";
import { at } from "../kernel";
import type { Body } from "./body";

export type BorderLoop = readonly { readonly place: Vec2; readonly wall: number }[];

/** The corners of a surface. */
export const pointsOf = (body: Body, index: number): readonly Vec3[] =>
  [...new Set(at(body.surfaces, index).triangles.flatMap((t) => at(body.triangles, t).corners))].map(
    (corner) => at(body.points, corner),
  );

/** Whether two borders run along the same walls: what is between them goes right through. */
export function haveSameWalls(a: BorderLoop, b: BorderLoop): boolean {
  const [first, second] = [a, b].map((loop) => new Set(loop.map(({ wall }) => wall)));
  return first?.size === second?.size && [...(first ?? [])].every((wall) => second?.has(wall));
}

/** Above zero for outer borders. */
export const areaOf = (loop: BorderLoop): number => polygonArea(loop.map(({ place }) => place));

/** The border of a flat: loops of corners, each with the surface beyond the edge that leads on from it. Null: it is open. */
export function borderOf(
  body: Body,
  index: number,
  axes: { readonly x: Vec3; readonly y: Vec3 },
): readonly BorderLoop[] | null {
  const beyond = neighboursOf(body);
  const after = new Map<number, { readonly to: number; readonly wall: number }>();
  for (const t of at(body.surfaces, index).triangles) {
    const { corners } = at(body.triangles, t);
    for (let k = 0; k < 3; k++) {
      const [a, b] = [at(corners, k), at(corners, (k + 1) % 3)];
      const wall = beyond.get(b * body.points.length + a);
      if (wall === undefined) return null;
      if (wall === index) continue;
      // Two loops that touch in a corner cannot be told apart.
      if (after.has(a)) return null;
      after.set(a, { to: b, wall });
    }
  }
  const loops: BorderLoop[] = [];
  while (after.size > 0) {
    const [start] = after.keys();
    if (start === undefined) break;
    const loop: { place: Vec2; wall: number }[] = [];
    for (let corner = start; ; ) {
      const edge = after.get(corner);
      if (!edge) return null;
      after.delete(corner);
      const point = at(body.points, corner);
      loop.push({ place: [dot(point, axes.x), dot(point, axes.y)], wall: edge.wall });
      corner = edge.to;
      if (corner === start) break;
    }
    loops.push(loop);
  }
  return loops;
}

const neighbours = new WeakMap<Body, ReadonlyMap<number, number>>();

/** The surface of the triangle that an edge belongs to. */
function neighboursOf(body: Body): ReadonlyMap<number, number> {
  const before = neighbours.get(body);
  if (before) return before;
  const found = new Map<number, number>();
  for (const { corners, surface } of body.triangles)
    for (let k = 0; k < 3; k++)
      found.set(at(corners, k) * body.points.length + at(corners, (k + 1) % 3), surface);
  neighbours.set(body, found);
  return found;
}
