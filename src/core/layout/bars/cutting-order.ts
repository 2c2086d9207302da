/**
 * The order in which bars are cut: one stop setting after the other, longest first, and at each setting the bars that
 * have pieces of it. A bar gives its pieces in any order, so a stop is set once for each length.
 */
import { at } from "../../kernel";
import { type BarLayout, type BarProblem, trims } from "./problem";

export type BarStep = {
  /** mm from stop to blade. */
  readonly setting: number;
  /** Pieces of that length, with how many come from each bar of a pattern. */
  readonly from: readonly {
    readonly pattern: number;
    readonly piece: number;
    /** On one bar. */
    readonly each: number;
    /** Bars of that pattern. */
    readonly bars: number;
  }[];
};

export type BarCuttingOrder = {
  readonly steps: readonly BarStep[];
  /** Cuts in all, trims and what parts the rest included. */
  readonly cuts: number;
};

/** The cutting order of a bar layout. */
export function barCuts(problem: BarProblem, layout: BarLayout): BarCuttingOrder {
  const byLength = new Map<number, BarStep["from"][number][]>();
  let cuts = 0;
  layout.bars.forEach((bar, pattern) => {
    const counts = new Map<number, number>();
    for (const piece of bar.pieces) counts.set(piece, (counts.get(piece) ?? 0) + 1);
    for (const [piece, each] of counts) {
      const { length } = at(problem.pieces, piece);
      byLength.set(length, [...(byLength.get(length) ?? []), { pattern, piece, each, bars: bar.times }]);
    }
    cuts += bar.times * cutsOf(problem, bar.pieces.length, bar.remainder);
  });
  const steps = [...byLength]
    .sort(([a], [b]) => b - a)
    .map(([setting, from]): BarStep => ({ setting, from }));
  return { steps, cuts };
}

/** One cut for each piece, less the last where nothing is left of the bar, and one more for a trim at the start. */
function cutsOf(problem: BarProblem, pieces: number, remainder: number): number {
  const { start, end } = trims(problem);
  const last = remainder > 0 || end > 0 ? 0 : 1;
  return pieces - last + (start > 0 ? 1 : 0);
}
