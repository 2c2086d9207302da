/**
 * Column generation for bar layouts (Gilmore and Gomory 1961): the linear programme over patterns, in
 * which each new pattern is the filling of a bar that the present duals value above its cost. Patterns
 * hold at most the demand of a size, which makes the bound tighter than unlimited ones.
 */
import { at } from "../../kernel";
import { type MixType, raisedToStep } from "../stock";
import { bestFilling, fillingBound } from "./knapsack";
import { type Pattern, type Residual, type UsedPattern, wholeResidual } from "./pattern";
import type { BarInstance } from "./problem";
import type { LinearAnswer, LinearProgram, LinearSolver } from "./solver";

const QUICK_NODES = 4_000;
const THOROUGH_NODES = 60_000;
const MOST_ROUNDS = 400;
/** Relative to the cost of a bar: a pattern that improves less is double noise. */
const IMPROVES = 1e-7;

export class PatternProgram {
  readonly patterns: Pattern[] = [];
  private readonly known = new Set<string>();
  private readonly program: LinearProgram;
  private readonly instance: BarInstance;

  constructor(instance: BarInstance, solver: LinearSolver) {
    this.instance = instance;
    this.program = solver.createProgram(instance.sizes.length + instance.types.length);
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
          cost: at(this.instance.types, pattern.type).cost,
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
    let answer = this.program.solve();
    for (let round = 0; round < MOST_ROUNDS && answer && !timeIsUp(); round++) {
      if (
        this.price(answer, residual, QUICK_NODES) === 0 &&
        this.price(answer, residual, THOROUGH_NODES) === 0
      )
        break;
      answer = this.program.solve();
    }
    return answer;
  }

  private price(answer: LinearAnswer, residual: Residual, nodes: number): number {
    const { sizes, types } = this.instance;
    const weights = sizes.map((size) => size.weight);
    const values = sizes.map((_, i) => Math.max(0, answer.duals[i] ?? 0));
    const found: Pattern[] = [];
    types.forEach((type, t) => {
      if (at(residual.available, t) <= 0) return;
      const worth = type.cost - (answer.duals[sizes.length + t] ?? 0);
      const floor = worth + IMPROVES * Math.max(1, type.cost);
      const filling = bestFilling(
        { weights, values, limits: residual.demand, capacity: type.capacity },
        floor,
        nodes,
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
      const times = Math.round(answer[i] ?? 0);
      return times > 0 ? [{ pattern, times }] : [];
    });
  }
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
  if (instance.types.some((type) => type.available !== Number.POSITIVE_INFINITY)) return 0;
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
