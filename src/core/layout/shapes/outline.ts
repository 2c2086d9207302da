/** Polygons of free shapes: area, turning, and whether two of them keep their distance. Plain arithmetic, for the checks. */
import { at } from "../../kernel";

export type Point = readonly [number, number];
export type Outline = readonly Point[];

/** Signed: above zero when the corners run anticlockwise. */
export function areaOf(outline: Outline): number {
  return (
    outline.reduce((sum, [x, y], i) => {
      const [nextX, nextY] = at(outline, (i + 1) % outline.length);
      return sum + x * nextY - nextX * y;
    }, 0) / 2
  );
}

export function turned(outline: Outline, degrees: number): Outline {
  const radians = (degrees * Math.PI) / 180;
  // Quarter turns are exact, or a square would be a little more than its side.
  const [cos, sin] = [Math.cos(radians), Math.sin(radians)].map((value) => Math.round(value * 1e12) / 1e12);
  return outline.map(([x, y]): Point => [x * (cos ?? 1) - y * (sin ?? 0), x * (sin ?? 0) + y * (cos ?? 1)]);
}

export const moved = (outline: Outline, x: number, y: number): Outline =>
  outline.map(([px, py]): Point => [px + x, py + y]);

export function boxOf(outline: Outline): { x0: number; y0: number; x1: number; y1: number } {
  const xs = outline.map(([x]) => x);
  const ys = outline.map(([, y]) => y);
  return { x0: Math.min(...xs), y0: Math.min(...ys), x1: Math.max(...xs), y1: Math.max(...ys) };
}

/** Whether edges of an outline cross one another: it has no inside then. */
export function crossesItself(outline: Outline): boolean {
  const n = outline.length;
  for (let i = 0; i < n; i++) {
    for (let k = i + 2; k < n; k++) {
      if (i === 0 && k === n - 1) continue;
      if (cross(at(outline, i), at(outline, (i + 1) % n), at(outline, k), at(outline, (k + 1) % n)))
        return true;
    }
  }
  return false;
}

const side = (a: Point, b: Point, p: Point) => (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]);
const cross = (a: Point, b: Point, c: Point, d: Point) =>
  side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0;

function isInside(outline: Outline, [x, y]: Point): boolean {
  let inside = false;
  outline.forEach(([ax, ay], i) => {
    const [bx, by] = at(outline, (i + 1) % outline.length);
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside;
  });
  return inside;
}

function toEdge([x, y]: Point, [ax, ay]: Point, [bx, by]: Point): number {
  const [dx, dy] = [bx - ax, by - ay];
  const squared = dx * dx + dy * dy;
  const t = squared === 0 ? 0 : Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / squared));
  return Math.hypot(x - ax - t * dx, y - ay - t * dy);
}

/** The distance between two outlines; 0 when they touch, cross or lie in one another. */
export function distanceBetween(a: Outline, b: Outline): number {
  if (a.some((point) => isInside(b, point)) || b.some((point) => isInside(a, point))) return 0;
  let least = Number.POSITIVE_INFINITY;
  for (let i = 0; i < a.length; i++) {
    for (let k = 0; k < b.length; k++) {
      const [p, q] = [at(a, i), at(a, (i + 1) % a.length)];
      const [r, s] = [at(b, k), at(b, (k + 1) % b.length)];
      if (cross(p, q, r, s)) return 0;
      least = Math.min(least, toEdge(p, r, s), toEdge(r, p, q));
    }
  }
  return least;
}
