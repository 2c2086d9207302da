/**
 * Mixes of bars: how many of each length are bought. With several prices the linear bound lies between two sums that
 * exist, and many mixes cost something in between. Each of them, cheapest first, is either refuted (the linear programme
 * that minimises what is left over stays above zero) or searched for a packing. A mix is refuted with every smaller one.
 */
import { at, byTuple } from "../../kernel";
import { mixTypes, PatternProgram, refutes, wholeLoad } from "./columns";
import type { BarInstance } from "./instance";
import {
  clippedPlan,
  copyResidual,
  fixWholeParts,
  greedyPlan,
  isServed,
  type Pattern,
  type Residual,
  type UsedPattern,
  wholeResidual,
} from "./pattern";
import type { LinearSolver } from "./solver";

export type Mix = { readonly cost: number; readonly counts: readonly number[] };

const MOST_MIXES = 4000;

/**
 * The mixes that cost at least `from` and less than `below` and could hold all pieces, cheapest first; free bars stand in
 * every one. Null: too many.
 */
function mixesBetween(instance: BarInstance, from: number, below: number): readonly Mix[] | null {
  const types = mixTypes(instance);
  const load = wholeLoad(instance);
  const mixes: Mix[] = [];
  const counts = types.map((type) => (type.cost === 0 ? type.available : 0));
  const free = types.reduce(
    (sum, type) => sum + (type.cost === 0 && type.available > 0 ? type.available * type.holds : 0),
    0,
  );
  if (free === Number.POSITIVE_INFINITY) return null;
  const order = types
    .map((_, t) => t)
    .filter((t) => at(types, t).cost > 0)
    .sort((a, b) => at(types, b).cost - at(types, a).cost);
  let looked = 0;
  const visit = (k: number, cost: number, holds: number): boolean => {
    if (looked++ > 400_000 || mixes.length > MOST_MIXES) return false;
    const t = order[k];
    if (t === undefined) {
      if (cost >= from && holds >= load) mixes.push({ cost, counts: [...counts] });
      return true;
    }
    const type = at(types, t);
    const most = Math.min(type.available, Math.ceil((below - cost) / type.cost) - 1);
    // What the types after this one could hold at best for the money that is left.
    const rate = Math.max(0, ...order.slice(k + 1).map((u) => at(types, u).holds / at(types, u).cost));
    for (let n = Math.max(0, most); n >= 0; n--) {
      const spent = cost + n * type.cost;
      const held = holds + n * type.holds;
      if (held + (below - spent) * rate < load && rate <= type.holds / type.cost) break;
      if (held + (below - spent) * rate < load) continue;
      counts[t] = n;
      if (!visit(k + 1, spent, held)) return false;
    }
    counts[t] = 0;
    return true;
  };
  if (!visit(0, 0, free)) return null;
  return mixes.sort((a, b) => a.cost - b.cost || byTuple(b.counts, a.counts));
}

const DIVES_PER_MIX = 12;
const WHOLE_LIMITS = { seconds: 3, nodes: 1500 };

export type MixSearch = {
  readonly timeIsUp: () => boolean;
  /** Told with every plan that serves all pieces. */
  readonly offer: (plan: readonly UsedPattern[]) => void;
  /** Told with a cost below which no layout is possible. */
  readonly raise: (bound: number) => void;
  /** Cost of the best plan so far. */
  readonly best: () => number;
};

/** Walks the mixes between the bound and the best plan, refuting or filling each. */
export class MixWalk {
  private readonly instance: BarInstance;
  private readonly program: PatternProgram;
  private readonly search: MixSearch;
  private readonly refuted: Mix[] = [];

  constructor(instance: BarInstance, solver: LinearSolver, patterns: readonly Pattern[], search: MixSearch) {
    this.instance = instance;
    this.search = search;
    this.program = new PatternProgram(instance, solver, "left");
    this.program.add(patterns);
  }

  dispose(): void {
    this.program.dispose();
  }

  /** The patterns that stand for more objectives. */
  get patterns(): readonly Pattern[] {
    return this.program.patterns;
  }

  run(bound: number): void {
    const { search } = this;
    const mixes = mixesBetween(this.instance, bound, search.best());
    if (mixes === null) return;
    let open = Number.POSITIVE_INFINITY;
    for (const mix of mixes) {
      if (mix.cost >= search.best()) break;
      if (search.timeIsUp()) {
        open = Math.min(open, mix.cost);
        break;
      }
      if (this.isRefuted(mix)) continue;
      if (this.fill(mix)) break;
      open = Math.min(open, mix.cost);
    }
    search.raise(Math.min(open, search.best()));
  }

  private isRefuted(mix: Mix): boolean {
    if (this.refuted.some((known) => known.counts.every((count, t) => count >= at(mix.counts, t))))
      return true;
    const residual: Residual = { ...wholeResidual(this.instance), available: [...mix.counts] };
    const answer = this.program.solve(residual, this.search.timeIsUp);
    if (!answer || answer.objective < 1e-7 || !refutes(this.instance, answer.duals, mix.counts)) return false;
    this.refuted.push(mix);
    return true;
  }

  /** Dives and a whole-number programme within the bars of a mix; whether all pieces found a place. */
  private fill(mix: Mix): boolean {
    for (let first = 0; first < DIVES_PER_MIX && !this.search.timeIsUp(); first++)
      if (this.dive(mix, first)) return true;
    if (this.search.timeIsUp()) return false;
    const whole = { ...wholeResidual(this.instance), available: [...mix.counts] };
    const plan = this.program.wholePlan(whole, WHOLE_LIMITS);
    return plan !== null && this.complete(clippedPlan(plan, whole), whole);
  }

  /** Completes a plan greedily within the bars that are left; whether that placed all pieces. */
  private complete(plan: readonly UsedPattern[], residual: Residual): boolean {
    const rest = copyResidual(residual);
    const whole = [...plan, ...greedyPlan(this.instance, rest, "fullest")];
    if (!isServed(rest)) return false;
    this.search.offer(whole);
    return true;
  }

  private dive(mix: Mix, first: number): boolean {
    const residual: Residual = { ...wholeResidual(this.instance), available: [...mix.counts] };
    const fixed: UsedPattern[] = [];
    for (let depth = 0; !isServed(residual) && !this.search.timeIsUp(); depth++) {
      const answer = this.program.solve(residual, this.search.timeIsUp);
      if (!answer || answer.objective > 1e-6) return false;
      const how = { plan: fixed, skip: depth === 0 ? first : null };
      if (!fixWholeParts(residual, this.program.patterns, answer.primal, how)) return false;
      if (this.complete(fixed, residual)) return true;
    }
    if (!isServed(residual)) return false;
    this.search.offer(fixed);
    return true;
  }
}
