/** How far units stand from their places when all is apart: clear of one another, and near to what they belong to. */
import { add, dot, scale, type Vec3 } from "../geometry";
import { at } from "../kernel";
import { coveringFrom, type SeenFrom } from "./covering";
import { type Contacts, contactsOf, type Removal, volumeOf } from "./peeling";
import type { Unit } from "./units";
import { mayMeet, sharedAlong } from "./ways";

/** Gaps are so small a part of the whole. */
const PARTS = 12;

/** Where units stand that have come back, by their numbers, in mm off their places; those that never leave are not there. */
type Stand = ReadonlyMap<number, Vec3>;

const NOBODY: Stand = new Map();
const HERE: Vec3 = [0, 0, 0];

/** How what left together comes to what stands there already: as near as its gaps to all of that allow, and some gaps farther. */
type Coming = (removal: Removal, there: Stand, farther?: number) => Stand;

function comingBack(units: readonly Unit[], removals: readonly Removal[], contacts: Contacts): Coming {
  const numbers = new Map(units.map(({ key }, i) => [key, i]));
  const near = contacts.map((own) => own.map((one) => one.with));
  const gap = Math.max(10, wholeSize(units) / PARTS);
  const moving = new Set(removals.flatMap(({ units: leaving }) => leaving.map(({ key }) => key)));
  const still = [...units.keys()].filter((i) => !moving.has(at(units, i).key));
  return ({ units: coming }, stand, farther = 0) => {
    const there = new Map([...still.map((i) => [i, HERE] as const), ...stand]);
    let distance = gap;
    const stands = coming.map(({ key, way }) => {
      const i = numbers.get(key) ?? 0;
      // It goes along with the largest of what it stood by, unless that went against its way.
      const starts = at(near, i)
        .filter((k) => there.has(k))
        .sort((a, b) => volumeOf(at(units, b)) - volumeOf(at(units, a)))
        .map((k): Vec3 => there.get(k) ?? HERE);
      const start = starts.find((one) => dot(one, way) > -1e-6) ?? HERE;
      return { i, way, start };
    });
    const clear = () => {
      for (let again = true; again; ) {
        again = false;
        for (const { i, way, start } of stands)
          for (const [k, by] of there) {
            const standing = { start, there: by, distance, gap };
            const from = clearOf(at(units, i), at(units, k), way, standing);
            if (from > distance + 1e-6) {
              distance = from;
              again = true;
            }
          }
      }
    };
    clear();
    if (farther > 0) {
      distance += farther * gap;
      clear();
    }
    return new Map([
      ...stand,
      ...stands.map(({ i, way, start }) => [i, add(start, scale(way, distance))] as const),
    ]);
  };
}

const byKey = (units: readonly Unit[], stand: Stand): ReadonlyMap<string, Vec3> =>
  new Map([...stand].map(([i, by]) => [at(units, i).key, by]));

/**
 * Offsets of units in the order in which they come back: each stands off the neighbour that it stood by, along its way, with a gap to
 * all that is there already. What leaves together stands equally far.
 */
export function offsetsOf(
  units: readonly Unit[],
  removals: readonly Removal[],
  contacts: Contacts = contactsOf(units),
): ReadonlyMap<string, Vec3> {
  const come = comingBack(units, removals, contacts);
  return byKey(
    units,
    removals.reduceRight((stand, removal) => come(removal, stand), NOBODY),
  );
}

/** Above this many units no ways are lengthened. */
const MOST_LENGTHENED = 150;
/** By so many gaps a way is tried longer. */
const LONGER: readonly number[] = [1, 2, 4, 7];
/** A unit may cover so much more of another than it does in the whole. */
const MORE = 0.02;
/** A longer way has to uncover so much of one unit, over all. */
const WORTH = 0.02;
const MOST_ROUNDS = 3;

/**
 * Offsets as `offsetsOf` has them, with longer ways where a unit would cover another more than it does in the whole and a longer
 * way helps against it.
 */
export function offsetsSeen(
  units: readonly Unit[],
  removals: readonly Removal[],
  contacts: Contacts,
  from: SeenFrom,
): ReadonlyMap<string, Vec3> {
  const come = comingBack(units, removals, contacts);
  const back = [...removals].reverse();
  const farther = back.map(() => 0);
  /** What stands there before each comes, and at the end. */
  const standsFrom = (first: number, start: Stand): readonly Stand[] => {
    const stands = [start];
    for (let r = first; r < back.length; r++)
      stands.push(come(at(back, r), at(stands, stands.length - 1), farther[r]));
    return stands;
  };
  let stands = standsFrom(0, NOBODY);
  const last = (all: readonly Stand[]) => at(all, all.length - 1);
  if (units.length > MOST_LENGTHENED) return byKey(units, last(stands));
  const tooMuch = coveredMore(units, from);
  for (let round = 0, better = true; better && round < MOST_ROUNDS; round++) {
    better = false;
    for (let r = 0; r < back.length; r++) {
      const before = at(farther, r);
      let best: { readonly gain: number; readonly gaps: number; readonly tail: readonly Stand[] } | null =
        null;
      for (const gaps of LONGER) {
        farther[r] = before + gaps;
        const tail = standsFrom(r, at(stands, r));
        const gain = tooMuch(last(stands), last(tail)) - tooMuch(last(tail), last(stands));
        if (gain > (best?.gain ?? 0) + WORTH) best = { gain, gaps, tail };
      }
      farther[r] = before + (best?.gaps ?? 0);
      if (!best) continue;
      stands = [...stands.slice(0, r), ...best.tail];
      better = true;
    }
  }
  return byKey(units, last(stands));
}

/**
 * How much units that stand elsewhere than in another stand cover, or are covered, more than in the whole: the sum of shares, over what
 * is let go.
 */
function coveredMore(units: readonly Unit[], from: SeenFrom): (stand: Stand, other: Stand) => number {
  const share = coveringFrom(units, from);
  const count = units.length;
  const whole = new Float32Array(count * count);
  for (let i = 0; i < count; i++)
    for (let k = 0; k < count; k++) if (i !== k) whole[i * count + k] = share(i, k, () => HERE);
  return (stand, other) => {
    const offset = (i: number) => stand.get(i) ?? HERE;
    const more = (i: number, k: number) =>
      Math.max(0, share(i, k, offset) - (whole[i * count + k] as number) - MORE);
    const moved = new Set(
      [...stand.keys()].filter((i) => {
        const [a, b] = [offset(i), other.get(i) ?? HERE];
        return a.some((value, axis) => value !== b[axis]);
      }),
    );
    let sum = 0;
    for (const i of moved)
      for (let k = 0; k < count; k++) {
        if (k === i) continue;
        sum += more(i, k);
        if (!moved.has(k)) sum += more(k, i);
      }
    return sum;
  };
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
  if (!mayMeet(a, b, way, from)) return distance;
  let clear = distance;
  for (const p of a.parts)
    for (const q of b.parts) {
      if (!mayMeet(p, q, way, from)) continue;
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
