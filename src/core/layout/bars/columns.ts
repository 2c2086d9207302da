/**
 * Column generation for bar layouts (Gilmore and Gomory 1961): the linear programme over patterns, in
 * which each new pattern is the filling of a bar that the present duals value above its cost. Patterns
 * hold at most the demand of a size, which makes the bound tighter than unlimited ones.
 */
import { at } from "../../kernel";
import { type MixType, raisedToStep } from "../stock";
import type { BarInstance } from "./instance";
import { bestFilling, fillingBound } from "./knapsack";
import { acceptor, type Pattern, type Residual, type UsedPattern, wholeResidual } from "./pattern";
import type { LinearAnswer, LinearProgram, LinearSolver } from "./solver";

const QUICK_NODES = 4_000;
const THOROUGH_NODES = 60_000;
const MOST_ROUNDS = 400;
/** Relative to the cost of a bar (or to one): a pattern that improves less is double noise. */
const IMPROVES = 1e-7;

/** What the programme minimises: what bars cost, or the length of pieces that find no bar. */
export type Minimised = "cost" | "left";

export class PatternProgram {
  readonly patterns: Pattern[] = [];
  private readonly known = new Set<string>();
  private readonly program: LinearProgram;
  private readonly instance: BarInstance;
  private readonly minimised: Minimised;

  constructor(instance: BarInstance, solver: LinearSolver, minimised: Minimised = "cost") {
    this.instance = instance;
    this.minimised = minimised;
    this.program = solver.createProgram(instance.sizes.length + instance.types.length);
    if (minimised === "left") {
      const unit = leftUnit(instance);
      this.program.addColumns(
        instance.sizes.map((size, i) => ({ cost: size.weight / unit, rows: [i], values: [1] })),
      );
    }
  }

  /** Columns before the patterns: single pieces that are left over. */
  private get singles(): number {
    return this.minimised === "left" ? this.instance.sizes.length : 0;
  }
  private costOf(type: number): number {
    return this.minimised === "left" ? 0 : at(this.instance.types, type).cost;
  }

  dispose(): void {
    this.program.dispose();
  }

  add(patterns: readonly Pattern[]): number {
    const fresh = patterns.filter((pattern) => {
      const key = `${pattern.type}:${pattern.counts.join(",")}`;
      if (this.known.has(key)) return false;
      this.known.add(key);
      return true;
    });
    this.program.addColumns(
      fresh.map((pattern) => {
        const rows: number[] = [];
        const values: number[] = [];
        pattern.counts.forEach((count, i) => {
          if (count > 0) {
            rows.push(i);
            values.push(count);
          }
        });
        return {
          cost: this.costOf(pattern.type),
          rows: [...rows, this.instance.sizes.length + pattern.type],
          values: [...values, 1],
        };
      }),
    );
    this.patterns.push(...fresh);
    return fresh.length;
  }

  /** Solves for a residual, adding patterns until none improves, the rounds are used up or time is over. */
  solve(residual: Residual, timeIsUp: () => boolean): LinearAnswer | null {
    const { sizes, types } = this.instance;
    const lower = [...residual.demand, ...types.map(() => Number.NEGATIVE_INFINITY)];
    const upper = [...sizes.map(() => Number.POSITIVE_INFINITY), ...residual.available];
    this.program.setRows(lower, upper);
    let answer = this.answer();
    for (let round = 0; round < MOST_ROUNDS && answer && !timeIsUp(); round++) {
      if (
        this.price(answer, residual, QUICK_NODES) === 0 &&
        this.price(answer, residual, THOROUGH_NODES) === 0
      )
        break;
      answer = this.answer();
    }
    return answer;
  }

  /** The linear answer, its primal values those of the patterns alone. */
  private answer(): LinearAnswer | null {
    const answer = this.program.solve();
    if (!answer || this.singles === 0) return answer;
    return { ...answer, primal: Array.from(answer.primal).slice(this.singles) };
  }

  private price(answer: LinearAnswer, residual: Residual, nodes: number): number {
    const { sizes, types } = this.instance;
    const weights = sizes.map((size) => size.weight);
    const values = sizes.map((_, i) => Math.max(0, answer.duals[i] ?? 0));
    const found: Pattern[] = [];
    types.forEach((type, t) => {
      if (at(residual.available, t) <= 0) return;
      const cost = this.costOf(t);
      const worth = cost - (answer.duals[sizes.length + t] ?? 0);
      const floor = worth + IMPROVES * Math.max(1, cost);
      const filling = bestFilling(
        { weights, values, limits: residual.demand, capacity: type.capacity },
        floor,
        nodes,
        acceptor(this.instance, t),
      );
      if (filling.counts) found.push({ type: t, counts: filling.counts });
    });
    return this.add(found);
  }

