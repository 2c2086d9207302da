/**
 * Bar layouts as a problem file (4-architecture.md, "Layout problem files") and as exact integers.
 * n pieces fit a bar when their lengths and n − 1 kerfs are at most its usable length; with
 * w = length + kerf and C = usable + kerf that is Σw ≤ C.
 */
import * as v from "valibot";
import { at, fromNm, toNm } from "../../kernel";
import { scaledInteger } from "../../measure";
import { allowance, divisor, pieceCount, stockSize } from "../stock";

const count = pieceCount(100_000);

export const BarProblemSchema = v.object({
  kerf: allowance,
  /** Cut off at each end of a bar, its own kerf included. */
  trim: v.optional(v.union([allowance, v.object({ start: allowance, end: allowance })]), 0),
  stock: v.pipe(
    v.array(
      v.object({
        length: stockSize,
        price: v.optional(v.nullable(v.pipe(v.number(), v.finite(), v.minValue(0))), null),
        count: v.optional(v.nullable(count), null),
      }),
    ),
    v.maxLength(200),
  ),
  pieces: v.pipe(v.array(v.object({ length: stockSize, qty: count })), v.maxLength(20_000)),
});
export type BarProblem = v.InferOutput<typeof BarProblemSchema>;

export type CutBar = {
  /** Index into the problem's stock. */
  readonly stock: number;
  readonly times: number;
  /** Indices into the problem's pieces, one for each piece on the bar, longest first. */
  readonly pieces: readonly number[];
  /** mm left after the last cut; the cut that parts it has taken its kerf. */
  readonly remainder: number;
};

export type Unplaced = { readonly piece: number; readonly qty: number; readonly why: string };

export type BarLayout = {
  readonly bars: readonly CutBar[];
  /** Sum of prices; null when a price is missing. */
  readonly cost: number | null;
  readonly count: number;
  /** In the unit of `lowerBoundOf`: no layout of these pieces can be below it. */
  readonly lowerBound: number;
  readonly lowerBoundOf: "cost" | "count";
  readonly proven: boolean;
  readonly unplaced: readonly Unplaced[];
};

/** A stock size in integers. `available` is infinite when there is no limit. */
export type BarType = {
  readonly stock: number;
  readonly capacity: number;
  readonly cost: number;
  readonly available: number;
};

/** Pieces of one length, taken together. */
export type SizeClass = {
  readonly weight: number;
  readonly demand: number;
  readonly pieces: readonly number[];
};

/** The problem on the integer grid (nanometres divided by their common divisor), sizes longest first. */
export type BarInstance = {
  readonly sizes: readonly SizeClass[];
  readonly types: readonly BarType[];
  /** Whether `cost` is money (in 1/10,000) or stands for number, then length, of bars. */
  readonly priced: boolean;
  readonly unitNm: number;
};

/** What is cut off at either end of a bar. */
export const trims = (problem: BarProblem) =>
  typeof problem.trim === "number" ? { start: problem.trim, end: problem.trim } : problem.trim;

/** mm of a bar that pieces and kerfs may take. */
export function usableLength(problem: BarProblem, stock: number): number {
  const { start, end } = trims(problem);
  return fromNm(toNm(at(problem.stock, stock).length) - toNm(start) - toNm(end));
}

/** Splits off what fits no bar, merges equal lengths and turns everything into integers. */
export function prepare(problem: BarProblem): {
  readonly instance: BarInstance;
  readonly unplaced: readonly Unplaced[];
} {
  const kerfNm = toNm(problem.kerf);
  const capacities = problem.stock.map((_, stock) => toNm(usableLength(problem, stock)) + kerfNm);
  const usable = problem.stock.map((bar, stock) =>
    (bar.count ?? 1) > 0 && at(capacities, stock) - kerfNm > 0 ? at(capacities, stock) : 0,
  );
  const widest = Math.max(0, ...usable);
  const unplaced: Unplaced[] = [];
  const merged = new Map<number, { demand: number; pieces: number[] }>();
  problem.pieces.forEach((piece, index) => {
    if (piece.qty === 0) return;
    const weight = toNm(piece.length) + kerfNm;
    if (weight > widest) {
      unplaced.push({ piece: index, qty: piece.qty, why: tooLong(problem, piece.length, widest - kerfNm) });
      return;
    }
    const known = merged.get(weight) ?? { demand: 0, pieces: [] };
    known.demand += piece.qty;
    for (let i = 0; i < piece.qty; i++) known.pieces.push(index);
    merged.set(weight, known);
  });
  const weights = [...merged.keys()].sort((a, b) => b - a);
  const unitNm = weights.reduce(divisor, 0) || 1;
  // Bars that all cost nothing are told apart by number and length, like bars without a price.
  const priced =
    problem.stock.every((bar) => bar.price !== null) && problem.stock.some((bar) => bar.price !== 0);
  const costs = problem.stock.map((bar) => barCost(problem, bar, priced));
  const types = problem.stock.flatMap((bar, stock): BarType[] => {
    const capacity = Math.floor(at(usable, stock) / unitNm);
    return capacity > 0
      ? [{ stock, capacity, cost: at(costs, stock), available: bar.count ?? Number.POSITIVE_INFINITY }]
      : [];
  });
  const sizes = weights.map((weight): SizeClass => {
    const { demand, pieces } = merged.get(weight) ?? { demand: 0, pieces: [] };
    return { weight: weight / unitNm, demand, pieces };
  });
  return { instance: { sizes, types, priced, unitNm }, unplaced };
}

function tooLong(problem: BarProblem, length: number, widestNm: number): string {
  if (problem.stock.length === 0) return "there is no stock for it";
  const longest = fromNm(Math.max(0, widestNm));
  const { start, end } = trims(problem);
  const trimmed = start + end > 0 ? " after its trims" : "";
  return `longer than every bar: ${length} mm, the longest bar gives ${longest} mm${trimmed}`;
}

/**
 * Money in 1/10,000. Without prices: the number of bars first, their total length in tenths of a
 * millimetre second, so one bar weighs more than any difference in length could.
 */
function barCost(problem: BarProblem, bar: BarProblem["stock"][number], priced: boolean): number {
  if (priced) return Number(scaledInteger(bar.price ?? 0, 4));
  const pieces = problem.pieces.reduce((sum, piece) => sum + piece.qty, 0);
  const tenths = Math.round(bar.length * 10);
  const longest = Math.max(...problem.stock.map((one) => Math.round(one.length * 10)));
  return longest * Math.min(pieces + 1, 2000) + tenths;
}
