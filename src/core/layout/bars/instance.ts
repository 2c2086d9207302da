/**
 * A bar problem on the integer grid: equal pieces merged, bars that cannot be used left out, locked pieces taken off the
 * bars they stand on. With w = length + kerf and C = usable + kerf, pieces fit a bar when Σw ≤ C. Where ends lean or mitred neighbours
 * share cuts, w is the least that a piece can take (so a bound made of it holds) and `fits` orders the bar to be exact.
 */
import { at, fromNm, toNm } from "../../kernel";
import { PLAIN_MM, sayLength, scaledInteger } from "../../measure";
import { divisor, type UnplacedReason } from "../stock";
import { BarOrderer, type EndClass, endKey, endLossNm, halfCutNm, usedWays } from "./mitre";
import { type BarProblem, trims, type Unplaced, usableLength } from "./problem";

/** A stock size, or one bar with locked pieces, in integers. `available` is infinite when there is no limit. */
export type BarType = {
  readonly stock: number;
  readonly capacity: number;
  readonly cost: number;
  readonly available: number;
  readonly usableNm: number;
  readonly rack: boolean;
  /** Index into the problem's fixed bars; null: a bar that is not begun. */
  readonly fixed: number | null;
};

/** Pieces of one length and one pair of ends, taken together. */
export type SizeClass = {
  readonly weight: number;
  readonly demand: number;
  readonly pieces: readonly number[];
  readonly midNm: number;
  readonly endClass: number;
};

/** The problem on the integer grid (nanometres divided by their common divisor), sizes longest first. */
export type BarInstance = {
  readonly sizes: readonly SizeClass[];
  readonly types: readonly BarType[];
  /** Whether `cost` is money (in 1/10,000) or stands for number, then length, of bars. */
  readonly priced: boolean;
  readonly unitNm: number;
  /** Cost of the bars that hold locked pieces: spent whatever else is done. */
  readonly sunk: number;
  /** Orders bars whose neighbours share cuts; null: every end is cut by itself. */
  readonly orderer: BarOrderer | null;
  readonly endClasses: number;
  /** Locked pieces of each fixed bar by end class, with the sum of their mid-lengths. */
  readonly locked: readonly { readonly midNm: number; readonly ends: readonly number[] }[];
};

/** Whether pieces fit a bar of a type together with what is locked on it. */
export function fits(instance: BarInstance, type: BarType, counts: readonly number[]): boolean {
  if (instance.orderer === null) return true;
  let midNm = 0;
  const ends = endCounts(instance, counts);
  counts.forEach((count, i) => {
    midNm += count * at(instance.sizes, i).midNm;
  });
  const locked = type.fixed === null ? null : at(instance.locked, type.fixed);
  const all = locked ? ends.map((count, c) => count + at(locked.ends, c)) : ends;
  return midNm + (locked?.midNm ?? 0) + instance.orderer.order(all).extraNm <= type.usableNm;
}

/** Pieces of each end class. */
function endCounts(instance: BarInstance, counts: readonly number[]): readonly number[] {
  const ends = new Array<number>(instance.endClasses).fill(0);
  counts.forEach((count, i) => {
    const { endClass } = at(instance.sizes, i);
    ends[endClass] = (ends[endClass] ?? 0) + count;
  });
  return ends;
}

/** Why the locked pieces of a problem cannot stay on their bars, as the end of a sentence; null: they can. */
export function lockedBarFault(problem: BarProblem): string | null {
  const left = problem.pieces.map((piece) => piece.qty);
  const bars = problem.stock.map((bar) => bar.count ?? Number.POSITIVE_INFINITY);
  const { instance } = prepare(problem);
  for (const [i, { stock, pieces }] of problem.fixed.entries()) {
    bars[stock] = at(bars, stock) - 1;
    if (at(bars, stock) < 0) return "there are fewer bars than hold locked pieces";
    if (new Set(pieces.map(({ place }) => place)).size < pieces.length)
      return `on bar ${i + 1} two of them have one place`;
    const sum = pieces.reduce((total, { piece }) => total + toNm(at(problem.pieces, piece).length), 0);
    const locked = at(instance.locked, i);
    // Leaning ends take more or less than square ones: the shortest order decides.
    const taken = instance.orderer
      ? locked.midNm + instance.orderer.order(locked.ends).extraNm
      : sum + (pieces.length - 1) * toNm(problem.kerf);
    const over = taken - toNm(usableLength(problem, stock));
    if (over > 0)
      return `on bar ${i + 1} they are ${sayLength(fromNm(over), problem.style ?? PLAIN_MM)} too long together`;
    for (const { piece } of pieces) left[piece] = at(left, piece) - 1;
  }
  const more = left.findIndex((count) => count < 0);
  return more < 0 ? null : `piece ${more} is locked more often than it is wanted`;
}

