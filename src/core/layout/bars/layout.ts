/**
 * Bar layouts: greedy fillings for an answer at once, column generation for the bound, dives with
 * re-pricing and a small integer programme for the layout. Deterministic for the same input and
 * solver; the deadline only ends it early.
 */
import { at, fromNm, invariant } from "../../kernel";
import { leastMixCost } from "../stock";
import { exactBound, materialBound, mixTypes, PatternProgram, wholeLoad } from "./columns";
import {
  clipped,
  copyResidual,
  costOfPlan,
  greedyPlan,
  isServed,
  loadOf,
  mergedPlan,
  type Pattern,
  type Residual,
  take,
  type UsedPattern,
  wholeResidual,
} from "./pattern";
import {
  type BarInstance,
  type BarLayout,
  type BarProblem,
  type CutBar,
  prepare,
  type Unplaced,
  usableLength,
} from "./problem";
import type { LinearSolver } from "./solver";
import { verifyBars } from "./verify";

export type BarProgress = { readonly best: BarLayout };

export type BarOptions = {
  readonly solver: LinearSolver;
  /** Milliseconds by any clock that only moves forward. */
  readonly now: () => number;
  readonly budgetMs: number;
  readonly onProgress?: (progress: BarProgress) => void;
};

const DIVES = 24;
const WHOLE_LIMITS = { seconds: 4, nodes: 2000 };

/** Lays pieces out on bars. The problem must have been read by `BarProblemSchema`. */
export function layOutBars(problem: BarProblem, options: BarOptions): BarLayout {
  const { instance, unplaced } = prepare(problem);
  const search = new BarSearch(problem, instance, unplaced, options);
  const layout = search.run();
  const fault = verifyBars(problem, layout);
  invariant(fault === null, `bar layout is not valid: ${fault}`);
  return layout;
}

class BarSearch {
  private readonly problem: BarProblem;
  private readonly instance: BarInstance;
  private readonly unplaced: readonly Unplaced[];
  private readonly options: BarOptions;
  private readonly deadline: number;
  private best: readonly UsedPattern[] = [];
  private bound = 0;
  private shortfall = false;

  constructor(
    problem: BarProblem,
    instance: BarInstance,
    unplaced: readonly Unplaced[],
    options: BarOptions,
  ) {
    this.problem = problem;
    this.instance = instance;
    this.unplaced = unplaced;
    this.options = options;
    this.deadline = options.now() + options.budgetMs;
  }

  run(): BarLayout {
    const { instance } = this;
    if (instance.sizes.length === 0) return this.layout();
    this.start();
    this.options.onProgress?.({ best: this.layout() });
    if (!this.shortfall && !this.isProven()) this.improve();
    return this.layout();
  }

  private readonly timeIsUp = () => this.options.now() > this.deadline;
  private isProven(): boolean {
    return !this.shortfall && costOfPlan(this.instance, this.best) <= this.bound;
  }

  /** The greedy answers; when limited stock runs out, what is left is told and nothing is called proven. */
  private start(): void {
    const { instance } = this;
    const answers = (["firstFit", "fullest"] as const).map((rule) => {
      const residual = wholeResidual(instance);
      return { plan: greedyPlan(instance, residual, rule), served: isServed(residual) };
    });
    const served = answers.filter((answer) => answer.served);
    this.shortfall = served.length === 0;
    this.best = at(answers, 1).plan;
    for (const { plan } of served.length > 0 ? served : answers) this.offer(plan);
    if (!this.shortfall) this.raiseBound(materialBound(instance));
  }

  /** To the next cost that a mix of bars holding all pieces can have. */
  private raiseBound(bound: number): void {
    const { instance } = this;
    const most = costOfPlan(instance, this.best);
    this.bound = Math.max(this.bound, leastMixCost(mixTypes(instance), wholeLoad(instance), bound, most));
  }

