/**
 * The surface that the triangles of a face lie on: a plane or a cylinder. Corners of triangles lie on the surface itself, so
 * what is fitted to them is as exact as the file: planes at once, cylinders by Gauss-Newton from the axis that the normals
 * of the facets are square to.
 */
import { add, cross, direction, dot, norm, scale, subtract, type Vec3 } from "../geometry";

export type PlaneSurface = {
  readonly kind: "plane";
  /** Out of the solid. */
  readonly normal: Vec3;
  /** normal · p of every point of it. */
  readonly offset: number;
};
export type CylinderSurface = {
  readonly kind: "cylinder";
  /** A point of its axis, and the way of it. */
  readonly centre: Vec3;
  readonly axis: Vec3;
  readonly radius: number;
  /** The solid lies outside of it: the wall of a hole, a hollow corner. */
  readonly isHollow: boolean;
};
export type Surface = PlaneSurface | CylinderSurface | { readonly kind: "other" };

/** mm. How far corners may lie off the surface that is taken for theirs. */
const OFF_PLANE = 2e-3;
const OFF_CYLINDER = 5e-3;
/** mm. Larger round faces are as good as flat ones that no shop makes. */
const MOST_RADIUS = 20_000;

export type Facet = { readonly corners: readonly [Vec3, Vec3, Vec3]; readonly area: Vec3 };

/** Half the cross product of two sides: as long as the area, out of the solid. */
export const facetOf = (a: Vec3, b: Vec3, c: Vec3): Facet => ({
  corners: [a, b, c],
  area: scale(cross(subtract(b, a), subtract(c, a)), 0.5),
});

export function surfaceOf(facets: readonly Facet[], points: readonly Vec3[]): Surface {
  return planeOf(facets, points) ?? cylinderOf(facets, points) ?? { kind: "other" };
}

function planeOf(facets: readonly Facet[], points: readonly Vec3[]): PlaneSurface | null {
  const sum = facets.reduce<Vec3>((all, { area }) => add(all, area), [0, 0, 0]);
  const normal = direction(sum);
  if (!normal) return null;
  const offsets = points.map((point) => dot(normal, point));
  const least = offsets.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY);
  const most = offsets.reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY);
  return most - least > 2 * OFF_PLANE ? null : { kind: "plane", normal, offset: (least + most) / 2 };
}

function cylinderOf(facets: readonly Facet[], points: readonly Vec3[]): CylinderSurface | null {
  if (points.length < 6) return null;
  const start = leastAlong(facets);
  if (!start) return null;
  const fitted = refined(points, start);
  if (!fitted || !(fitted.radius > 0.05) || fitted.radius > MOST_RADIUS) return null;
  const { centre, axis, radius } = fitted;
  const away = (point: Vec3): Vec3 => {
    const from = subtract(point, centre);
    return subtract(from, scale(axis, dot(from, axis)));
  };
  if (points.some((point) => Math.abs(norm(away(point)) - radius) > OFF_CYLINDER)) return null;
  let outwards = 0;
  for (const { corners, area } of facets) {
    const middle = scale(add(add(corners[0], corners[1]), corners[2]), 1 / 3);
    outwards += dot(area, away(middle));
  }
  return { kind: "cylinder", centre, axis, radius, isHollow: outwards < 0 };
}

/** The direction that the normals of facets are most nearly square to: the least eigenvector of their products (Jacobi). */
function leastAlong(facets: readonly Facet[]): Vec3 | null {
  const m = [
    [0, 0, 0],
    [0, 0, 0],
    [0, 0, 0],
  ] as [number, number, number][];
  for (const { area } of facets) {
    const size = norm(area);
    if (size === 0) continue;
    for (let i = 0; i < 3; i++) {
      const row = m[i] as [number, number, number];
      for (let j = 0; j < 3; j++)
        row[j as 0 | 1 | 2] += ((area[i as 0 | 1 | 2] ?? 0) * (area[j as 0 | 1 | 2] ?? 0)) / size;
    }
  }
  const vectors = [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ] as [number, number, number][];
  const get = (a: [number, number, number][], i: number, j: number) => a[i]?.[j as 0 | 1 | 2] ?? 0;
  const set = (a: [number, number, number][], i: number, j: number, value: number) => {
    const row = a[i];
    if (row) row[j as 0 | 1 | 2] = value;
  };
  for (let round = 0; round < 30; round++) {
    let rest = 0;
    for (const [p, q] of [
      [0, 1],
      [0, 2],
      [1, 2],
    ] as const) {
      const off = get(m, p, q);
      rest += Math.abs(off);
      if (off === 0) continue;
      const theta = (get(m, q, q) - get(m, p, p)) / (2 * off);
      const t = Math.sign(theta || 1) / (Math.abs(theta) + Math.sqrt(theta * theta + 1));
      const c = 1 / Math.sqrt(t * t + 1);
      const s = t * c;
      for (let k = 0; k < 3; k++) {
        const [a, b] = [get(m, k, p), get(m, k, q)];
        set(m, k, p, c * a - s * b);
        set(m, k, q, s * a + c * b);
      }
      for (let k = 0; k < 3; k++) {
        const [a, b] = [get(m, p, k), get(m, q, k)];
        set(m, p, k, c * a - s * b);
        set(m, q, k, s * a + c * b);
        const [u, w] = [get(vectors, k, p), get(vectors, k, q)];
        set(vectors, k, p, c * u - s * w);
        set(vectors, k, q, s * u + c * w);
      }
    }
    if (rest < 1e-18) break;
  }
  const values = [0, 1, 2].map((i) => get(m, i, i));
  const least = values.indexOf(Math.min(...values));
  return direction([get(vectors, 0, least), get(vectors, 1, least), get(vectors, 2, least)]);
}

