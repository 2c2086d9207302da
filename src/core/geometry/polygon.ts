/**
 * Polygons in a plane: area, turning, and whether two of them keep their distance. Plain arithmetic, so that checks need no
 * package. Outlines with arcs are written as corners with a bulge, as drawing files have them, and flattened for this.
 */
import { at } from "../kernel";
import { type Corner, endOf, type Loop, onArc, type Segment, startOf } from "./outline";
import { cross2, norm2, subtract2, type Vec2 } from "./vector";

export type Polygon = readonly Vec2[];

/** Signed: above zero when the corners run anticlockwise. */
export function polygonArea(polygon: Polygon): number {
  return (
    polygon.reduce((sum, [x, y], i) => {
      const [nextX, nextY] = at(polygon, (i + 1) % polygon.length);
      return sum + x * nextY - nextX * y;
    }, 0) / 2
  );
}

export function turnedPolygon(polygon: Polygon, degrees: number): Polygon {
  const radians = (degrees * Math.PI) / 180;
  // Quarter turns are exact, or a square would be a little more than its side.
  const [cos, sin] = [Math.cos(radians), Math.sin(radians)].map((value) => Math.round(value * 1e12) / 1e12);
  return polygon.map(([x, y]): Vec2 => [x * (cos ?? 1) - y * (sin ?? 0), x * (sin ?? 0) + y * (cos ?? 1)]);
}

export const movedPolygon = (polygon: Polygon, x: number, y: number): Polygon =>
  polygon.map(([px, py]): Vec2 => [px + x, py + y]);

export type PlaneBox = { readonly x0: number; readonly y0: number; readonly x1: number; readonly y1: number };

/** The least upright box round points; infinite the wrong way round for none. */
export function boxOfPoints(points: readonly Vec2[]): PlaneBox {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const [x, y] of points) {
    x0 = Math.min(x0, x);
    y0 = Math.min(y0, y);
    x1 = Math.max(x1, x);
    y1 = Math.max(y1, y);
  }
  return { x0, y0, x1, y1 };
}

/** Whether edges of a polygon cross one another: it has no inside then. */
export function crossesItself(polygon: Polygon): boolean {
  const n = polygon.length;
  for (let i = 0; i < n; i++) {
    for (let k = i + 2; k < n; k++) {
      if (i === 0 && k === n - 1) continue;
      if (stretchesCross(at(polygon, i), at(polygon, (i + 1) % n), at(polygon, k), at(polygon, (k + 1) % n)))
        return true;
    }
  }
  return false;
}

const side = (a: Vec2, b: Vec2, p: Vec2) => (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]);
/** Whether two stretches cross inside both. */
export const stretchesCross = (a: Vec2, b: Vec2, c: Vec2, d: Vec2): boolean =>
  side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0;

/** By the even-odd rule; on the edge it may say either. */
export function isInside(polygon: Polygon, [x, y]: Vec2): boolean {
  let inside = false;
  polygon.forEach(([ax, ay], i) => {
    const [bx, by] = at(polygon, (i + 1) % polygon.length);
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside;
  });
  return inside;
}

/** The place on an edge that is nearest to a point. */
function onEdge([x, y]: Vec2, [ax, ay]: Vec2, [bx, by]: Vec2): Vec2 {
  const [dx, dy] = [bx - ax, by - ay];
  const squared = dx * dx + dy * dy;
  const t = squared === 0 ? 0 : Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / squared));
  return [ax + t * dx, ay + t * dy];
}

/** The distance of a point from a stretch. */
export const stretchDistance = (point: Vec2, a: Vec2, b: Vec2): number =>
  norm2(subtract2(point, onEdge(point, a, b)));

/** The place on the edges of a polygon that is nearest to a point. */
export const nearestOnEdges = (polygon: Polygon, point: Vec2): Vec2 =>
  nearestOf(
    polygon.map((corner, i) => onEdge(point, corner, at(polygon, (i + 1) % polygon.length))),
    point,
  );

