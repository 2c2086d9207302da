/**
 * A check of sheet layouts that shares nothing with the search or the product's own check: rectangles in millimetres, pairs
 * compared with pairs, and a plain recursion that looks for a cut right across. Written for the tests alone.
 */
import type { Placement, SheetLayout, SheetProblem } from "./problem";

const EPS = 1e-6;
type Box = { x0: number; y0: number; x1: number; y1: number };

/** The fewest runs of parallel cuts that part the boxes, the next along `rip`; infinite when nothing does. */
function runs(region: Box, boxes: readonly Box[], kerf: number, rip: boolean, idle = 0): number {
  const [only] = boxes;
  if (boxes.length === 0) return 0;
  if (
    boxes.length === 1 &&
    only &&
    Math.abs(only.x0 - region.x0) < EPS &&
    Math.abs(only.y0 - region.y0) < EPS &&
    Math.abs(only.x1 - region.x1) < EPS &&
    Math.abs(only.y1 - region.y1) < EPS
  )
    return 0;
  if (idle > 1) return Number.POSITIVE_INFINITY;
  const [low, high] = rip ? (["y0", "y1"] as const) : (["x0", "x1"] as const);
  // Strips that no box bridges: boxes that overlap along the axis, kerf and all, stay in one.
  const sorted = [...boxes].sort((a, b) => a[low] - b[low]);
  const strips: Box[][] = [];
  let reach = Number.NEGATIVE_INFINITY;
  for (const box of sorted) {
    if (box[low] >= reach + kerf - EPS && box[low] >= reach - EPS) strips.push([]);
    strips.at(-1)?.push(box);
    reach = Math.max(reach, box[high]);
  }
  const parts = strips.map((strip) => ({
    strip,
    region: {
      ...region,
      [low]: Math.min(...strip.map((box) => box[low])),
      [high]: Math.max(...strip.map((box) => box[high])),
    },
  }));
  const cuts =
    strips.length > 1 ||
    Math.abs((parts[0]?.region[low] ?? 0) - region[low]) > EPS ||
    Math.abs((parts[0]?.region[high] ?? 0) - region[high]) > EPS;
  const rest = parts.map((part) => runs(part.region, part.strip, kerf, !rip, cuts ? 0 : idle + 1));
  // A first run that cuts nothing still counts: the runs are told from the rips on.
  return 1 + Math.max(...rest);
}

const boxOf = (one: Placement): Box => ({
  x0: one.x,
  y0: one.y,
  x1: one.x + one.length,
  y1: one.y + one.width,
});

/** null, or what is wrong with a layout. */
export function sheetFaultOf(problem: SheetProblem, layout: SheetLayout): string | null {
  const placed = problem.panels.map(() => 0);
  const { kerf, trim } = problem;
  for (const sheet of layout.sheets) {
    const stock = problem.stock[sheet.stock];
    if (!stock) return "a sheet of no stock";
    const boxes = sheet.placements.map(boxOf);
    for (const [i, one] of sheet.placements.entries()) {
      const panel = problem.panels[one.panel];
      const box = boxes[i];
      if (!panel || !box) return "a panel of none";
      placed[one.panel] = (placed[one.panel] ?? 0) + 1;
      const [l, w] = one.rotated ? [panel.width, panel.length] : [panel.length, panel.width];
      if (Math.abs(l - one.length) > EPS || Math.abs(w - one.width) > EPS) return "another size";
      if (box.x0 < trim - EPS || box.y0 < trim - EPS) return "in the trim";
      if (box.x1 > stock.length - trim + EPS || box.y1 > stock.width - trim + EPS) return "off the sheet";
      const across = (stock.grain === "length" && one.rotated) || (stock.grain === "width" && !one.rotated);
      if (panel.grain && across && !one.against) return "against the grain";
      for (const other of boxes.slice(0, i)) {
        const apart = Math.max(other.x0 - box.x1, box.x0 - other.x1, other.y0 - box.y1, box.y0 - other.y1);
        if (apart < kerf - EPS) return "nearer than the kerf";
      }
    }
    const region = { x0: trim, y0: trim, x1: stock.length - trim, y1: stock.width - trim };
    const needed = runs(region, boxes, kerf, true);
    if (needed > (problem.stages ?? Number.MAX_SAFE_INTEGER)) return `${needed} stages`;
  }
  for (const one of layout.unplaced) placed[one.panel] = (placed[one.panel] ?? 0) + one.qty;
  const wrong = problem.panels.findIndex((panel, i) => placed[i] !== panel.qty);
  return wrong >= 0 ? `panel ${wrong}: ${placed[wrong]} of ${problem.panels[wrong]?.qty}` : null;
}