  private offer(plan: readonly UsedPattern[]): boolean {
    const merged = mergedPlan(plan);
    if (this.shortfall) {
      const placed = (p: readonly UsedPattern[]) =>
        p.reduce((sum, { pattern, times }) => sum + times * loadOf(this.instance, pattern), 0);
      if (this.best.length === 0 || placed(merged) > placed(this.best)) this.best = merged;
      return false;
    }
    if (this.best.length > 0 && comparePlans(this.instance, merged, this.best) >= 0) return false;
    const cheaper =
      this.best.length === 0 || costOfPlan(this.instance, merged) < costOfPlan(this.instance, this.best);
    this.best = merged;
    if (cheaper) this.options.onProgress?.({ best: this.layout() });
    return cheaper;
  }

  private improve(): void {
    const program = new PatternProgram(this.instance, this.options.solver);
    try {
      program.add(startingPatterns(this.instance, this.best));
      const whole = wholeResidual(this.instance);
      const root = program.solve(whole, this.timeIsUp);
      if (!root) return;
      this.raiseBound(exactBound(this.instance, root.duals));
      this.options.onProgress?.({ best: this.layout() });
      for (let first = 0; first < DIVES && !this.isProven() && !this.timeIsUp(); first++)
        this.dive(program, first);
      if (this.isProven() || this.timeIsUp()) return;
      const plan = program.wholePlan(whole, WHOLE_LIMITS);
      if (plan) this.offer(this.completed(plan));
    } finally {
      program.dispose();
    }
  }

  /** Fixes whole parts of the linear answer, solves the rest again, and completes greedily at each step. */
  private dive(program: PatternProgram, first: number): void {
    const residual = wholeResidual(this.instance);
    const fixed: UsedPattern[] = [];
    for (let depth = 0; !isServed(residual) && !this.timeIsUp(); depth++) {
      const answer = program.solve(residual, this.timeIsUp);
      if (!answer) return;
      if (
        costOfPlan(this.instance, fixed) + Math.ceil(answer.objective - 1e-6) >=
        costOfPlan(this.instance, this.best)
      )
        return;
      const order = program.patterns.map((_, i) => i).filter((i) => (answer.primal[i] ?? 0) > 1e-7);
      let took = 0;
      for (const i of order)
        took += take(residual, at(program.patterns, i), Math.floor((answer.primal[i] ?? 0) + 1e-6), fixed);
      if (took === 0 || depth === 0) {
        const part = (i: number) => (answer.primal[i] ?? 0) - Math.floor((answer.primal[i] ?? 0) + 1e-6);
        order.sort((a, b) => part(b) - part(a) || a - b);
        const skip = depth === 0 ? first : 0;
        const pick = order[skip % Math.max(1, order.length)];
        if (pick === undefined) break;
        const one = clipped(at(program.patterns, pick), residual.demand);
        if (take(residual, one, 1, fixed) === 0 && took === 0) break;
      }
      this.offer(this.completion(fixed, residual));
      if (this.isProven()) return;
    }
    if (isServed(residual)) this.offer(fixed);
  }

  private completion(fixed: readonly UsedPattern[], residual: Residual): readonly UsedPattern[] {
    const rest = copyResidual(residual);
    const plan = [...fixed, ...greedyPlan(this.instance, rest, "fullest")];
    return isServed(rest) ? plan : this.best;
  }

  /** A plan that may cut too much, made into one that cuts just what is wanted. */
  private completed(plan: readonly UsedPattern[]): readonly UsedPattern[] {
    const residual = wholeResidual(this.instance);
    const exact: UsedPattern[] = [];
    for (const { pattern, times } of plan) {
      for (let i = 0; i < times; i++) {
        const part = clipped(pattern, residual.demand);
        if (part.counts.some((count) => count > 0)) take(residual, part, 1, exact);
      }
    }
    return this.completion(exact, residual);
  }

  private layout(): BarLayout {
    return toLayout(this.problem, this.instance, this.best, {
      bound: this.bound,
      proven: this.isProven(),
      unplaced: this.unplaced,
    });
  }
}

