/** The check of sheet layouts that tests, benchmark and the product itself call: null, or what is wrong. */
import { toNm } from "../../kernel";
import { type CutRect, inflated, runsNeeded } from "./cuts";
import type { Placement, SheetLayout, SheetProblem } from "./problem";

export function verifySheets(problem: SheetProblem, layout: SheetLayout): string | null {
  const placed = problem.panels.map(() => 0);
  const used = problem.stock.map(() => 0);
  for (const [index, sheet] of layout.sheets.entries()) {
    const stock = problem.stock[sheet.stock];
    if (!stock) return `sheet names stock ${sheet.stock}`;
    used[sheet.stock] = (used[sheet.stock] ?? 0) + 1;
    for (const placement of sheet.placements) {
      const fault = placementFault(problem, stock, placement);
      if (fault) return `sheet ${index}: ${fault}`;
      placed[placement.panel] = (placed[placement.panel] ?? 0) + 1;
    }
    const runs = runsNeeded(...inflated(problem, stock, sheet.placements));
    if (runs > (problem.stages ?? Number.MAX_SAFE_INTEGER))
      return `sheet ${index} needs ${runs} runs of cuts`;
    if (hasOverlap(inflated(problem, stock, sheet.placements)[1]))
      return `sheet ${index} has panels nearer than a kerf`;
  }
  for (const { panel, qty } of layout.unplaced) placed[panel] = (placed[panel] ?? 0) + qty;
  const lost = problem.panels.findIndex((panel, i) => placed[i] !== panel.qty);
  if (lost >= 0) return `panel ${lost} is placed ${placed[lost]} times of ${problem.panels[lost]?.qty}`;
  const over = problem.stock.findIndex((stock, i) => stock.count !== null && (used[i] ?? 0) > stock.count);
  if (over >= 0) return `stock ${over} is used ${used[over]} times`;
  const value = layout.lowerBoundOf === "cost" ? layout.cost : layout.count;
  if (layout.unplaced.length === 0 && value !== null && value < layout.lowerBound - 1e-9)
    return "the layout is below its bound";
  return null;
}

function placementFault(
  problem: SheetProblem,
  stock: SheetProblem["stock"][number],
  placement: Placement,
): string | null {
  const panel = problem.panels[placement.panel];
  if (!panel) return `there is no panel ${placement.panel}`;
  const [length, width] = placement.rotated ? [panel.width, panel.length] : [panel.length, panel.width];
  if (length !== placement.length || width !== placement.width)
    return `panel ${placement.panel} has another size`;
  const inside =
    toNm(placement.x) >= toNm(problem.trim) &&
    toNm(placement.y) >= toNm(problem.trim) &&
    toNm(placement.x) + toNm(length) <= toNm(stock.length) - toNm(problem.trim) &&
    toNm(placement.y) + toNm(width) <= toNm(stock.width) - toNm(problem.trim);
  if (!inside) return `panel ${placement.panel} lies in the trim or off the sheet`;
  const wrongWay =
    panel.grain &&
    ((stock.grain === "length" && placement.rotated) || (stock.grain === "width" && !placement.rotated));
  return wrongWay ? `panel ${placement.panel} lies against the grain` : null;
}

/** The sheet and its panels with the kerf added on their far sides, in nanometres from the trimmed corner. */
function hasOverlap(rects: readonly CutRect[]): boolean {
  const sorted = [...rects].sort((a, b) => a.x - b.x);
  return sorted.some((a, i) => {
    for (const b of sorted.slice(i + 1)) {
      if (b.x >= a.x + a.length) return false;
      if (a.y < b.y + b.width && b.y < a.y + a.width) return true;
    }
    return false;
  });
}