/** The first of the places that is nearest to a point; there must be one. */
export function nearestOf(places: readonly Vec2[], point: Vec2): Vec2 {
  const apart = (place: Vec2) => norm2(subtract2(place, point));
  return places.reduce((best, place) => (apart(place) < apart(best) ? place : best));
}

/** The distance of a point from the edges of a polygon, inside or outside. */
export const edgeDistance = (polygon: Polygon, point: Vec2): number =>
  Math.min(
    ...polygon.map((corner, i) => stretchDistance(point, corner, at(polygon, (i + 1) % polygon.length))),
  );

/** The distance between two polygons; 0 when they touch, cross or lie in one another. */
export function polygonDistance(a: Polygon, b: Polygon): number {
  if (a.some((point) => isInside(b, point)) || b.some((point) => isInside(a, point))) return 0;
  let least = Number.POSITIVE_INFINITY;
  for (let i = 0; i < a.length; i++) {
    for (let k = 0; k < b.length; k++) {
      const [p, q] = [at(a, i), at(a, (i + 1) % a.length)];
      const [r, s] = [at(b, k), at(b, (k + 1) % b.length)];
      if (stretchesCross(p, q, r, s)) return 0;
      least = Math.min(least, stretchDistance(p, r, s), stretchDistance(r, p, q));
    }
  }
  return least;
}

/**
 * A corner of an outline, with the bulge of the edge that leads on from it: the tangent of a quarter of the arc's sweep,
 * anticlockwise above zero, 0 or left out for a straight edge (group code 42 of the DXF reference).
 */
export type BulgedCorner = readonly [number, number] | readonly [number, number, number];

/** The corners of a loop of lines and arcs. A sweep of half a turn or more is cut in two, as a bulge has a whole circle nowhere. */
export function bulgedCorners(loop: Loop): readonly BulgedCorner[] {
  return loop.flatMap((segment): readonly BulgedCorner[] => {
    const [x, y] = startOf(segment);
    if (segment.kind === "line") return [[x, y]];
    const parts = Math.max(1, Math.ceil(Math.abs(segment.sweep) / Math.PI - 1e-9));
    const sweep = segment.sweep / parts;
    return Array.from({ length: parts }, (_, i): BulgedCorner => {
      const [px, py] = i === 0 ? [x, y] : endOf({ ...segment, sweep: sweep * i });
      return [px, py, Math.tan(sweep / 4)];
    });
  });
}

/** The edges that lead on from bulged corners, one from each: straight, or as arcs. */
export function edgesOf(corners: readonly BulgedCorner[]): Loop {
  return corners.map(([x, y, bulge = 0], i): Segment => {
    const [toX, toY] = at(corners, (i + 1) % corners.length);
    const [from, to]: [Vec2, Vec2] = [
      [x, y],
      [toX, toY],
    ];
    const chord = norm2(subtract2(to, from));
    if (bulge === 0 || chord < 1e-9) return { kind: "line", from, to };
    const sweep = 4 * Math.atan(bulge);
    // The centre lies square to the chord, to its left where the arc runs anticlockwise by less than half a turn.
    const off = chord / 2 / Math.tan(sweep / 2);
    const centre: Vec2 = [
      (x + toX) / 2 - (off * (toY - y)) / chord,
      (y + toY) / 2 + (off * (toX - x)) / chord,
    ];
    const radius = chord / (2 * Math.sin(Math.abs(sweep) / 2));
    return { kind: "arc", centre, radius, start: Math.atan2(y - centre[1], x - centre[0]), sweep };
  });
}

/**
 * An outline as a polygon that its shape never leaves and that is nowhere more than `tolerance` (mm) away from it: arcs that
 * bulge outwards become tangents, hollow ones chords. Outer outlines run anticlockwise.
 */
