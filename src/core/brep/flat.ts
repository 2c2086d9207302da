/** Bodies of flat faces by their borders: faces in one plane that touch become one, with their holes as loops. */
import { cross, dot, norm, type Solid, scale, subtract, type Vec3, welded } from "../geometry";
import { addTo, at } from "../kernel";
import type { Brep, BrepEdge, BrepFace, BrepUse } from "./brep";

/** mm. Corners nearer than this are one, and lie on an edge they are so near to. */
const SAME = 1e-5;

/** The border of a solid whose faces are all flat (round ones as the facets that it has); null: it does not close. */
export function flatBrep(solid: Solid, isFaceted: boolean): Brep | null {
  const { points, indices: index } = welded(solid.points.length, (i) => at(solid.points, i), SAME);
  const polygons = solid.faces.flatMap(({ corners, normal }) => {
    const loop = corners
      .map((corner) => at(index, corner))
      .filter((corner, i, all) => corner !== at(all, (i + 1) % all.length));
    return loop.length < 3 ? [] : [{ loop, normal: at(solid.normals, normal) }];
  });
  const whole = withAllCorners(polygons, points);
  // Edges between two faces of one plane fall away; what is left borders it.
  const planes: {
    readonly normal: Vec3;
    readonly on: Vec3;
    readonly borders: Map<string, readonly [number, number]>;
  }[] = [];
  for (const { loop, normal } of whole) {
    const on = at(points, at(loop, 0));
    let plane = planes.find(
      (one) =>
        dot(one.normal, normal) > 1 - 1e-10 && Math.abs(dot(one.normal, subtract(on, one.on))) < SAME * 10,
    );
    if (!plane) {
      plane = { normal, on, borders: new Map() };
      planes.push(plane);
    }
    for (const [i, from] of loop.entries()) {
      const to = at(loop, (i + 1) % loop.length);
      if (!plane.borders.delete(`${to},${from}`)) plane.borders.set(`${from},${to}`, [from, to]);
    }
  }
  const edges: BrepEdge[] = [];
  const edgeOf = new Map<string, number>();
  const uses: number[] = [];
  const use = (from: number, to: number): BrepUse | null => {
    const back = edgeOf.get(`${to},${from}`);
    if (back !== undefined) {
      uses[back] = (uses[back] ?? 0) + 1;
      return { edge: back, ahead: false };
    }
    if (edgeOf.has(`${from},${to}`)) return null;
    const edge = edges.push({ from, to, curve: { kind: "line" } }) - 1;
    edgeOf.set(`${from},${to}`, edge);
    uses[edge] = 1;
    return { edge, ahead: true };
  };
  const faces: BrepFace[] = [];
  for (const { normal, on, borders } of planes) {
    const loops = loopsOf(borders, points, normal);
    if (!loops) return null;
    for (const face of nested(loops, points, normal)) {
      const written = face.map((loop) => loop.map((from, i) => use(from, at(loop, (i + 1) % loop.length))));
      if (written.some((loop) => loop.some((one) => one === null))) return null;
      faces.push({ surface: { kind: "plane", on, normal }, loops: written as BrepUse[][] });
    }
  }
  if (uses.some((count) => count !== 2)) return null;
  return { points, edges, faces, isFaceted };
}

/** Polygons with every corner that lies on one of their edges as a corner of theirs, so that neighbours share whole edges. */
function withAllCorners(
  polygons: readonly { readonly loop: readonly number[]; readonly normal: Vec3 }[],
  points: readonly Vec3[],
) {
  const ends = new Set<string>();
  for (const { loop } of polygons)
    for (const [i, from] of loop.entries()) ends.add(`${from},${at(loop, (i + 1) % loop.length)}`);
  return polygons.map(({ loop, normal }) => ({
    normal,
    loop: loop.flatMap((from, i) => {
      const to = at(loop, (i + 1) % loop.length);
      if (ends.has(`${to},${from}`)) return [from];
      const [a, b] = [at(points, from), at(points, to)];
      const way = subtract(b, a);
      const size = norm(way);
      const on = points.flatMap((point, k) => {
        if (k === from || k === to) return [];
        const away = subtract(point, a);
        const along = dot(away, way) / size;
        if (along <= SAME || along >= size - SAME) return [];
        return norm(subtract(away, scale(way, along / size))) < SAME * 2 ? [{ k, along }] : [];
      });
      return [from, ...on.sort((p, q) => p.along - q.along).map(({ k }) => k)];
    }),
  }));
}

/** Border edges run together; where several meet in a corner, the sharpest turn to the inside is taken. Null: they do not close. */
function loopsOf(
  borders: ReadonlyMap<string, readonly [number, number]>,
  points: readonly Vec3[],
  normal: Vec3,
): readonly (readonly number[])[] | null {
  const after = new Map<number, number[]>();
  for (const [from, to] of borders.values()) addTo(after, from, to);
  const loops: number[][] = [];
  for (;;) {
    const start = [...after].find(([, ways]) => ways.length > 0);
    if (!start) return loops;
    const loop: number[] = [];
    let [from, before] = [start[0], -1];
    for (;;) {
      const ways = after.get(from) ?? [];
      const [first] = ways;
      if (first === undefined) return null;
      const to = before < 0 || ways.length === 1 ? first : leftmost(points, normal, before, from, ways);
      ways.splice(ways.indexOf(to), 1);
      loop.push(from);
      before = from;
      from = to;
      if (from === loop[0]) break;
      if (loop.length > points.length + borders.size) return null;
    }
    // Corners in the middle of a straight stretch stay: the neighbour has them as well.
    loops.push(loop);
  }
}

function leftmost(
  points: readonly Vec3[],
  normal: Vec3,
  before: number,
  from: number,
  ways: readonly number[],
): number {
  const come = subtract(at(points, from), at(points, before));
  const turnOf = (to: number) => {
    const go = subtract(at(points, to), at(points, from));
    return Math.atan2(dot(cross(come, go), normal), dot(come, go));
  };
  return ways.reduce((best, to) => (turnOf(to) > turnOf(best) ? to : best));
}

/** Loops as faces: each outer one with the holes that lie in it. */
function nested(
  loops: readonly (readonly number[])[],
  points: readonly Vec3[],
  normal: Vec3,
): readonly (readonly (readonly number[])[])[] {
  const turn = (loop: readonly number[]) =>
    loop.reduce((sum, from, i) => {
      const [a, b] = [at(points, from), at(points, at(loop, (i + 1) % loop.length))];
      return (
        sum +
        dot(cross(subtract(a, at(points, at(loop, 0))), subtract(b, at(points, at(loop, 0)))), normal) / 2
      );
    }, 0);
  const outer = loops.filter((loop) => turn(loop) > 0);
  const holes = loops.filter((loop) => turn(loop) <= 0);
  return outer.map((loop) => [
    loop,
    ...holes.filter((hole) => {
      const owner = outer
        .filter((one) =>
          isWithin(
            at(points, at(hole, 0)),
            one.map((corner) => at(points, corner)),
            normal,
          ),
        )
        .toSorted((a, b) => turn(a) - turn(b))[0];
      return owner === loop;
    }),
  ]);
}

/** Whether a point of the plane lies within a loop: the turn that it sees. */
export function isWithin(point: Vec3, corners: readonly Vec3[], normal: Vec3): boolean {
  const seen = corners.reduce((sum, from, i) => {
    const [a, b] = [subtract(from, point), subtract(at(corners, (i + 1) % corners.length), point)];
    return sum + Math.atan2(dot(cross(a, b), normal), dot(a, b));
  }, 0);
  return Math.abs(seen) > Math.PI;
}