type Round = { readonly centre: Vec3; readonly axis: Vec3; readonly radius: number };

/** Two directions square to one another and to a third. */
export function squareTo(axis: Vec3): readonly [Vec3, Vec3] {
  const other: Vec3 = Math.abs(axis[0]) < 0.6 ? [1, 0, 0] : [0, 1, 0];
  const u = direction(cross(other, axis)) ?? [1, 0, 0];
  return [u, cross(axis, u)];
}

/** Gauss-Newton on the distances of points from the axis: five unknowns, the place and the way of the axis and the radius. */
function refined(points: readonly Vec3[], start: Vec3): Round | null {
  let axis = start;
  const middle = scale(
    points.reduce<Vec3>((sum, point) => add(sum, point), [0, 0, 0]),
    1 / points.length,
  );
  let [u, v] = squareTo(axis);
  const first = circleThrough(
    points.map((point) => [dot(subtract(point, middle), u), dot(subtract(point, middle), v)]),
  );
  if (!first) return null;
  let centre = add(middle, add(scale(u, first.x), scale(v, first.y)));
  let radius = first.radius;
  for (let round = 0; round < 20; round++) {
    [u, v] = squareTo(axis);
    const rows: number[][] = [];
    for (const point of points) {
      const from = subtract(point, centre);
      const along = dot(from, axis);
      const [a, b] = [dot(from, u), dot(from, v)];
      const size = Math.hypot(a, b) || 1e-12;
      // How the distance changes with the place of the axis (u, v), its tilt towards u and v, and the radius.
      rows.push([-a / size, -b / size, (-a * along) / size, (-b * along) / size, -1, radius - size]);
    }
    const step = leastSquares(rows, 5);
    if (!step) return null;
    const [du = 0, dv = 0, tu = 0, tv = 0, dr = 0] = step;
    centre = add(centre, add(scale(u, du), scale(v, dv)));
    axis = direction(add(axis, add(scale(u, tu), scale(v, tv)))) ?? axis;
    radius += dr;
    if (Math.abs(du) + Math.abs(dv) + Math.abs(dr) + Math.abs(tu) + Math.abs(tv) < 1e-11) break;
  }
  return Number.isFinite(radius) ? { centre, axis, radius } : null;
}

/** The circle through points that lie near one (Kåsa's fit). */
function circleThrough(
  points: readonly (readonly [number, number])[],
): { readonly x: number; readonly y: number; readonly radius: number } | null {
  const solved = leastSquares(
    points.map(([x, y]) => [2 * x, 2 * y, 1, x * x + y * y]),
    3,
  );
  if (!solved) return null;
  const [x = 0, y = 0, rest = 0] = solved;
  const square = rest + x * x + y * y;
  return square > 0 ? { x, y, radius: Math.sqrt(square) } : null;
}

/** The unknowns that bring rows (factors, then the value) nearest to their values; null: they do not tell them apart. */
function leastSquares(rows: readonly (readonly number[])[], unknowns: number): readonly number[] | null {
  const m = Array.from({ length: unknowns }, () => new Array<number>(unknowns + 1).fill(0));
  for (const row of rows)
    for (let i = 0; i < unknowns; i++)
      for (let j = 0; j <= unknowns; j++) {
        const line = m[i];
        if (line) line[j] = (line[j] ?? 0) + (row[i] ?? 0) * (row[j] ?? 0);
      }
  const scaleOf = m.map((line, i) => Math.abs(line[i] ?? 0));
  for (let i = 0; i < unknowns; i++) {
    let pivot = i;
    for (let k = i + 1; k < unknowns; k++)
      if (Math.abs(m[k]?.[i] ?? 0) > Math.abs(m[pivot]?.[i] ?? 0)) pivot = k;
    [m[i], m[pivot]] = [m[pivot] as number[], m[i] as number[]];
    const line = m[i] as number[];
    const lead = line[i] ?? 0;
    if (Math.abs(lead) <= 1e-13 * Math.max(1e-12, ...scaleOf)) return null;
    for (let k = 0; k < unknowns; k++) {
      if (k === i) continue;
      const other = m[k] as number[];
      const factor = (other[i] ?? 0) / lead;
      for (let j = i; j <= unknowns; j++) other[j] = (other[j] ?? 0) - factor * (line[j] ?? 0);
    }
  }
  return m.map((line, i) => (line[unknowns] ?? 0) / (line[i] ?? 1));
}
