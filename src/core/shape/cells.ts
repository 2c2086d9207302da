/** Cells of space by number, for finding what lies near without looking at everything. */
import type { Vec3 } from "../geometry";
import { addTo, NEAR_TWIN_LENGTH_MM, remembersEach } from "../kernel";

/** Cells of one hash only cost a look. */
export const cellHash = (x: number, y: number, z: number) =>
  Math.imul(x, 73856093) ^ Math.imul(y, 19349663) ^ Math.imul(z, 83492791);

export const cellOf = (place: Vec3, cell: number) =>
  cellHash(Math.floor(place[0] / cell), Math.floor(place[1] / cell), Math.floor(place[2] / cell));

/** The cells within reach of a place: one or two along each axis. */
export function cellsNear([x, y, z]: Vec3, cell: number): readonly number[] {
  const low = (value: number) => Math.floor((value - NEAR_TWIN_LENGTH_MM) / cell);
  const high = (value: number) => Math.floor((value + NEAR_TWIN_LENGTH_MM) / cell);
  const [x1, y1, z1] = [high(x), high(y), high(z)];
  const keys: number[] = [];
  for (let i = low(x); i <= x1; i++)
    for (let j = low(y); j <= y1; j++) for (let k = low(z); k <= z1; k++) keys.push(cellHash(i, j, k));
  return keys;
}

/** Every cell that a line passes: parted at each border, its stretches lie in one cell each. */
export function cellsAlong(from: Vec3, to: Vec3, cell: number): readonly number[] {
  const shares: number[] = [];
  for (const i of [0, 1, 2] as const) {
    const [low, high] = [Math.min(from[i], to[i]), Math.max(from[i], to[i])];
    const last = high > low ? Math.floor(high / cell) : Number.NEGATIVE_INFINITY;
    for (let border = Math.ceil(low / cell); border <= last; border++)
      shares.push((border * cell - from[i]) / (to[i] - from[i]));
  }
  if (shares.length > 1) shares.sort((a, b) => a - b);
  const keys: number[] = [];
  let before = 0;
  for (let k = 0; k <= shares.length; k++) {
    const after = shares[k] ?? 1;
    const share = (before + after) / 2;
    before = after;
    const index = (i: 0 | 1 | 2) => Math.floor((from[i] + (to[i] - from[i]) * share) / cell);
    const key = cellHash(index(0), index(1), index(2));
    // A line passes a border and does not come back: only a stretch of no length lies where the one before did.
    if (key !== keys.at(-1)) keys.push(key);
  }
  return keys;
}

/** mm. Cells in which lines are looked up: most lines lie in one or two. */
export const LINE_CELL_MM = 1_000;

/** Lines by the cells that they pass, in their order. */
export function linesByCell<L extends { readonly from: Vec3; readonly to: Vec3 }>(
  lines: readonly L[],
): ReadonlyMap<number, readonly L[]> {
  const cells = new Map<number, L[]>();
  for (const line of lines)
    for (const key of cellsAlong(line.from, line.to, LINE_CELL_MM)) addTo(cells, key, line);
  return cells;
}

/** Whether a place lies in the bounds of a line, let out by the distance looked for. */
export const maybeBeside = (place: Vec3, from: Vec3, to: Vec3): boolean =>
  isBetween(place[0], from[0], to[0]) &&
  isBetween(place[1], from[1], to[1]) &&
  isBetween(place[2], from[2], to[2]);

const isBetween = (value: number, a: number, b: number): boolean =>
  value >= Math.min(a, b) - NEAR_TWIN_LENGTH_MM && value <= Math.max(a, b) + NEAR_TWIN_LENGTH_MM;

/** mm. So much larger than the distance looked for that most places need but one cell. */
const PLACE_CELL_MM = 100;

type PlacesNear = (place: Vec3) => readonly string[];

/** Made once for a set of points, as long as it stays the same object. */
const indexes = remembersEach<ReadonlyMap<string, Vec3>, PlacesNear>();

/**
 * What lies within reach of a place (`NEAR_TWIN_LENGTH_MM`, and some that lie a little farther), in the order of the points:
 * looked up by cells, so that the work does not grow with their number.
 */
export const placesNear = (points: ReadonlyMap<string, Vec3>): PlacesNear =>
  indexes(points, [], () => {
    const cells = new Map<number, { readonly id: string; readonly order: number }[]>();
    let order = 0;
    for (const [id, place] of points) {
      const key = cellOf(place, PLACE_CELL_MM);
      addTo(cells, key, { id, order });
      order++;
    }
    return (place) =>
      [...new Set(cellsNear(place, PLACE_CELL_MM))]
        .flatMap((key) => cells.get(key) ?? [])
        .sort((a, b) => a.order - b.order)
        .map(({ id }) => id);
  });
