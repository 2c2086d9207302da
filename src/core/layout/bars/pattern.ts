/** Patterns: what comes out of one bar, and lists of them that serve the demand. */
import { at, byTuple } from "../../kernel";
import { type BarInstance, fits } from "./instance";
import { bestFilling } from "./knapsack";

/** `counts[i]` pieces of size class i on one bar of type `type`. */
export type Pattern = { readonly type: number; readonly counts: readonly number[] };
export type UsedPattern = { readonly pattern: Pattern; readonly times: number };

export type Residual = { readonly demand: number[]; readonly available: number[] };

export function wholeResidual(instance: BarInstance): Residual {
  return {
    demand: instance.sizes.map((size) => size.demand),
    available: instance.types.map((type) => type.available),
  };
}

export function copyResidual(residual: Residual): Residual {
  return { demand: [...residual.demand], available: [...residual.available] };
}

export const isServed = (residual: Residual) => residual.demand.every((rest) => rest <= 0);

export function loadOf(instance: BarInstance, pattern: Pattern): number {
  return pattern.counts.reduce((sum, count, i) => sum + count * at(instance.sizes, i).weight, 0);
}

export function costOfPlan(instance: BarInstance, plan: readonly UsedPattern[]): number {
  return plan.reduce((sum, { pattern, times }) => sum + times * at(instance.types, pattern.type).cost, 0);
}

/**
 * Takes a pattern as often as asked for, without cutting more than is wanted; gives how often it was taken. One without
 * pieces is none: it would be paid for and never cut.
 */
function take(residual: Residual, pattern: Pattern, times: number, plan: UsedPattern[]): number {
  if (pattern.counts.every((count) => count === 0)) return 0;
  let possible = Math.min(times, residual.available[pattern.type] ?? 0);
  pattern.counts.forEach((count, i) => {
    if (count > 0) possible = Math.min(possible, Math.floor(at(residual.demand, i) / count));
  });
  if (possible <= 0) return 0;
  pattern.counts.forEach((count, i) => {
    residual.demand[i] = at(residual.demand, i) - possible * count;
  });
  residual.available[pattern.type] = at(residual.available, pattern.type) - possible;
  plan.push({ pattern, times: possible });
  return possible;
}

/** The pattern without what is no longer wanted. */
function clipped(pattern: Pattern, demand: readonly number[]): Pattern {
  return { type: pattern.type, counts: pattern.counts.map((count, i) => Math.min(count, at(demand, i))) };
}

/** A plan that may cut too much, without what is not wanted; the residual is what is wanted after it. */
export function clippedPlan(plan: readonly UsedPattern[], residual: Residual): UsedPattern[] {
  const exact: UsedPattern[] = [];
  for (const { pattern, times } of plan) {
    for (let i = 0; i < times; i++) {
      const part = clipped(pattern, residual.demand);
      take(residual, part, 1, exact);
    }
  }
  return exact;
}

const FILL_NODES = 3000;

/** The fullest bar of a type with what is still wanted. */
function fullest(instance: BarInstance, type: number, demand: readonly number[]): Pattern | null {
  const weights = instance.sizes.map((size) => size.weight);
  const filling = bestFilling(
    { weights, values: weights, limits: demand, capacity: at(instance.types, type).capacity },
    0,
    FILL_NODES,
    acceptor(instance, type),
  );
  return filling.counts === null ? null : { type, counts: filling.counts };
}

/** What a knapsack must ask beyond weights: only where neighbours share cuts. */
export const acceptor = (instance: BarInstance, type: number) =>
  instance.orderer === null
    ? undefined
    : (counts: readonly number[]) => fits(instance, at(instance.types, type), counts);

/** Largest pieces first into one bar. */
function firstFit(instance: BarInstance, type: number, demand: readonly number[]): Pattern | null {
  const bar = at(instance.types, type);
  let room = bar.capacity;
  const counts = instance.sizes.map(() => 0);
  instance.sizes.forEach((size, i) => {
    counts[i] = Math.min(at(demand, i), Math.floor(room / size.weight));
    while (at(counts, i) > 0 && !fits(instance, bar, counts)) counts[i] = at(counts, i) - 1;
    room -= at(counts, i) * size.weight;
  });
  return counts.some((count) => count > 0) ? { type, counts } : null;
}

export type FillRule = "firstFit" | "fullest";

/**
 * Bar after bar: each time the type whose filling costs least for what it holds. Limited bars that cost
 * nothing are so used first. Stops when all is served or nothing fits any more.
 */
export function greedyPlan(instance: BarInstance, residual: Residual, rule: FillRule): UsedPattern[] {
  const plan: UsedPattern[] = [];
  const fill = rule === "firstFit" ? firstFit : fullest;
  while (!isServed(residual)) {
    let best: { readonly pattern: Pattern; readonly score: number } | null = null;
    for (let type = 0; type < instance.types.length; type++) {
      if (at(residual.available, type) <= 0) continue;
      const pattern = fill(instance, type, residual.demand);
      if (!pattern) continue;
      const load = loadOf(instance, pattern);
      const { cost, capacity } = at(instance.types, type);
      // A free bar is judged by how full it gets, so that it still comes before every priced one.
      const score = (cost + 1e-9 * capacity) / load;
      if (best === null || score < best.score) best = { pattern, score };
    }
    if (!best) break;
    if (take(residual, best.pattern, Number.MAX_SAFE_INTEGER, plan) === 0) break;
  }
  return plan;
}

/**
 * One step of a dive: what a linear answer uses whole is fixed. On the first step, or where nothing was whole, one pattern
 * with the greatest fraction besides; `skip` passes over that many of them, so that dives differ. Whether anything was fixed.
 */
export function fixWholeParts(
  residual: Residual,
  patterns: readonly Pattern[],
  primal: ArrayLike<number>,
  { plan, skip }: { readonly plan: UsedPattern[]; readonly skip: number | null },
): boolean {
  const whole = (i: number) => Math.floor((primal[i] ?? 0) + 1e-6);
  const order = patterns.map((_, i) => i).filter((i) => (primal[i] ?? 0) > 1e-7);
  let took = 0;
  for (const i of order) took += take(residual, at(patterns, i), whole(i), plan);
  if (took > 0 && skip === null) return true;
  const part = (i: number) => (primal[i] ?? 0) - whole(i);
  order.sort((a, b) => part(b) - part(a) || a - b);
  const pick = order[(skip ?? 0) % Math.max(1, order.length)];
  if (pick === undefined) return false;
  const one = clipped(at(patterns, pick), residual.demand);
  return take(residual, one, 1, plan) > 0 || took > 0;
}

/** The bars of a plan with equal patterns put together, in a fixed order. */
export function mergedPlan(plan: readonly UsedPattern[]): readonly UsedPattern[] {
  const merged = new Map<string, { pattern: Pattern; times: number }>();
  for (const { pattern, times } of plan) {
    const key = `${pattern.type}:${pattern.counts.join(",")}`;
    const known = merged.get(key);
    if (known) known.times += times;
    else merged.set(key, { pattern, times });
  }
  return [...merged.values()].sort(
    (a, b) =>
      b.times - a.times || a.pattern.type - b.pattern.type || byTuple(b.pattern.counts, a.pattern.counts),
  );
}
