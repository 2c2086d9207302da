/** The check of bar layouts that tests, benchmark and the product itself call: null, or what is wrong. */
import { toNm } from "../../kernel";
import type { BarLayout, BarProblem } from "./problem";
import { usableLength } from "./problem";
import { placesNm } from "./result";

export function verifyBars(problem: BarProblem, layout: BarLayout): string | null {
  const placed = problem.pieces.map(() => 0);
  const used = problem.stock.map(() => 0);
  for (const bar of layout.bars) {
    if (!(bar.stock in problem.stock)) return `bar names stock ${bar.stock}`;
    used[bar.stock] = (used[bar.stock] ?? 0) + bar.times;
    for (const piece of bar.pieces) {
      if (!(piece in problem.pieces)) return `bar names piece ${piece}`;
      placed[piece] = (placed[piece] ?? 0) + bar.times;
    }
    const over = placesNm(problem, bar).endNm - toNm(usableLength(problem, bar.stock));
    if (over > 0) return `a bar of stock ${bar.stock} is overfull by ${over} nm`;
    const turned = bar.turns?.findIndex(
      (turn, place) => turn !== null && !problem.pieces[bar.pieces[place] ?? -1]?.ends?.turns.includes(turn),
    );
    if (turned !== undefined && turned >= 0) return `piece ${bar.pieces[turned]} cannot be turned that way`;
  }
  return (
    countFault(problem, layout, placed, used) ??
    lockFault(problem, layout) ??
    costFault(problem, layout, used)
  );
}

function countFault(
  problem: BarProblem,
  layout: BarLayout,
  placed: number[],
  used: readonly number[],
): string | null {
  for (const { piece, qty } of layout.unplaced) placed[piece] = (placed[piece] ?? 0) + qty;
  const lost = problem.pieces.findIndex((piece, i) => placed[i] !== piece.qty);
  if (lost >= 0) return `piece ${lost} is placed ${placed[lost]} times of ${problem.pieces[lost]?.qty}`;
  const over = problem.stock.findIndex((stock, i) => stock.count !== null && (used[i] ?? 0) > stock.count);
  return over >= 0 ? `stock ${over} is used ${used[over]} times of ${problem.stock[over]?.count}` : null;
}

/** Every locked piece stands on a bar of its stock, together with those it was locked with. */
function lockFault(problem: BarProblem, layout: BarLayout): string | null {
  const free = layout.bars.flatMap((bar) => (bar.locked ? [bar] : []));
  for (const fixed of problem.fixed) {
    const wanted = fixed.pieces
      .map(({ piece }) => piece)
      .sort((a, b) => a - b)
      .join();
    const found = free.findIndex((bar) => {
      const own = (bar.locked ?? []).map((place) => bar.pieces[place] ?? -1);
      return bar.stock === fixed.stock && own.sort((a, b) => a - b).join() === wanted;
    });
    if (found < 0) return `locked pieces ${wanted} are not together on a bar of stock ${fixed.stock}`;
    free.splice(found, 1);
  }
  return null;
}

function costFault(problem: BarProblem, layout: BarLayout, used: readonly number[]): string | null {
  const cost = problem.stock.every((stock) => stock.price !== null)
    ? problem.stock.reduce((sum, stock, i) => sum + (stock.price ?? 0) * (used[i] ?? 0), 0)
    : null;
  if (cost !== null && Math.abs(cost - (layout.cost ?? Number.NaN)) > 1e-3)
    return `cost ${layout.cost} should be ${cost}`;
  const value = layout.lowerBoundOf === "cost" ? layout.cost : layout.count;
  if (layout.unplaced.length === 0 && value !== null && value < layout.lowerBound - 1e-9)
    return "the layout is below its bound";
  return null;
}
