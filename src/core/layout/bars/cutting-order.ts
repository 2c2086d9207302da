/**
 * The order in which bars are cut: one saw after the other, at each one stop setting after the other, longest first, and at
 * each setting the bars that have pieces of it. A bar gives its pieces in any order, so a stop is set once for each length;
 * where neighbours share a cut they follow one another on the bar, and the step says which way round each piece lies.
 */
import { at } from "../../kernel";
import { type BarLayout, type BarProblem, type CutBar, type PieceTurn, trims } from "./problem";
import { isShared, leansOf } from "./result";

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
    cuts += bar.times * cutsOf(problem, bar);
  });
  return {
    steps: [...steps.values()].sort((a, b) => a.saw - b.saw || b.setting - a.setting),
    cuts,
  };
}

/**
 * Cuts of one bar. Its own square end needs one where it is trimmed, or where the first piece begins with a mitre; between
 * two pieces there is one cut where both are square or share it, else two; the last piece is cut off where anything is left
 * of the bar beyond it, and where it ends with a mitre.
 */
function cutsOf(problem: BarProblem, bar: CutBar): number {
  const { start, end } = trims(problem);
  const count = bar.pieces.length;
  if (count === 0) return 0;
  const leans = (place: number, side: 0 | 1) => {
    const piece = at(bar.pieces, place);
    const tan = leansOf(problem, piece, bar.turns?.[place] ?? null);
    return tan ? tan[side] !== 0 : (at(problem.pieces, piece).leans?.[side] ?? false);
  };
  const joint = (place: number) => {
    if (!leans(place - 1, 1) && !leans(place, 0)) return 1;
    return problem.share && isShared(problem, bar, place) ? 1 : 2;
  };
  const joints = bar.pieces.slice(1).reduce((sum, _, i) => sum + joint(i + 1), 0);
  const first = start > 0 || leans(0, 0) ? 1 : 0;
  const beyond = bar.remainder > 0 || end > 0 || problem.grip > 0;
  return first + joints + (beyond || leans(count - 1, 1) ? 1 : 0);
}
