/** How far units stand from their places when all is apart: clear of one another, and near to what they belong to. */
import { add, dot, scale, type Vec3 } from "../geometry";
import { at } from "../kernel";
import { type Contacts, contactsOf, type Removal, volumeOf } from "./peeling";
import type { Unit } from "./units";
import { sharedAlong } from "./ways";

/** Gaps are so small a part of the whole. */
const PARTS = 12;

/**
 * Offsets of units in the order in which they come back: each stands off the neighbour that it stood by, along its way, with a gap to
 * all that is there already. What leaves together stands equally far.
 */
export function offsetsOf(
  units: readonly Unit[],
  removals: readonly Removal[],
  contacts: Contacts = contactsOf(units),
): ReadonlyMap<string, Vec3> {
  const numbers = new Map(units.map(({ key }, i) => [key, i]));
  const near = contacts.map((own) => own.map((one) => one.with));
  const gap = Math.max(10, wholeSize(units) / PARTS);
  const moving = new Set(removals.flatMap(({ units: leaving }) => leaving.map(({ key }) => key)));
  const offsets = new Map<string, Vec3>();
  const placed = new Set(units.keys());
  for (const [i, { key }] of units.entries()) if (moving.has(key)) placed.delete(i);
  for (const { units: coming } of [...removals].reverse()) {
    let distance = gap;
    const stands = coming.map(({ key, way }) => {
      const i = numbers.get(key) ?? 0;
      const beside = at(near, i).filter((k) => placed.has(k));
      // It goes along with the largest of what it stood by, unless that went against its way.
      const starts = [...beside]
        .sort((a, b) => volumeOf(at(units, b)) - volumeOf(at(units, a)))
        .map((k): Vec3 => offsets.get(at(units, k).key) ?? [0, 0, 0]);
      const start = starts.find((one) => dot(one, way) > -1e-6) ?? [0, 0, 0];
      return { i, key, way, start };
    });
    for (let again = true; again; ) {
      again = false;
      for (const { i, way, start } of stands)
        for (const k of placed) {
          const clear = clearOf(at(units, i), at(units, k), way, {
            start,
            there: offsets.get(at(units, k).key) ?? [0, 0, 0],
            distance,
            gap,
          });
          if (clear > distance + 1e-6) {
            distance = clear;
            again = true;
          }
        }
    }
    for (const { i, key, way, start } of stands) {
      offsets.set(key, add(start, scale(way, distance)));
      placed.add(i);
    }
  }
  return offsets;
}

type Standing = {
  readonly start: Vec3;
  readonly there: Vec3;
  readonly distance: number;
  readonly gap: number;
};

/** From which distance on along its way a unit is clear of another by a gap, as far as the one that is asked. */
function clearOf(a: Unit, b: Unit, way: Vec3, { start, there, distance, gap }: Standing): number {
  const from: Vec3 = [start[0] - there[0], start[1] - there[1], start[2] - there[2]];
  // Far beside one another, whatever the distance is.
  for (const k of [0, 1, 2] as const) {
    if (Math.abs(way[k]) > 1e-9) continue;
    if (a.low[k] + from[k] >= b.high[k] || a.high[k] + from[k] <= b.low[k]) return distance;
  }
  let clear = distance;
  for (const p of a.parts)
    for (const q of b.parts) {
      const shared = sharedAlong(p, q, way, from);
      if (shared && clear > shared[0] - gap && clear < shared[1] + gap) clear = shared[1] + gap;
    }
  return clear;
}

function wholeSize(units: readonly Unit[]): number {
  const side = (k: 0 | 1 | 2) =>
    Math.max(0, ...units.map(({ high }) => high[k])) - Math.min(0, ...units.map(({ low }) => low[k]));
  return units.length === 0 ? 0 : Math.max(side(0), side(1), side(2));
}
