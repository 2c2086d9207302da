/**
 * What is wished for at the same cost: one long rest, then few different patterns. The rest is found by taking one bar
 * out: the others take as much as they can (patterns are priced for that, too), and what is left goes on the one. Both end
 * with a whole-number programme over the patterns at hand: good answers, not proven ones.
 */
import { at } from "../../kernel";
import { PatternProgram } from "./columns";
import { type BarInstance, fits } from "./instance";
import { bestFilling } from "./knapsack";
import {
  acceptor,
  clippedPlan,
  loadOf,
  mergedPlan,
  type Pattern,
  type Residual,
  type UsedPattern,
  wholeResidual,
} from "./pattern";
import type { Column, LinearSolver } from "./solver";

/** The longest rest that a plan leaves on one bar that is no rack piece and no bar with locked pieces. */
export function longestRest(instance: BarInstance, plan: readonly UsedPattern[]): number {
  return Math.max(0, ...plan.map((used) => restOf(instance, used.pattern)));
}
const restOf = (instance: BarInstance, pattern: Pattern) =>
  at(instance.types, pattern.type).capacity - loadOf(instance, pattern);

type Polish = {
  readonly solver: LinearSolver;
  readonly patterns: readonly Pattern[];
  readonly timeIsUp: () => boolean;
};

const REST_LIMITS = { seconds: 0.8, nodes: 400 };

/** A plan of the same bars with a longer rest on one of them, or null when none was found. */
export function withLongRest(
  instance: BarInstance,
  plan: readonly UsedPattern[],
  { solver, patterns, timeIsUp }: Polish,
): readonly UsedPattern[] | null {
  const used = usedOf(instance, plan);
  if (plan.reduce((sum, { times }) => sum + times, 0) < 2) return null;
  const program = new PatternProgram(instance, solver, "left");
  try {
    program.add([...patterns, ...plan.map(({ pattern }) => pattern)]);
    let best: readonly UsedPattern[] | null = null;
    const order = instance.types
      .map((_, t) => t)
      .filter((t) => at(used, t) > 0 && at(instance.types, t).fixed === null)
      .sort((a, b) => at(instance.types, b).capacity - at(instance.types, a).capacity);
    for (const t of order) {
      if (timeIsUp()) break;
      const longest = longestRest(instance, best ?? plan);
      const available = used.map((count, u) => (u === t ? count - 1 : count));
      if (restBound(instance, t, available) <= longest) continue;
      const found = oneBarOut(instance, program, { t, available, timeIsUp });
      if (found && longestRest(instance, found) > longest) best = found;
    }
    return best;
  } finally {
    program.dispose();
  }
}

/** Bars of each type: those that a plan uses, and all that cost nothing. */
function usedOf(instance: BarInstance, plan: readonly UsedPattern[]): readonly number[] {
  const used = instance.types.map((type) => (type.cost === 0 ? type.available : 0));
  for (const { pattern, times } of plan) {
    if (at(instance.types, pattern.type).cost > 0) used[pattern.type] = at(used, pattern.type) + times;
  }
  return used;
}

/** What the rest of a bar can be at most: all others as if filled without loss. */
function restBound(instance: BarInstance, t: number, available: readonly number[]): number {
  const load = instance.sizes.reduce((sum, size) => sum + size.weight * size.demand, 0);
  const others = available.reduce((sum, count, u) => sum + count * at(instance.types, u).capacity, 0);
  return at(instance.types, t).capacity - Math.max(0, load - others);
}

function oneBarOut(
  instance: BarInstance,
  program: PatternProgram,
  {
    t,
    available,
    timeIsUp,
  }: { readonly t: number; readonly available: readonly number[]; readonly timeIsUp: () => boolean },
): readonly UsedPattern[] | null {
  const residual: Residual = { ...wholeResidual(instance), available: [...available] };
  if (!program.solve(residual, timeIsUp) || timeIsUp()) return null;
  const whole = program.wholePlan(residual, REST_LIMITS);
  if (!whole) return null;
  const exact = clippedPlan(whole, residual);
  const type = at(instance.types, t);
  const last: Pattern = { type: t, counts: residual.demand };
  if (loadOf(instance, last) > type.capacity || !fits(instance, type, last.counts)) return null;
  return mergedPlan([
    ...exact,
    ...(last.counts.some((count) => count > 0) ? [{ pattern: last, times: 1 }] : []),
  ]);
}

const MOST_CANDIDATES = 160;
const PATTERN_LIMITS = { seconds: 0.8, nodes: 300 };

/** A plan of the same bars and with the same longest rest in fewer patterns, or null. */
export function withFewPatterns(
  instance: BarInstance,
  plan: readonly UsedPattern[],
  { solver, patterns }: Polish,
): readonly UsedPattern[] | null {
  if (plan.length < 4) return null;
  const longest = longestRest(instance, plan);
  const keptAt = plan.findIndex(({ pattern }) => restOf(instance, pattern) === longest);
  const kept = plan[keptAt]?.pattern;
  if (!kept) return null;
  const demand = instance.sizes.map((size, i) => size.demand - at(kept.counts, i));
  const used = usedOf(instance, plan).map((count, t) => (t === kept.type ? count - 1 : count));
  const candidates = candidatesOf(instance, plan, patterns, demand);
  const answer = fewest(instance, solver, { demand, used, candidates });
  if (!answer) return null;
  const residual: Residual = { demand: [...demand], available: [...used] };
  const exact = clippedPlan(answer, residual);
  if (residual.demand.some((rest) => rest > 0)) return null;
  const merged = mergedPlan([...exact, { pattern: kept, times: 1 }]);
  return merged.length < plan.length ? merged : null;
}