/** Cost first, then the longest single remainder, then the number of different patterns. */
function comparePlans(instance: BarInstance, a: readonly UsedPattern[], b: readonly UsedPattern[]): number {
  const cost = costOfPlan(instance, a) - costOfPlan(instance, b);
  if (cost !== 0) return cost;
  const longest = (plan: readonly UsedPattern[]) =>
    Math.max(
      ...plan.map(({ pattern }) => at(instance.types, pattern.type).capacity - loadOf(instance, pattern)),
    );
  return longest(b) - longest(a) || a.length - b.length;
}

/** The greedy patterns and, for every size and type, bars filled with that size alone. */
function startingPatterns(instance: BarInstance, plan: readonly UsedPattern[]): readonly Pattern[] {
  const single = instance.types.flatMap((type, t) =>
    instance.sizes.flatMap((size, i): Pattern[] => {
      const count = Math.min(size.demand, Math.floor(type.capacity / size.weight));
      return count === 0 ? [] : [{ type: t, counts: instance.sizes.map((_, k) => (k === i ? count : 0)) }];
    }),
  );
  return [...plan.map(({ pattern }) => pattern), ...single];
}

type Outcome = { readonly bound: number; readonly proven: boolean; readonly unplaced: readonly Unplaced[] };

function toLayout(
  problem: BarProblem,
  instance: BarInstance,
  plan: readonly UsedPattern[],
  outcome: Outcome,
): BarLayout {
  const queues = instance.sizes.map((size) => [...size.pieces]);
  const bars = plan.flatMap((used) => toBars(problem, instance, used, queues));
  const left = queues.flat();
  const short = [...new Set(left)].map(
    (piece): Unplaced => ({
      piece,
      qty: left.filter((one) => one === piece).length,
      why: "the limited stock is used up",
    }),
  );
  const count = plan.reduce((sum, { times }) => sum + times, 0);
  const cost = costOfPlan(instance, plan);
  const lowerBound = instance.priced ? outcome.bound / 10_000 : countBound(instance, outcome, count);
  return {
    bars: mergedBars(bars),
    cost: instance.priced ? cost / 10_000 : problem.stock.every((bar) => bar.price === 0) ? 0 : null,
    count,
    lowerBound,
    lowerBoundOf: instance.priced ? "cost" : "count",
    proven: outcome.proven && short.length === 0,
    unplaced: [...outcome.unplaced, ...short],
  };
}

/** Without prices the cost weighs a bar and its length; the number of bars alone is bounded from it. */
function countBound(instance: BarInstance, outcome: Outcome, count: number): number {
  if (outcome.proven) return count;
  const dearest = Math.max(0, ...instance.types.map((type) => type.cost));
  return dearest === 0 ? 0 : Math.min(count, Math.ceil(outcome.bound / dearest));
}

/** Pieces of one length but from different rows of the problem are dealt out in order, bar by bar. */
function toBars(
  problem: BarProblem,
  instance: BarInstance,
  { pattern, times }: UsedPattern,
  queues: number[][],
): readonly CutBar[] {
  const { stock } = at(instance.types, pattern.type);
  const bars: CutBar[] = [];
  for (let i = 0; i < times; i++) {
    const pieces = pattern.counts.flatMap((count, size) => at(queues, size).splice(0, count));
    bars.push({ stock, times: 1, pieces, remainder: remainderOf(problem, stock, pieces) });
  }
  return bars;
}

/** What is left of a bar after its pieces and the cut that parts them from the rest; never below zero. */
export function remainderOf(problem: BarProblem, stock: number, pieces: readonly number[]): number {
  const nm = (mm: number) => Math.round(mm * 1e6);
  const used = pieces.reduce(
    (sum, piece) => sum + nm(at(problem.pieces, piece).length) + nm(problem.kerf),
    0,
  );
  return fromNm(Math.max(0, nm(usableLength(problem, stock)) - used));
}

function mergedBars(bars: readonly CutBar[]): readonly CutBar[] {
  const merged = new Map<string, CutBar>();
  for (const bar of bars) {
    const key = `${bar.stock}:${bar.pieces.join(",")}`;
    const known = merged.get(key);
    merged.set(key, known ? { ...known, times: known.times + bar.times } : bar);
  }
  return [...merged.values()];
}