export function flattened(corners: readonly BulgedCorner[], tolerance: number): Polygon {
  return edgesOf(corners).flatMap((edge, i): readonly Vec2[] => {
    const [x, y] = at(corners, i);
    if (edge.kind === "line") return [[x, y]];
    const { centre, radius, start, sweep } = edge;
    const most =
      2 * Math.acos(Math.max(0.5, sweep > 0 ? radius / (radius + tolerance) : 1 - tolerance / radius));
    const steps = Math.max(1, Math.ceil(Math.abs(sweep) / most - 1e-9));
    const step = sweep / steps;
    if (sweep < 0)
      return [
        [x, y],
        ...Array.from({ length: steps - 1 }, (_, k) => onArc({ centre, radius }, start + step * (k + 1))),
      ];
    const out = radius / Math.cos(step / 2);
    return [
      [x, y],
      ...Array.from({ length: steps }, (_, k) => onArc({ centre, radius: out }, start + step * (k + 0.5))),
    ];
  });
}

/** Sweeps above this are parted, so that their tangents meet near them. */
const MOST_SWEEP = Math.PI / 2;
/** mm. A sharp corner that stands no further off the line between its neighbours is none. */
const STRAIGHT = 1e-6;

/**
 * The inverse of `bulgedCorners(roundedPolygon(…))`: every arc as a corner where the tangents at its ends meet, rounded by its
 * radius. Exact for any arc, since its ends become sharp corners where the outline turns there; where it runs on smoothly they
 * fall away.
 */
export function filletCorners(corners: readonly BulgedCorner[]): readonly Corner[] {
  const all = edgesOf(corners).flatMap((edge, i): readonly Corner[] => {
    const [x, y] = at(corners, i);
    const from: Corner = { at: [x, y], radius: 0 };
    if (edge.kind === "line") return [from];
    const { centre, radius, start, sweep } = edge;
    const parts = Math.ceil(Math.abs(sweep) / MOST_SWEEP - 1e-9);
    const step = sweep / parts;
    const tangents = { centre, radius: radius / Math.cos(step / 2) };
    return [
      from,
      ...Array.from({ length: parts }, (_, k) => ({ at: onArc(tangents, start + step * (k + 0.5)), radius })),
    ];
  });
  return all.filter((corner, i) => {
    if (corner.radius > 0) return true;
    const [before, after] = [at(all, (i + all.length - 1) % all.length).at, at(all, (i + 1) % all.length).at];
    const whole = subtract2(after, before);
    const aside = Math.abs(cross2(whole, subtract2(corner.at, before))) / (norm2(whole) || 1);
    return aside > STRAIGHT;
  });
}

/** The parts of a straight line that lie within a polygon, in their order; a line without length: itself or nothing. */
export function insideParts(from: Vec2, to: Vec2, polygon: Polygon): readonly (readonly [Vec2, Vec2])[] {
  const way = subtract2(to, from);
  const shares = [0, 1];
  polygon.forEach((a, i) => {
    const edge = subtract2(at(polygon, (i + 1) % polygon.length), a);
    const across = cross2(way, edge);
    if (across === 0) return;
    const along = cross2(subtract2(a, from), edge) / across;
    const on = cross2(subtract2(a, from), way) / across;
    if (along > 0 && along < 1 && on >= 0 && on <= 1) shares.push(along);
  });
  shares.sort((a, b) => a - b);
  const place = (share: number): Vec2 => [from[0] + way[0] * share, from[1] + way[1] * share];
  const parts: (readonly [Vec2, Vec2])[] = [];
  for (let i = 1; i < shares.length; i++) {
    const [start, end] = [at(shares, i - 1), at(shares, i)];
    if (!isInside(polygon, place((start + end) / 2))) continue;
    const last = parts.at(-1);
    if (last && last[1][0] === place(start)[0] && last[1][1] === place(start)[1])
      parts[parts.length - 1] = [last[0], place(end)];
    else parts.push([place(start), place(end)]);
  }
  return parts;
}
