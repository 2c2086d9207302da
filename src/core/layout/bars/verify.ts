/** The check of bar layouts that tests, benchmark and the product itself call: null, or what is wrong. */
import { toNm } from "../../kernel";
import { type BarLayout, type BarProblem, usableLength } from "./problem";

export function verifyBars(problem: BarProblem, layout: BarLayout): string | null {
  const placed = problem.pieces.map(() => 0);
  const used = problem.stock.map(() => 0);
  const kerfNm = toNm(problem.kerf);
  for (const bar of layout.bars) {
    if (!(bar.stock in problem.stock)) return `bar names stock ${bar.stock}`;
    used[bar.stock] = (used[bar.stock] ?? 0) + bar.times;
    let length = 0;
    for (const piece of bar.pieces) {
      const wanted = problem.pieces[piece];
      if (!wanted) return `bar names piece ${piece}`;
      length += toNm(wanted.length);
      placed[piece] = (placed[piece] ?? 0) + bar.times;
    }
    const taken = length + kerfNm * Math.max(0, bar.pieces.length - 1);
    if (taken > toNm(usableLength(problem, bar.stock)))
      return `a bar of stock ${bar.stock} is overfull by ${taken - toNm(usableLength(problem, bar.stock))} nm`;
  }
  for (const { piece, qty } of layout.unplaced) placed[piece] = (placed[piece] ?? 0) + qty;
  const lost = problem.pieces.findIndex((piece, i) => placed[i] !== piece.qty);
  if (lost >= 0) return `piece ${lost} is placed ${placed[lost]} times of ${problem.pieces[lost]?.qty}`;
  const over = problem.stock.findIndex((stock, i) => stock.count !== null && (used[i] ?? 0) > stock.count);
  if (over >= 0) return `stock ${over} is used ${used[over]} times of ${problem.stock[over]?.count}`;
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
