/**
 * Bar layouts: greedy fillings for an answer at once, column generation for the bound, dives with
 * re-pricing and a small integer programme for the layout. Deterministic for the same input and
 * solver; the deadline only ends it early.
 */
import { at, invariant } from "../../kernel";
import { leastMixCost } from "../stock";
import { exactBound, materialBound, mixTypes, PatternProgram, wholeLoad } from "./columns";
import { type BarInstance, fits, prepare } from "./instance";
import { MixWalk } from "./mixes";
import {
  clippedPlan,
  copyResidual,
  costOfPlan,
  type FillRule,
  fixWholeParts,
  greedyPlan,
  isServed,
  loadOf,
  mergedPlan,
  type Pattern,
  type Residual,
  type UsedPattern,
  wholeResidual,
} from "./pattern";
import { longestRest, withFewPatterns, withLongRest, withRackFilled, withRackSpared } from "./polish";
import type { BarLayout, BarProblem, Unplaced } from "./problem";
import { toLayout } from "./result";
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
/** Dives before mixes of several stock lengths are weighed one by one. */
const FIRST_DIVES = 3;
const POLISH_SHARE = 0.15;
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
    if (!this.shortfall) this.improve();
    return this.layout();
  }

  private readonly timeIsUp = () => this.options.now() > this.deadline;
  private isProven(): boolean {
    return !this.shortfall && costOfPlan(this.instance, this.best) <= this.bound;
  }

  /** The greedy answers, first-fit told at once; when limited stock runs out, what is left is told and nothing is called proven. */
  private start(): void {
    const { instance } = this;
    const tried = (rule: FillRule) => {
      const residual = wholeResidual(instance);
      return { plan: greedyPlan(instance, residual, rule), served: isServed(residual) };
    };
    const first = tried("firstFit");
    this.best = first.plan;
    this.shortfall = !first.served;
    this.options.onProgress?.({ best: this.layout() });
    const second = tried("fullest");
    if (second.served && this.shortfall) {
      this.shortfall = false;
      this.best = second.plan;
    } else if (second.served || this.shortfall) this.offer(second.plan);
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
      if (placed(merged) > placed(this.best)) this.best = merged;
      return false;
    }
    if (comparePlans(this.instance, this.problem.rackFirst, merged, this.best) >= 0) return false;
    const cheaper = costOfPlan(this.instance, merged) < costOfPlan(this.instance, this.best);
    this.best = merged;
    if (cheaper) this.options.onProgress?.({ best: this.layout() });
    return cheaper;
  }

  private improve(): void {
    const program = new PatternProgram(this.instance, this.options.solver);
    try {
      program.add(startingPatterns(this.instance, this.best));
      if (!this.isProven()) this.cheapen(program);
      this.options.onProgress?.({ best: this.layout() });
      this.polish(program.patterns);
    } finally {
      program.dispose();
    }
  }

  /** Bound and cost: the linear programme, dives, mixes of bars where there are several, a whole-number programme last. */
  private cheapen(program: PatternProgram): void {
    const whole = wholeResidual(this.instance);
    const root = program.solve(whole, this.timeIsUp);
    if (!root) return;
    this.raiseBound(exactBound(this.instance, root.duals));
    this.options.onProgress?.({ best: this.layout() });
    const several = this.instance.types.filter((type) => type.cost > 0).length > 1;
    const dives = several ? FIRST_DIVES : DIVES;
    for (let first = 0; first < dives && !this.isProven() && !this.timeIsUp(); first++)
      this.dive(program, first);
    if (this.instance.types.length > 1) this.walkMixes(program);
    for (let first = dives; first < DIVES && !this.isProven() && !this.timeIsUp(); first++)
      this.dive(program, first);
    if (this.isProven() || this.timeIsUp()) return;
    const plan = program.wholePlan(whole, WHOLE_LIMITS);
    if (plan) this.offer(this.completed(plan));
  }

  private walkMixes(program: PatternProgram): void {
    if (this.isProven() || this.timeIsUp()) return;
    const walk = new MixWalk(this.instance, this.options.solver, program.patterns, {
      timeIsUp: this.timeIsUp,
      offer: (plan) => this.offer(plan),
      raise: (bound) => {
        this.bound = Math.max(this.bound, Math.min(bound, costOfPlan(this.instance, this.best)));
      },
      best: () => costOfPlan(this.instance, this.best),
    });
    try {
      walk.run(this.bound);
      program.add(walk.patterns);
    } finally {
      walk.dispose();
    }
  }

  /** At the cost that was found: the rack as it is wished, one long rest, few patterns. */
  private polish(patterns: readonly Pattern[]): void {
    const { instance } = this;
    const racked = this.problem.rackFirst ? withRackFilled : withRackSpared;
    if (instance.types.some((type) => type.rack)) this.offer(racked(instance, this.best));
    // A proven cost is told before this; it takes a share of the time, since it only makes a good answer handier.
    const share = Math.min(this.deadline, this.options.now() + POLISH_SHARE * this.options.budgetMs);
    const timeIsUp = () => this.options.now() > share;
    const how = { solver: this.options.solver, patterns, timeIsUp };
    if (this.timeIsUp()) return;
    const long = withLongRest(instance, this.best, how);
    if (long) this.offer(long);
    if (this.timeIsUp()) return;
    const few = withFewPatterns(instance, this.best, how);
    if (few) this.offer(few);
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
      const how = { plan: fixed, skip: depth === 0 ? first : null };
      if (!fixWholeParts(residual, program.patterns, answer.primal, how)) break;
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
    const exact = clippedPlan(plan, residual);
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

/** Cost first; then what stands in the rack, as it is wished; the longest single rest; the number of patterns. */
function comparePlans(
  instance: BarInstance,
  rackFirst: boolean,
  a: readonly UsedPattern[],
  b: readonly UsedPattern[],
): number {
  const cost = costOfPlan(instance, a) - costOfPlan(instance, b);
  if (cost !== 0) return cost;
  const rack = onRack(instance, rackFirst, b) - onRack(instance, rackFirst, a);
  if (rack !== 0) return rack;
  return longestRest(instance, b) - longestRest(instance, a) || a.length - b.length;
}

/** How well the rack is used: the more length cut from it the better, or the fewer of its pieces. */
function onRack(instance: BarInstance, rackFirst: boolean, plan: readonly UsedPattern[]): number {
  return plan.reduce((sum, { pattern, times }) => {
    if (!at(instance.types, pattern.type).rack) return sum;
    return sum + times * (rackFirst ? loadOf(instance, pattern) : -1);
  }, 0);
}

/** The greedy patterns and, for every size and type, bars filled with that size alone. */
function startingPatterns(instance: BarInstance, plan: readonly UsedPattern[]): readonly Pattern[] {
  const single = instance.types.flatMap((type, t) =>
    instance.sizes.flatMap((size, i): Pattern[] => {
      let count = Math.min(size.demand, Math.floor(type.capacity / size.weight));
      const counts = () => instance.sizes.map((_, k) => (k === i ? count : 0));
      while (count > 0 && !fits(instance, type, counts())) count--;
      return count === 0 ? [] : [{ type: t, counts: counts() }];
    }),
  );
  return [...plan.map(({ pattern }) => pattern), ...single];
}
