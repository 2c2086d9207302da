/** The check of shape layouts, on plain polygons: null, or what is wrong. */
import { at } from "../../kernel";
import { boxOf, distanceBetween, moved, type Outline, turned } from "./outline";
import type { ShapeLayout, ShapePlacement, ShapeProblem } from "./problem";

/** Half a thousandth for each of two corners that are rounded to whole thousandths, in both directions. */
const SLACK = 0.0015;

/** A shape where it lies on its sheet. */
export const lyingOutline = (problem: ShapeProblem, { shape, angle, x, y }: ShapePlacement): Outline =>
  moved(turned(at(problem.shapes, shape).outline, angle), x, y);

export function verifyShapes(problem: ShapeProblem, layout: ShapeLayout): string | null {
  const placed = problem.shapes.map(() => 0);
  const used = problem.stock.map(() => 0);
  for (const [i, sheet] of layout.sheets.entries()) {
    const stock = problem.stock[sheet.stock];
    if (!stock) return `sheet names stock ${sheet.stock}`;
    used[sheet.stock] = (used[sheet.stock] ?? 0) + 1;
    const outlines = sheet.placements.map((one) => lyingOutline(problem, one));
    for (const [k, one] of sheet.placements.entries()) {
      placed[one.shape] = (placed[one.shape] ?? 0) + 1;
      const { x0, y0, x1, y1 } = boxOf(at(outlines, k));
      const { margin } = problem;
      const inside =
        x0 >= margin - SLACK &&
        y0 >= margin - SLACK &&
        x1 <= stock.length - margin + SLACK &&
        y1 <= stock.width - margin + SLACK;
      if (!inside) return `sheet ${i}: shape ${one.shape} lies off it`;
      if (problem.shapes[one.shape]?.grain && one.angle % 180 !== 0)
        return `sheet ${i}: shape ${one.shape} lies against the grain`;
      for (let other = 0; other < k; other++)
        if (distanceBetween(at(outlines, other), at(outlines, k)) < problem.gap - SLACK)
          return `sheet ${i}: shapes ${other} and ${k} are nearer than the gap`;
    }
  }
  for (const { shape, qty } of layout.unplaced) placed[shape] = (placed[shape] ?? 0) + qty;
  const lost = problem.shapes.findIndex((shape, i) => placed[i] !== shape.qty);
  if (lost >= 0) return `shape ${lost} is placed ${placed[lost]} times of ${problem.shapes[lost]?.qty}`;
  const over = problem.stock.findIndex((stock, i) => stock.count !== null && (used[i] ?? 0) > stock.count);
  return over >= 0 ? `stock ${over} is used ${used[over]} times` : null;
}
