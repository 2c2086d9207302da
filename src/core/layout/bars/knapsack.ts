/**
 * The bounded knapsack that prices bar patterns: which pieces, at most so many of each, fill a bar with
 * the greatest value. Depth-first branch and bound with a limit of nodes (so that the same input gives
 * the same answer on every machine), and an upper bound in whole numbers for proofs.
 */
import { at } from "../../kernel";

export type Knapsack = {
  readonly weights: readonly number[];
  readonly values: readonly number[];
  readonly limits: readonly number[];
  readonly capacity: number;
};

/** `counts` is null when nothing above `floor` was found; `complete` when the search was not cut off. */
export type Filling = {
  readonly value: number;
  readonly counts: readonly number[] | null;
  readonly complete: boolean;
};

/**
 * The best filling with a value above `floor`, looking at no more than `nodes` nodes. `accepts` is asked of a filling that
 * would be the best so far; taking pieces out of an accepted filling must give another one.
 */
export function bestFilling(
  knapsack: Knapsack,
  floor: number,
  nodes: number,
  accepts?: (counts: readonly number[]) => boolean,
): Filling {
  const { weights, values, limits, capacity } = knapsack;
  const order = weights
    .map((_, i) => i)
    .filter((i) => at(values, i) > 0 && at(limits, i) > 0 && at(weights, i) <= capacity)
    .sort(
      (a, b) =>
        at(values, b) / at(weights, b) - at(values, a) / at(weights, a) ||
        at(weights, b) - at(weights, a) ||
        a - b,
    );
  const n = order.length;
  const w = order.map((i) => at(weights, i));
  const p = order.map((i) => at(values, i));
  const most = order.map((i) => at(limits, i));
  const ratio = p.map((value, k) => value / at(w, k));
  const lightest = new Array<number>(n + 1).fill(Number.POSITIVE_INFINITY);
  for (let k = n - 1; k >= 0; k--) lightest[k] = Math.min(at(lightest, k + 1), at(w, k));
  const counts = new Array<number>(n).fill(0);
  let best: number[] | null = null;
  let bestValue = floor;
  let left = nodes;

  const whole = (): number[] => {
    const full = new Array<number>(weights.length).fill(0);
    order.forEach((i, k) => {
      full[i] = at(counts, k);
    });
    return full;
  };

  const search = (k: number, room: number, value: number): void => {
    if (value > bestValue) {
      const full = whole();
      if (!accepts || accepts(full)) {
        bestValue = value;
        best = full;
      }
    }
    // The guard keeps a node whose bound ties within double noise: slower, never wrong.
    if (
      k === n ||
      room < (lightest[k] ?? 0) ||
      value + room * (ratio[k] ?? 0) <= bestValue - 1e-9 * Math.abs(bestValue)
    )
      return;
    if (left-- <= 0) return;
    const weight = w[k] ?? 1;
    const gain = p[k] ?? 0;
    const top = Math.min(most[k] ?? 0, Math.floor(room / weight));
    for (let c = top; c >= 0; c--) {
      counts[k] = c;
      search(k + 1, room - c * weight, value + c * gain);
      if (left <= 0) break;
    }
    counts[k] = 0;
  };
  search(0, capacity, 0);
  const found: readonly number[] | null = best;
  if (found === null) return { value: bestValue, counts: null, complete: left > 0 };
  return { value: bestValue, counts: found, complete: left > 0 };
}

const PROOF_NODES = 300_000;
const PROOF_CELLS = 20_000;

/**
 * A whole number that no filling exceeds; values must be whole. Exact when branch and bound ends;
 * otherwise a dynamic programme over weights rounded down to a step, which only lets more in.
 */
export function fillingBound(knapsack: Knapsack): number {
  const exact = bestFilling(knapsack, -1, PROOF_NODES);
  if (exact.complete) return Math.max(0, exact.value);
  const step = Math.max(1, Math.ceil(knapsack.capacity / PROOF_CELLS));
  const cells = Math.floor(knapsack.capacity / step);
  const best = new Float64Array(cells + 1);
  let free = 0;
  knapsack.weights.forEach((weight, i) => {
    const value = at(knapsack.values, i);
    let copies = Math.min(at(knapsack.limits, i), Math.floor(knapsack.capacity / weight));
    const size = Math.floor(weight / step);
    if (value <= 0 || copies <= 0) return;
    if (size === 0) {
      free += value * copies;
      return;
    }
    for (let bundle = 1; copies > 0; bundle *= 2) {
      const taken = Math.min(bundle, copies);
      copies -= taken;
      const width = taken * size;
      const gain = taken * value;
      for (let c = cells; c >= width; c--) {
        const candidate = (best[c - width] ?? 0) + gain;
        if (candidate > (best[c] ?? 0)) best[c] = candidate;
      }
    }
  });
  return (best[cells] ?? 0) + free;
}
