/** The outline of a panel: its corners in the axes of the smallest rectangle around it. */
import {
  add,
  type Corner,
  convexHull,
  norm,
  reach,
  roundedPolygon,
  scale,
  type Vec2,
  type Vec3,
} from "../geometry";
import { at } from "../kernel";

/**
 * Corners rounded by one radius in two parts, as one: arcs of more than a quarter turn come in parts, but what somebody drew as
 * one corner is one wherever it lies within the rectangle.
 */
export function wholeRoundings(corners: readonly Corner[], low: Vec2, high: Vec2): readonly Corner[] {
  const list = [...corners];
  for (let i = 0; i < list.length && list.length > 3; i++) {
    const n = list.length;
    const [p, a, b, q] = [-1, 0, 1, 2].map((k) => at(list, (i + k + n) % n)) as [
      Corner,
      Corner,
      Corner,
      Corner,
    ];
    if (a.radius === 0 || Math.abs(a.radius - b.radius) > TANGENT) continue;
    const turn = (from: Corner, by: Corner, to: Corner) => {
      const [ux, uy, vx, vy] = [
        by.at[0] - from.at[0],
        by.at[1] - from.at[1],
        to.at[0] - by.at[0],
        to.at[1] - by.at[1],
      ];
      return Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy);
    };
    const [first, second] = [turn(p, a, b), turn(a, b, q)];
    const between = Math.hypot(b.at[0] - a.at[0], b.at[1] - a.at[1]);
    const tangents = a.radius * (Math.abs(Math.tan(first / 2)) + Math.abs(Math.tan(second / 2)));
    if (first * second <= 0 || Math.abs(first + second) > 3 || Math.abs(between - tangents) > TANGENT)
      continue;
    // Where the edge before the first and the edge after the second meet.
    const [ux, uy, vx, vy] = [a.at[0] - p.at[0], a.at[1] - p.at[1], q.at[0] - b.at[0], q.at[1] - b.at[1]];
    const share = ((b.at[0] - a.at[0]) * vy - (b.at[1] - a.at[1]) * vx) / (ux * vy - uy * vx);
    const place: Vec2 = [a.at[0] + ux * share, a.at[1] + uy * share];
    const isWithin = place.every(
      (value, k) => value > (low[k as 0 | 1] ?? 0) - TANGENT && value < (high[k as 0 | 1] ?? 0) + TANGENT,
    );
    if (!isWithin) continue;
    list[i] = { at: place, radius: a.radius };
    list.splice((i + 1) % n, 1);
    i = -1;
  }
  return list;
}

/** mm. Where an arc runs on into a straight edge its end is no corner; what is fitted strays by so much. */
const TANGENT = 0.003;

export function withoutTangents(corners: readonly Corner[]): readonly Corner[] {
  return corners.filter(({ at: [x, y], radius }, i) => {
    if (radius > 0) return true;
    const [ax, ay] = at(corners, (i + corners.length - 1) % corners.length).at;
    const [bx, by] = at(corners, (i + 1) % corners.length).at;
    const whole = Math.hypot(bx - ax, by - ay) || 1;
    return Math.abs((bx - ax) * (y - ay) - (by - ay) * (x - ax)) / whole > TANGENT;
  });
}

const STEPS = 90;
/** The golden section. */
const SHARE = (Math.sqrt(5) - 1) / 2;

/** The direction within a quarter turn at which a function is least: nearest of some steps, then by golden section. */
function leastTurn(of: (way: Vec2) => number): Vec2 {
  const wayAt = (angle: number): Vec2 => [Math.cos(angle), Math.sin(angle)];
  const step = Math.PI / 2 / STEPS;
  let first = 0;
  let least = Number.POSITIVE_INFINITY;
  for (let i = 0; i < STEPS; i++) {
    const value = of(wayAt(i * step));
    if (value < least) [least, first] = [value, i * step];
  }
  let [low, high] = [first - step, first + step];
  while (high - low > 1e-9) {
    const [a, b] = [high - SHARE * (high - low), low + SHARE * (high - low)];
    if (of(wayAt(a)) < of(wayAt(b))) high = b;
    else low = a;
  }
  return wayAt((low + high) / 2);
}

/** The outline turned so that the rectangle around it is the smallest one, its longer side along x. */
export function turnedToLeast(corners: readonly Corner[], axes: { readonly x: Vec3; readonly y: Vec3 }) {
  const loop = roundedPolygon(corners);
  const hull = convexHull(corners.map(({ at: place }) => place));
  const ways = hull.map((a, i): Vec2 => {
    const b = at(hull, (i + 1) % hull.length);
    const size = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
    return [(b[0] - a[0]) / size, (b[1] - a[1]) / size];
  });
  const reachOf = (way: Vec2) => reach(loop, way);
  const size = (one: Vec2) => reachOf(one) + reachOf([-one[0], -one[1]]);
  const areaOf = (way: Vec2) => size(way) * size([-way[1], way[0]]);
  let best: { readonly way: Vec2; readonly area: number } | null = null;
  const take = (one: Vec2, less: number) => {
    const area = areaOf(one);
    if (!best || area < best.area * (1 - less)) best = { way: one, area };
  };
  for (const one of ways) take(one, 1e-9);
  // Round a curved outline the least rectangle need not lie along a straight edge.
  if (loop.some(({ kind }) => kind === "arc")) take(leastTurn(areaOf), 1e-7);
  let way: Vec2 = (best as { readonly way: Vec2 } | null)?.way ?? [1, 0];
  if (size([-way[1], way[0]]) > size(way) + 1e-9) way = [-way[1], way[0]];
  const across: Vec2 = [-way[1], way[0]];
  const world = (one: Vec2): Vec3 => {
    const raw = add(scale(axes.x, one[0]), scale(axes.y, one[1]));
    return scale(raw, 1 / (norm(raw) || 1));
  };
  const on = (place: Vec2): Vec2 => [
    place[0] * way[0] + place[1] * way[1],
    place[0] * across[0] + place[1] * across[1],
  ];
  return {
    on,
    corners: corners.map((corner) => ({ at: on(corner.at), radius: corner.radius })),
    x: world(way),
    y: world(across),
    low: [-reachOf([-way[0], -way[1]]), -reachOf([-across[0], -across[1]])] as Vec2,
    high: [reachOf(way), reachOf(across)] as Vec2,
  };
}