/** What one piece of the problem takes. */
type Taken = { readonly weightNm: number; readonly midNm: number; readonly endClass: number };

/** Splits off what fits no bar, merges equal pieces and turns everything into integers. */
export function prepare(problem: BarProblem): {
  readonly instance: BarInstance;
  readonly unplaced: readonly Unplaced[];
} {
  const kerfNm = toNm(problem.kerf);
  const sharing = problem.pieces.some(({ ends }) => ends?.angles.some((angle) => angle !== 0));
  const ends = endClasses(problem, sharing);
  const slack = sharing ? slackNm(ends.classes, kerfNm, problem.share) : kerfNm;
  const taken = problem.pieces.map((piece, i): Taken => {
    const endClass = at(ends.of, i);
    if (!sharing) return { weightNm: toNm(piece.length) + kerfNm, midNm: toNm(piece.length), endClass };
    const way = at(at(ends.classes, endClass).ways, 0);
    const midNm = toNm(piece.length) - endLossNm(way.left) - endLossNm(way.right);
    const halves = halfCutNm(way.left, kerfNm) + halfCutNm(way.right, kerfNm);
    // Tip to tip nothing is saved: the whole length counts, which keeps the search from filling bars in vain.
    const least = problem.share ? midNm : toNm(piece.length);
    return { midNm, endClass, weightNm: Math.floor(least + halves) };
  });
  const usableNm = problem.stock.map((_, stock) => toNm(usableLength(problem, stock)));
  const rest = problem.pieces.map((piece) => piece.qty);
  for (const bar of problem.fixed) for (const { piece } of bar.pieces) rest[piece] = at(rest, piece) - 1;
  const widest = Math.max(0, ...problem.stock.map((bar, i) => (bar.count === 0 ? 0 : at(usableNm, i))));
  const unplaced: Unplaced[] = [];
  const merged = new Map<string, Taken & { demand: number; pieces: number[] }>();
  problem.pieces.forEach((piece, index) => {
    const qty = at(rest, index);
    if (qty <= 0) return;
    if (toNm(piece.length) > widest) {
      unplaced.push({ piece: index, qty, why: tooLong(problem, piece.length, widest) });
      return;
    }
    const own = at(taken, index);
    const key = sharing ? `${own.weightNm}:${own.midNm}:${own.endClass}` : String(own.weightNm);
    const known = merged.get(key) ?? { ...own, demand: 0, pieces: [] };
    known.demand += qty;
    for (let i = 0; i < qty; i++) known.pieces.push(index);
    merged.set(key, known);
  });
  const classes = [...merged.values()].sort((a, b) => b.weightNm - a.weightNm || a.endClass - b.endClass);
  const unitNm = sharing ? 1 : classes.reduce((common, one) => divisor(common, one.weightNm), 0) || 1;
  const priced = isPriced(problem);
  const costs = problem.stock.map((bar) => barCost(problem, bar, priced));
  const instance: BarInstance = {
    sizes: classes.map(({ weightNm, demand, pieces, midNm, endClass }) => ({
      weight: weightNm / unitNm,
      demand,
      pieces,
      midNm,
      endClass,
    })),
    types: typesOf(problem, { costs, usableNm, taken, slack, unitNm }),
    priced,
    unitNm,
    sunk: problem.fixed.reduce((sum, bar) => sum + at(costs, bar.stock), 0),
    orderer: sharing ? new BarOrderer(ends.classes, kerfNm, problem.share) : null,
    endClasses: ends.classes.length,
    locked: problem.fixed.map((bar) => {
      const counts = ends.classes.map(() => 0);
      for (const { piece } of bar.pieces) {
        const { endClass } = at(taken, piece);
        counts[endClass] = at(counts, endClass) + 1;
      }
      return { ends: counts, midNm: bar.pieces.reduce((sum, { piece }) => sum + at(taken, piece).midNm, 0) };
    }),
  };
  return { instance, unplaced };
}

