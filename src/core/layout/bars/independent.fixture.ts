/**
 * A check of bar layouts that shares nothing with the search: each piece is a polygon on the bar, and from one to the next
 * the blade must pass. Written for the tests alone.
 */
import type { BarLayout, BarProblem } from "./problem";

type Edge = { readonly at: number; readonly lean: number };
type Shape = { readonly left: Edge; readonly right: Edge; readonly depth: number; readonly plane: string };

/** A piece by its tip-to-tip length, its two angles and the way it lies; `at` along the middle of the bar. */
function shapeOf(problem: BarProblem, piece: number, turn: string | null): Shape {
  const { length, ends } = problem.pieces[piece] ?? { length: 0, ends: null };
  if (!ends) return { left: { at: 0, lean: 0 }, right: { at: length, lean: 0 }, depth: 0, plane: "" };
  const [first, second] = ends.angles.map((angle) => Math.tan((angle * Math.PI) / 180));
  let [left, right] = [first ?? 0, second ?? 0];
  if (turn === "end") [left, right] = [right, left];
  if (turn === "over") [left, right] = [-right, -left];
  if (turn === "roll") [left, right] = [-left, -right];
  const half = ends.depth / 2;
  return {
    left: { at: Math.abs(left) * half, lean: left },
    right: { at: length - Math.abs(right) * half, lean: right },
    depth: ends.depth,
    plane: `${ends.plane}:${ends.depth}`,
  };
}

/** How far apart two pieces must stand so that a blade of the kerf passes at the lean of either end. */
function leastShift(a: Shape, b: Shape, kerf: number, share: boolean): number {
  const [right, left] = [a.right, b.left];
  const same = Math.abs(right.lean - left.lean) < 1e-9;
  const onePlane = a.plane === b.plane || right.lean === 0 || left.lean === 0;
  const steepest = Math.sqrt(1 + Math.max(right.lean ** 2, left.lean ** 2));
  if (same && (right.lean === 0 || (share && onePlane))) return kerf * steepest + right.at - left.at;
  const half = Math.max(a.depth, b.depth) / 2;
  // Where they come nearest, over the height of the section.
  const heights = [-half, half];
  const apart =
    share && onePlane
      ? Math.max(...heights.map((u) => right.lean * u - left.lean * u))
      : (Math.abs(right.lean) * a.depth) / 2 + (Math.abs(left.lean) * b.depth) / 2;
  return kerf * steepest + right.at - left.at + apart;
}

/** null, or what is wrong with a layout. */
export function barFault(problem: BarProblem, layout: BarLayout): string | null {
  const placed = problem.pieces.map(() => 0);
  const used = problem.stock.map(() => 0);
  const { start, end } =
    typeof problem.trim === "number" ? { start: problem.trim, end: problem.trim } : problem.trim;
  for (const bar of layout.bars) {
    const stock = problem.stock[bar.stock];
    if (!stock) return "a bar of no stock";
    used[bar.stock] = (used[bar.stock] ?? 0) + bar.times;
    let position = 0;
    let before: Shape | null = null;
    let last = 0;
    bar.pieces.forEach((piece, place) => {
      placed[piece] = (placed[piece] ?? 0) + bar.times;
      const shape = shapeOf(problem, piece, bar.turns?.[place] ?? null);
      if (before) position += leastShift(before, shape, problem.kerf, problem.share);
      last = position + (problem.pieces[piece]?.length ?? 0);
      before = shape;
    });
    const held = problem.grip > 0 ? problem.grip + problem.kerf : 0;
    const usable = stock.length - start - Math.max(end, held);
    if (last > usable + 1e-3) return `a bar is overfull: ${last} on ${usable}`;
  }
  for (const one of layout.unplaced) placed[one.piece] = (placed[one.piece] ?? 0) + one.qty;
  const wrong = problem.pieces.findIndex((piece, i) => placed[i] !== piece.qty);
  if (wrong >= 0) return `piece ${wrong}: ${placed[wrong]} of ${problem.pieces[wrong]?.qty}`;
  const over = problem.stock.findIndex((stock, i) => stock.count !== null && (used[i] ?? 0) > stock.count);
  return over >= 0 ? `stock ${over} is used too often` : null;
}
