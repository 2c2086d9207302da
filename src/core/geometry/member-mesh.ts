/** Straight members as solids for the picture: their walls, and their ends with the ridges across them. */
import earcut from "earcut";
import { at, byKey, byTuple, type Order, remembersEach } from "../kernel";
import { type Linear, valueAt } from "./loop-parts";
import type { Mesh } from "./mesh";
import type { OutlinePoint } from "./outline";
import { norm2, type Vec2, type Vec3 } from "./vector";

/** Where an end stands above a point of the section, and the lines across it at which two planes meet. */
export type EndSurface = {
  readonly height: (point: Vec2) => number;
  readonly ridges: readonly Linear[];
};

/** A straight member with the given drawn outlines (outer first, then holes) between two end surfaces. */
export function memberMesh(
  outlines: readonly (readonly OutlinePoint[])[],
  start: EndSurface,
  end: EndSurface,
): Mesh {
  // In an order of their own, so that a member drawn from its other end is parted in the same places.
  const ridges = [...start.ridges, ...end.ridges].sort(byPlace);
  const plan = ridges.reduce(
    parted,
    plans(outlines, [], () => planOf(outlines)),
  );
  const { points } = plan;
  const vertices: Vec3[] = [
    ...points.map((p): Vec3 => [p[0], p[1], start.height(p)]),
    ...points.map((p): Vec3 => [p[0], p[1], end.height(p)]),
  ];
  return { vertices, ...shells(plan, [], () => shellOf(plan, start)) };
}

// Members of one section share its outlines, and without ridges the numbers of their corners.
const plans = remembersEach<readonly (readonly OutlinePoint[])[], Plan>();
const shells = remembersEach<Plan, Pick<Mesh, "triangles" | "edges">>();

/** The walls and both ends over the points of a plan, those of the start first. */
function shellOf(plan: Plan, start: EndSurface): Pick<Mesh, "triangles" | "edges"> {
  const { points, loops } = plan;
  const count = points.length;
  const triangles: number[] = [];
  const edges: number[] = [];
  for (const loop of loops) {
    loop.forEach((a, i) => {
      const b = at(loop, (i + 1) % loop.length);
      triangles.push(a, b, count + b, a, count + b, count + a);
      edges.push(a, b, count + a, count + b);
      if (plan.creases.has(a)) edges.push(a, count + a);
    });
  }
  for (let i = 0; i < plan.triangles.length; i += 3) {
    const [a, b, c] = [at(plan.triangles, i), at(plan.triangles, i + 1), at(plan.triangles, i + 2)];
    triangles.push(c, b, a, count + a, count + b, count + c);
  }
  for (const [ridge, along] of plan.ridges) {
    const beyond = start.ridges.includes(ridge) ? 0 : count;
    edges.push(...along.map((i) => i + beyond));
  }
  return { triangles, edges };
}

/** The section flat: its outlines and triangles, both parted where ridges cross them, so that walls and ends stay one. */
type Plan = {
  readonly points: readonly Vec2[];
  /** Points from which a drawn edge runs along the member. */
  readonly creases: ReadonlySet<number>;
  readonly loops: readonly (readonly number[])[];
  readonly triangles: readonly number[];
  /** Pairs of points along each ridge. */
  readonly ridges: readonly (readonly [Linear, readonly number[]])[];
};

function planOf(outlines: readonly (readonly OutlinePoint[])[]): Plan {
  const flat = outlines.flat();
  const firsts = outlines.map((_, k) => outlines.slice(0, k).reduce((sum, loop) => sum + loop.length, 0));
  return {
    points: flat.map(({ at: p }) => p),
    creases: new Set(flat.flatMap(({ crease }, i) => (crease ? [i] : []))),
    loops: outlines.map((loop, k) => loop.map((_, i) => at(firsts, k) + i)),
    triangles: earcut(
      flat.flatMap(({ at: p }) => [p[0], p[1]]),
      firsts.slice(1),
    ),
    ridges: [],
  };
}

/** Ridges by the line on which they lie, whichever way their slope points. */
const byPlace: Order<Linear> = byKey(({ slope: [x, y], constant }) => {
  const size = Math.hypot(x, y);
  const sign = x < -ON_RIDGE_MM || (Math.abs(x) <= ON_RIDGE_MM && y < 0) ? -1 : 1;
  return [x, y, constant].map((part) => Math.round((sign * part * 1e6) / size));
}, byTuple);

/** mm. Nearer to a ridge than this a point lies on it. */
const ON_RIDGE_MM = 1e-6;

/** Parts the outlines and the triangles of a plan where a ridge crosses them. */
function parted(plan: Plan, ridge: Linear): Plan {
  const points = [...plan.points];
  const steep = norm2(ridge.slope);
  const beside = plan.points.map((p) => {
    const away = valueAt(ridge, p) / steep;
    return Math.abs(away) <= ON_RIDGE_MM ? 0 : away;
  });
  const sideOf = (i: number) => beside[i] ?? 0;
  const made = new Map<string, number>();
  const pairKey = (a: number, b: number) => (a < b ? `${a}|${b}` : `${b}|${a}`);
  /** Two points with the one between them that lies on the ridge, where they stand on two sides of it. */
  const withCrossing = (a: number, b: number): readonly number[] => {
    const [p, q] = [sideOf(a), sideOf(b)];
    if (p * q >= 0) return [a];
    const known = made.get(pairKey(a, b));
    if (known !== undefined) return [a, known];
    const [from, to] = [at(points, a), at(points, b)];
    const share = p / (p - q);
    const index = points.push([from[0] + (to[0] - from[0]) * share, from[1] + (to[1] - from[1]) * share]) - 1;
    made.set(pairKey(a, b), index);
    return [a, index];
  };
  const around = (ring: readonly number[]) =>
    ring.flatMap((a, i) => withCrossing(a, at(ring, (i + 1) % ring.length)));
  const triangles: number[] = [];
  const along = new Map<string, readonly [number, number]>();
  for (let i = 0; i < plan.triangles.length; i += 3) {
    const ring = around(plan.triangles.slice(i, i + 3));
    const [first, second, ...more] = ring.filter((a) => sideOf(a) === 0);
    if (first !== undefined && second !== undefined && more.length === 0)
      along.set(pairKey(first, second), [first, second]);
    const parts =
      ring.length === 3 ? [ring] : [1, -1].map((side) => ring.filter((a) => side * sideOf(a) >= 0));
    for (const part of parts)
      for (let k = 2; k < part.length; k++) triangles.push(at(part, 0), at(part, k - 1), at(part, k));
  }
  const loops = plan.loops.map(around);
  return { ...plan, points, loops, triangles, ridges: [...plan.ridges, [ridge, [...along.values()].flat()]] };
}