  /** A whole-numbered plan over the patterns at hand; it may cut more than is wanted. */
  wholePlan(
    residual: Residual,
    limits: { readonly seconds: number; readonly nodes: number },
  ): readonly UsedPattern[] | null {
    const { sizes, types } = this.instance;
    this.program.setRows(
      [...residual.demand, ...types.map(() => Number.NEGATIVE_INFINITY)],
      [...sizes.map(() => Number.POSITIVE_INFINITY), ...residual.available],
    );
    const answer = this.program.solveWhole(limits);
    if (!answer) return null;
    return this.patterns.flatMap((pattern, i) => {
      const times = Math.round(answer[i + this.singles] ?? 0);
      return times > 0 ? [{ pattern, times }] : [];
    });
  }
}

/** The scale of what is left: the longest bar counts one. */
const leftUnit = (instance: BarInstance) => Math.max(1, ...instance.types.map((type) => type.capacity));

const LEFT_SCALE = 1e7;

/**
 * Whether no packing of all pieces exists with at most `available` bars of each type, shown in whole numbers by the duals
 * of a programme that minimises what is left: Σ πd − Σ available · (best filling at π) above zero.
 */
export function refutes(
  instance: BarInstance,
  duals: ArrayLike<number>,
  available: readonly number[],
): boolean {
  const values = instance.sizes.map((_, i) => Math.max(0, Math.floor((duals[i] ?? 0) * LEFT_SCALE)));
  const weights = instance.sizes.map((size) => size.weight);
  const limits = wholeResidual(instance).demand;
  let sum = values.reduce((total, value, i) => total + value * at(instance.sizes, i).demand, 0);
  for (const [t, type] of instance.types.entries()) {
    const count = at(available, t);
    if (count === 0) continue;
    sum -= count * fillingBound({ weights, values, limits, capacity: type.capacity });
    if (sum <= 0) return false;
  }
  return sum > 0;
}

const DUAL_SCALE = 1000;

/**
 * A lower bound on the cost of any layout, in whole numbers throughout, so that it does not hang on the
 * solver's rounding: duals are rounded down, each bar type's best filling is bounded exactly, and the
 * duals are scaled until no unlimited bar is worth more than its cost; limited bars pay their excess.
 */
export function exactBound(instance: BarInstance, duals: ArrayLike<number>): number {
  const values = instance.sizes.map((_, i) => Math.max(0, Math.floor((duals[i] ?? 0) * DUAL_SCALE)));
  const weights = instance.sizes.map((size) => size.weight);
  const limits = wholeResidual(instance).demand;
  const worth = instance.types.map((type) =>
    BigInt(fillingBound({ weights, values, limits, capacity: type.capacity })),
  );
  let over = 1n;
  let under = 1n;
  instance.types.forEach((type, t) => {
    const cost = BigInt(type.cost) * BigInt(DUAL_SCALE);
    const value = at(worth, t);
    if (type.available === Number.POSITIVE_INFINITY && value * over > cost * under) {
      over = cost;
      under = value;
    }
  });
  let sum =
    values.reduce((total, value, i) => total + BigInt(value) * BigInt(at(instance.sizes, i).demand), 0n) *
    over;
  instance.types.forEach((type, t) => {
    if (type.available === Number.POSITIVE_INFINITY) return;
    const excess = at(worth, t) * over - BigInt(type.cost) * BigInt(DUAL_SCALE) * under;
    if (excess > 0n) sum -= BigInt(type.available) * excess;
  });
  if (sum <= 0n) return 0;
  const scale = under * BigInt(DUAL_SCALE);
  return raisedToStep(mixTypes(instance), Number((sum + scale - 1n) / scale));
}

/** The bound that needs no solver: all material together, at the least cost of a unit of bar. */
export function materialBound(instance: BarInstance): number {
  const load = wholeLoad(instance);
  const least = Math.min(...instance.types.map((type) => type.cost / type.capacity));
  // Rounded down a little before rounding up: the quotient is a double.
  return Number.isFinite(least)
    ? raisedToStep(mixTypes(instance), Math.ceil(load * least * (1 - 1e-12) - 1e-6))
    : 0;
}

/** The bar types as stock whose mixes can be weighed. */
export function mixTypes(instance: BarInstance): readonly MixType[] {
  return instance.types.map(({ cost, capacity, available }) => ({ cost, holds: capacity, available }));
}

export function wholeLoad(instance: BarInstance): number {
  return instance.sizes.reduce((sum, size) => sum + size.weight * size.demand, 0);
}