/** Bars that all cost nothing are told apart by number and length, like bars without a price. */
const isPriced = (problem: BarProblem) =>
  problem.stock.every((bar) => bar.price !== null) && problem.stock.some((bar) => bar.price !== 0);

function endClasses(problem: BarProblem, sharing: boolean) {
  const byKey = new Map<string, number>();
  const classes: EndClass[] = [];
  const of = problem.pieces.map((piece) => {
    const ways = usedWays(sharing ? piece.ends : null, problem.share);
    const key = endKey(ways);
    const known = byKey.get(key);
    if (known !== undefined) return known;
    byKey.set(key, classes.length);
    classes.push({ key, ways });
    return classes.length - 1;
  });
  return { classes, of };
}

/** A bar's ends need no cut, but lose what their slope takes: the most that this can leave over. */
function slackNm(classes: readonly EndClass[], kerfNm: number, share: boolean): number {
  const slopes = classes.flatMap(({ ways }) => ways.flatMap(({ left, right }) => [left, right]));
  return Math.ceil(
    2 * Math.max(...slopes.map((slope) => halfCutNm(slope, kerfNm) - (share ? endLossNm(slope) : 0))),
  );
}

type Grid = {
  readonly costs: readonly number[];
  readonly usableNm: readonly number[];
  readonly taken: readonly Taken[];
  readonly slack: number;
  readonly unitNm: number;
};

function typesOf(problem: BarProblem, { costs, usableNm, taken, slack, unitNm }: Grid): readonly BarType[] {
  const begun = problem.stock.map((_, stock) => problem.fixed.filter((bar) => bar.stock === stock).length);
  const whole = problem.stock.map((bar, stock): BarType => {
    const usable = at(usableNm, stock);
    return {
      stock,
      usableNm: usable,
      capacity: usable > 0 ? Math.floor((usable + slack) / unitNm) : 0,
      cost: at(costs, stock),
      available: bar.count === null ? Number.POSITIVE_INFINITY : bar.count - at(begun, stock),
      rack: bar.rack !== null,
      fixed: null,
    };
  });
  const open = problem.fixed.map((bar, fixed): BarType => {
    const usable = at(usableNm, bar.stock);
    const locked = bar.pieces.reduce((sum, { piece }) => sum + at(taken, piece).weightNm, 0);
    return {
      stock: bar.stock,
      usableNm: usable,
      capacity: Math.floor((usable + slack - locked) / unitNm),
      cost: 0,
      available: 1,
      rack: false,
      fixed,
    };
  });
  return [...whole, ...open].filter(({ capacity, available }) => capacity > 0 && available > 0);
}

function tooLong(problem: BarProblem, length: number, widestNm: number): UnplacedReason {
  if (problem.stock.length === 0) return { kind: "noStock" };
  const { start, end } = trims(problem);
  return {
    kind: "tooLong",
    length,
    longest: fromNm(Math.max(0, widestNm)),
    trimmed: start + end + problem.grip > 0,
  };
}

/**
 * Money in 1/10,000. Without prices: the number of bars first, their total length in tenths of a
 * millimetre second, so one bar weighs more than any difference in length could.
 */
function barCost(problem: BarProblem, bar: BarProblem["stock"][number], priced: boolean): number {
  if (priced) return Number(scaledInteger(bar.price ?? 0, 4));
  // A rack piece is there already: it is not bought.
  if (bar.rack !== null) return 0;
  const pieces = problem.pieces.reduce((sum, piece) => sum + piece.qty, 0);
  const tenths = Math.round(bar.length * 10);
  const longest = Math.max(...problem.stock.map((one) => Math.round(one.length * 10)));
  return longest * Math.min(pieces + 1, 2000) + tenths;
}