/** The plan's own patterns and the fullest of the others. */
function candidatesOf(
  instance: BarInstance,
  plan: readonly UsedPattern[],
  patterns: readonly Pattern[],
  demand: readonly number[],
): readonly Pattern[] {
  const own = plan.map(({ pattern }) => pattern);
  const others = patterns
    .filter((pattern) => pattern.counts.every((count, i) => count <= at(demand, i)))
    .sort((a, b) => restOf(instance, a) - restOf(instance, b))
    .slice(0, MOST_CANDIDATES - own.length);
  return [...own, ...others];
}

/** Minimises the number of patterns: each has a switch that is on when it is used at all. */
function fewest(
  instance: BarInstance,
  solver: LinearSolver,
  wanted: {
    readonly demand: readonly number[];
    readonly used: readonly number[];
    readonly candidates: readonly Pattern[];
  },
): readonly UsedPattern[] | null {
  const { demand, used, candidates } = wanted;
  const [sizes, types] = [instance.sizes.length, instance.types.length];
  const program = solver.createProgram(sizes + types + candidates.length);
  try {
    const switches: Column[] = [];
    program.addColumns(
      candidates.map((pattern, j): Column => {
        const rows = pattern.counts.flatMap((count, i) => (count > 0 ? [i] : []));
        const most = Math.min(
          at(used, pattern.type),
          ...rows.map((i) => Math.ceil(at(demand, i) / at(pattern.counts, i))),
        );
        switches.push({ cost: 1, rows: [sizes + types + j], values: [-Math.max(0, most)] });
        return {
          cost: 0,
          rows: [...rows, sizes + pattern.type, sizes + types + j],
          values: [...rows.map((i) => at(pattern.counts, i)), 1, 1],
        };
      }),
    );
    program.addColumns(switches);
    program.setRows(
      [
        ...demand,
        ...used.map(() => Number.NEGATIVE_INFINITY),
        ...candidates.map(() => Number.NEGATIVE_INFINITY),
      ],
      [...demand.map(() => Number.POSITIVE_INFINITY), ...used, ...candidates.map(() => 0)],
    );
    const answer = program.solveWhole(PATTERN_LIMITS);
    if (!answer) return null;
    return candidates.flatMap((pattern, j) => {
      const times = Math.round(answer[j] ?? 0);
      return times > 0 ? [{ pattern, times }] : [];
    });
  } finally {
    program.dispose();
  }
}

const FILL_NODES = 20_000;

/** Pieces moved from bought bars, the emptiest first, to rack pieces that a plan leaves unused. */
export function withRackFilled(instance: BarInstance, plan: readonly UsedPattern[]): readonly UsedPattern[] {
  const bars = plan.flatMap(({ pattern, times }) =>
    Array.from({ length: times }, () => ({ type: pattern.type, counts: [...pattern.counts] })),
  );
  const free = wholeResidual(instance).available.map(
    (count, t) => count - bars.filter(({ type }) => type === t).length,
  );
  const weights = instance.sizes.map((size) => size.weight);
  instance.types.forEach((type, t) => {
    for (let left = type.rack ? at(free, t) : 0; left > 0; left--) {
      const bought = bars
        .filter((bar) => !at(instance.types, bar.type).rack && at(instance.types, bar.type).fixed === null)
        .sort((a, b) => loadOf(instance, a) - loadOf(instance, b));
      const from = bought.find((bar) =>
        bar.counts.some((count, i) => count > 0 && at(weights, i) <= type.capacity),
      );
      if (!from) return;
      const filling = bestFilling(
        { weights, values: weights, limits: from.counts, capacity: type.capacity },
        0,
        FILL_NODES,
        acceptor(instance, t),
      );
      if (!filling.counts) return;
      const moved = filling.counts;
      from.counts = from.counts.map((count, i) => count - at(moved, i));
      bars.push({ type: t, counts: [...moved] });
    }
  });
  return mergedPlan(
    bars.filter(({ counts }) => counts.some((count) => count > 0)).map((pattern) => ({ pattern, times: 1 })),
  );
}

/** Rack pieces given back whose pieces find room on the other bars: none is cut up without need. */
export function withRackSpared(instance: BarInstance, plan: readonly UsedPattern[]): readonly UsedPattern[] {
  const weights = instance.sizes.map((size) => size.weight);
  let bars = plan
    .flatMap(({ pattern, times }) => Array.from({ length: times }, () => pattern))
    .map((pattern, key) => ({ key, type: pattern.type, counts: [...pattern.counts] }));
  const racked = bars
    .filter(({ type }) => at(instance.types, type).rack)
    .sort((a, b) => loadOf(instance, a) - loadOf(instance, b));
  for (const { key } of racked) {
    // Bars are made anew when one is given back, and may hold its pieces since: the key says which it is.
    const spared = bars.find((bar) => bar.key === key);
    const rest = [...(spared?.counts ?? [])];
    const others = bars
      .filter((bar) => bar !== spared)
      .map((bar) => {
        const room = at(instance.types, bar.type).capacity - loadOf(instance, bar);
        const filling = bestFilling(
          { weights, values: weights, limits: rest, capacity: room },
          0,
          FILL_NODES,
          (counts) =>
            fits(
              instance,
              at(instance.types, bar.type),
              counts.map((count, i) => count + at(bar.counts, i)),
            ),
        );
        const added = filling.counts ?? [];
        added.forEach((count, i) => {
          rest[i] = at(rest, i) - count;
        });
        return { ...bar, counts: bar.counts.map((count, i) => count + (added[i] ?? 0)) };
      });
    if (rest.every((count) => count === 0)) bars = others;
  }
  return mergedPlan(bars.map(({ type, counts }) => ({ pattern: { type, counts }, times: 1 })));
}
