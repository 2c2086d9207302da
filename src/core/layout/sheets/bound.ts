/**
 * Lower bounds for sheet layouts. All of them hold for every layout without overlap, guillotine or not:
 * the area of the inflated pieces, and dual feasible functions on both axes (Fekete and Schepers 2004;
 * the threshold functions of Martello and Vigo 1998).
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

/** Above 1 − ε counts whole, below ε counts nothing, between counts as it is. */
function threshold(share: number, epsilon: number): number {
  if (epsilon === 0) return share;
  if (share > 1 - epsilon) return 1;
  return share < epsilon ? 0 : share;
}

/** Sheets of one type that any layout needs, by the best pair of threshold functions. */
function countBound(instance: SheetInstance, type: SheetType): number {
  const shares = instance.classes.map((one) => ({
    demand: one.demand,
    turns: at(one.turns, instance.types.indexOf(type)).map(
      (turn) => [turn.length / type.length, turn.width / type.width] as const,
    ),
  }));
  const candidates = (axis: 0 | 1) => {
    const values = shares
      .flatMap(({ turns }) => turns.map((turn) => turn[axis]))
      .filter((share) => share <= 0.5);
    return [0, ...new Set(values), 0.5].slice(0, 60);
  };
  let best = 1;
  for (const ex of candidates(0)) {
    for (const ey of candidates(1)) {
      let sum = 0;
      for (const { demand, turns } of shares) {
        sum += demand * Math.min(...turns.map(([x, y]) => threshold(x, ex) * threshold(y, ey)));
      }
      best = Math.max(best, Math.ceil(sum - 1e-6));
    }
  }
  return best;
}
