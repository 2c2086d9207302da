/** How much units cover of one another, seen from one side: spots of each, which are drawn once and then only shifted. */
import { dot, type Vec3 } from "../geometry";
import { at } from "../kernel";
import type { Convex } from "../shape";
import type { Unit } from "./units";

/** So many spots lie along the larger side of the whole as it is seen. */
const SPOTS = 120;

/** The spots of a unit: how near to the viewer it comes in each, minus infinity where it is not. */
type Mask = {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly depths: Float32Array;
  readonly count: number;
};

/** Which share of what is to be seen of one unit another covers, both by their numbers and as far off their places as is said. */
type Covering = (covered: number, covering: number, offset: (unit: number) => Vec3) => number;

/** From where units are seen, in their axes: three directions of length 1, square to one another. */
export type SeenFrom = { readonly right: Vec3; readonly up: Vec3; readonly towards: Vec3 };

export function coveringFrom(units: readonly Unit[], { right, up, towards }: SeenFrom): Covering {
  const spans = [right, up].map((axis) => {
    let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
    for (const { parts } of units)
      for (const { points } of parts)
        for (const point of points) {
          const one = dot(point, axis);
          [low, high] = [Math.min(low, one), Math.max(high, one)];
        }
    return high - low;
  });
  const spot = Math.max(1, ...spans) / SPOTS;
  const masks = units.map(({ parts }) => maskOf(parts, { right, up, towards, spot }));
  const shift = (by: Vec3) => [Math.round(dot(by, right) / spot), Math.round(dot(by, up) / spot)] as const;
  return (covered, covering, offset) => {
    const [a, b] = [at(masks, covered), at(masks, covering)];
    if (a.count === 0) return 0;
    const [ofA, ofB] = [offset(covered), offset(covering)];
    const [[ax, ay], [bx, by]] = [shift(ofA), shift(ofB)];
    const [dx, dy] = [a.x + ax - b.x - bx, a.y + ay - b.y - by];
    const nearer = dot(ofB, towards) - dot(ofA, towards);
    const [x0, x1] = [Math.max(0, -dx), Math.min(a.width, b.width - dx)];
    const [y0, y1] = [Math.max(0, -dy), Math.min(a.height, b.height - dy)];
    let hidden = 0;
    for (let y = y0; y < y1; y++) {
      const [ownRow, otherRow] = [y * a.width, (y + dy) * b.width + dx];
      for (let x = x0; x < x1; x++) {
        const own = a.depths[ownRow + x] as number;
        if (own !== Number.NEGATIVE_INFINITY && (b.depths[otherRow + x] as number) + nearer > own) hidden++;
      }
    }
    return hidden / a.count;
  };
}

function maskOf(parts: readonly Convex[], axes: Axes): Mask {
  const { right, up, spot } = axes;
  let [x0, x1, y0, y1] = [
    Number.POSITIVE_INFINITY,
    Number.NEGATIVE_INFINITY,
    Number.POSITIVE_INFINITY,
    Number.NEGATIVE_INFINITY,
  ];
  for (const { points } of parts)
    for (const point of points) {
      const [x, y] = [dot(point, right) / spot, dot(point, up) / spot];
      [x0, x1, y0, y1] = [Math.min(x0, x), Math.max(x1, x), Math.min(y0, y), Math.max(y1, y)];
    }
  if (x1 < x0) return { x: 0, y: 0, width: 0, height: 0, depths: new Float32Array(0), count: 0 };
  const [x, y] = [Math.floor(x0), Math.floor(y0)];
  const [width, height] = [Math.floor(x1) - x + 1, Math.floor(y1) - y + 1];
  const depths = new Float32Array(width * height).fill(Number.NEGATIVE_INFINITY);
  for (const part of parts) drawInto(depths, { x, y, width }, part, axes);
  return {
    x,
    y,
    width,
    height,
    depths,
    count: depths.filter((one) => one !== Number.NEGATIVE_INFINITY).length,
  };
}

type Axes = SeenFrom & { readonly spot: number };

/** A convex part lies between two planes for each of its normals: a line of sight meets it where it is between all of them. */
function drawInto(
  depths: Float32Array,
  mask: Pick<Mask, "x" | "y" | "width">,
  { points, normals }: Convex,
  { right, up, towards, spot }: Axes,
): void {
  const slabs = normals.map((normal) => {
    const along = points.map((point) => dot(point, normal));
    return {
      x: dot(normal, right) * spot,
      y: dot(normal, up) * spot,
      speed: dot(normal, towards),
      low: Math.min(...along),
      high: Math.max(...along),
    };
  });
  const seen = points.map((point) => [dot(point, right) / spot, dot(point, up) / spot] as const);
  const [xs, ys] = [seen.map(([x]) => x), seen.map(([, y]) => y)];
  for (let y = Math.floor(Math.min(...ys)); y <= Math.floor(Math.max(...ys)); y++)
    for (let x = Math.floor(Math.min(...xs)); x <= Math.floor(Math.max(...xs)); x++) {
      let [back, front] = [Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY];
      for (const slab of slabs) {
        const start = slab.x * (x + 0.5) + slab.y * (y + 0.5);
        if (Math.abs(slab.speed) < 1e-9) {
          if (start < slab.low || start > slab.high) back = Number.POSITIVE_INFINITY;
          continue;
        }
        const [t0, t1] = [(slab.low - start) / slab.speed, (slab.high - start) / slab.speed];
        back = Math.max(back, Math.min(t0, t1));
        front = Math.min(front, Math.max(t0, t1));
      }
      if (back >= front) continue;
      const i = (y - mask.y) * mask.width + x - mask.x;
      if (front > (depths[i] as number)) depths[i] = front;
    }
}
