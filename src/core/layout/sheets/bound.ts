/**
 * Lower bounds for sheet layouts. All of them hold for every layout without overlap, guillotine or not: the area of the
 * inflated pieces, dual feasible functions on both axes (Fekete and Schepers 2004; the threshold functions of Martello and
 * Vigo 1998; Carlier, Clautiaux and Moukrim 2007), and panels no two of which fit one sheet.
 */
import { at } from "../../kernel";
import { leastMixCost, type MixType } from "../stock";
import type { PanelClass, SheetInstance, SheetType } from "./instance";

/**
 * The least cost (or number, weighed with area) that any layout of all classes can have, raised to the
 * next cost that a mix of sheets of that area can have; `most` is the cost of a layout that exists.
 */
export function sheetBound(instance: SheetInstance, most: number): number {
  if (instance.classes.length === 0) return 0;
  const [only] = instance.types;
  const alone = instance.types.length === 1 && instance.begun.length === 0;
  const single = alone && only ? countBound(instance, only) * only.cost : 0;
  const bound = Math.max(areaBound(instance), single);
  return leastMixCost(mixTypes(instance), totalArea(instance.classes), bound, most);
}

const totalArea = (classes: readonly PanelClass[]) =>
  classes.reduce((sum, one) => sum + one.area * one.demand, 0);

/** Cheapest area first, limited sheets only as far as they go: the continuous relaxation. */
function areaBound(instance: SheetInstance): number {
  let rest = totalArea(instance.classes) - freeArea(instance);
  const cheapest = [...instance.types].sort(
    (a, b) => a.cost / (a.length * a.width) - b.cost / (b.length * b.width),
  );
  let cost = 0;
  for (const type of cheapest) {
    if (rest <= 0) break;
    const area = type.length * type.width;
    const sheets = Math.min(type.available, rest / area);
    cost += sheets * type.cost;
    rest -= sheets * area;
  }
  // A hair down before it is rounded up: the sum is made of doubles.
  return cost * (1 - 1e-12) - 1e-6;
}

/** What sheets with locked panels still hold, for nothing. */
function freeArea(instance: SheetInstance): number {
  return instance.begun.reduce((sum, { type, area }) => {
    const { length, width } = at(instance.types, type);
    return sum + Math.max(0, length * width - area);
  }, 0);
}

function mixTypes(instance: SheetInstance): readonly MixType[] {
  const types = instance.types.map(({ cost, length, width, available }) => ({
    cost,
    holds: length * width,
    available,
  }));
  const free = freeArea(instance);
  return free > 0 ? [...types, { cost: 0, holds: free, available: 1 }] : types;
}

/** A dual feasible function of a share of the sheet: no set of shares that sum to one ever sums to more under it. */
type Dual = (share: number) => number;

/** Above 1 − ε counts whole, below ε counts nothing, between counts as it is. */
const threshold =
  (epsilon: number): Dual =>
  (share) =>
    share > 1 - epsilon + 1e-12 ? 1 : share < epsilon - 1e-12 ? 0 : share;

/** Rounded to whole (k + 1)-ths (Fekete and Schepers 2004): what is no such part counts the next k-th below. */
const rounded =
  (k: number): Dual =>
  (share) => {
    const parts = share * (k + 1);
    const whole = Math.round(parts);
    return Math.abs(parts - whole) < 1e-9 ? share : Math.floor(parts) / k;
  };

/**
 * Carlier, Clautiaux and Moukrim 2007: above a half what is left of the sheet counts as the pieces of `size` that it still
 * takes.
 */
const counting =
  (size: number): Dual =>
  (share) => {
    const held = (room: number) => Math.floor(room / size + 1e-9);
    const all = held(1);
    if (all === 0) return share > 0.5 + 1e-12 ? 1 : 0;
    if (share > 0.5 + 1e-12) return (all - held(1 - share)) / all;
    return share >= size - 1e-12 ? 1 / all : 0;
  };

const MOST_SIZES = 40;

/** The functions that are worth trying for such shares. */
export function dualsFor(shares: readonly number[]): readonly Dual[] {
  const small = [...new Set(shares)].filter((share) => share <= 0.5).sort((a, b) => b - a);
  const step = Math.max(1, Math.ceil(small.length / MOST_SIZES));
  const sizes = small.filter((_, i) => i % step === 0);
  return [
    (share) => share,
    ...[...sizes, 0.5].map(threshold),
    ...[1, 2, 3, 4, 5, 6, 7].map(rounded),
    ...sizes.map(counting),
  ];
}

/** Sheets of one type that any layout needs, by the best pair of dual feasible functions over both axes. */
function countBound(instance: SheetInstance, type: SheetType): number {
  const shares = instance.classes.map((one) => ({
    demand: one.demand,
    turns: at(one.turns, instance.types.indexOf(type)).map(
      (turn) => [turn.length / type.length, turn.width / type.width] as const,
    ),
  }));
  const values = (axis: 0 | 1) => shares.flatMap(({ turns }) => turns.map((turn) => turn[axis]));
  const tables = ([0, 1] as const).map((axis) =>
    dualsFor(values(axis)).map((dual) => shares.map(({ turns }) => turns.map((turn) => dual(turn[axis])))),
  );
  const [along = [], across = []] = tables;
  let best = Math.max(1, incompatible(shares));
  for (const x of along) {
    for (const y of across) {
      let sum = 0;
      for (let c = 0; c < shares.length; c++) {
        const [xs, ys] = [at(x, c), at(y, c)];
        let least = at(xs, 0) * at(ys, 0);
        for (let t = 1; t < xs.length; t++) least = Math.min(least, at(xs, t) * at(ys, t));
        sum += at(shares, c).demand * least;
      }
      best = Math.max(best, Math.ceil(sum - 1e-6));
    }
  }
  return best;
}

type Shares = { readonly demand: number; readonly turns: readonly (readonly [number, number])[] };

/** Panels no two of which fit one sheet in any turn: as many sheets. Chosen greedily, the largest first. */
function incompatible(shares: readonly Shares[]): number {
  const apart = (a: Shares, b: Shares) =>
    a.turns.every(([ax, ay]) => b.turns.every(([bx, by]) => ax + bx > 1 + 1e-9 && ay + by > 1 + 1e-9));
  const chosen: Shares[] = [];
  let count = 0;
  for (const one of shares) {
    if (chosen.some((other) => !apart(one, other))) continue;
    const alone = !apart(one, one);
    count += alone ? 1 : one.demand;
    chosen.push(one);
  }
  return count;
}
