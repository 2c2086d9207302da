/**
 * The order in which bars are cut: one saw after the other, at each one stop setting after the other, longest first, and at
 * each setting the bars that have pieces of it. A bar gives its pieces in any order, so a stop is set once for each length;
 * where neighbours share a cut they follow one another on the bar, and the step says which way round each piece lies.
 */
import { at } from "../../kernel";
import { type BarLayout, type BarProblem, type PieceTurn, trims } from "./problem";
import { sharedBy } from "./result";

export type BarStep = {
  /** Index of the saw that `sawOf` named. */
  readonly saw: number;
  /** mm from stop to blade. */
  readonly setting: number;
  /** Pieces of that length, with how many come from each bar of a pattern. */
  readonly from: readonly {
    readonly pattern: number;
    readonly piece: number;
    readonly turn: PieceTurn | null;
    /** On one bar. */
    readonly each: number;
    /** Bars of that pattern. */
    readonly bars: number;
  }[];
};

export type BarCuttingOrder = {
  readonly steps: readonly BarStep[];
  /** Cuts in all, trims and what parts the rest included; a cut that two pieces share is one. */
  readonly cuts: number;
};

/** The cutting order of a bar layout; `sawOf` names the saw of each piece of the problem. */
export function barCuts(
  problem: BarProblem,
  layout: BarLayout,
  sawOf: (piece: number) => number = () => 0,
): BarCuttingOrder {
  const steps = new Map<string, { saw: number; setting: number; from: BarStep["from"][number][] }>();
  let cuts = 0;
  layout.bars.forEach((bar, pattern) => {
    const counts = new Map<string, { piece: number; turn: PieceTurn | null; each: number }>();
    bar.pieces.forEach((piece, place) => {
      const turn = bar.turns?.[place] ?? null;
      const key = `${piece}:${turn}`;
      const known = counts.get(key);
      if (known) known.each++;
      else counts.set(key, { piece, turn, each: 1 });
    });
    for (const { piece, turn, each } of counts.values()) {
      const { length } = at(problem.pieces, piece);
      const saw = sawOf(piece);
      const key = `${saw}:${length}`;
      const step = steps.get(key) ?? { saw, setting: length, from: [] };
      step.from.push({ pattern, piece, turn, each, bars: bar.times });
      steps.set(key, step);
    }
    cuts += bar.times * cutsOf(problem, bar.pieces.length, bar.remainder);
  });
  const shared = problem.share ? sharedBy(problem, layout.bars).cuts : 0;
  const mitred = leaningNeighbours(problem, layout);
  return {
    steps: [...steps.values()].sort((a, b) => a.saw - b.saw || b.setting - a.setting),
    cuts: cuts + mitred - shared,
  };
}

/** Neighbours of which either leans: each end is cut by itself, one cut more than between square ends. */
function leaningNeighbours(problem: BarProblem, layout: BarLayout): number {
  const leans = (piece: number) => problem.pieces[piece]?.ends?.angles.some((angle) => angle !== 0) ?? false;
  return layout.bars.reduce((sum, bar) => {
    const joints = bar.pieces.slice(1).filter((piece, i) => leans(piece) || leans(at(bar.pieces, i)));
    return sum + bar.times * joints.length;
  }, 0);
}

/** One cut for each piece, less the last where nothing is left of the bar, and one more for a trim at the start. */
function cutsOf(problem: BarProblem, pieces: number, remainder: number): number {
  const { start, end } = trims(problem);
  const last = remainder > 0 || end > 0 ? 0 : 1;
  return pieces - last + (start > 0 ? 1 : 0);
}
