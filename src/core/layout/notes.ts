/** What is odd about a problem though it can be computed: a kerf wider than a piece, trims that leave nothing of a stock size. */
import { type BarProblem, usableLength } from "./bars";
import { type ShapeProblem, sizeOfShape } from "./shapes";
import type { SheetProblem } from "./sheets";

/** Sentences, each with what, where and what to do; none when nothing is odd. */
export function problemNotes(problem: BarProblem | SheetProblem | ShapeProblem): readonly string[] {
  if ("pieces" in problem) return barNotes(problem);
  return "panels" in problem ? sheetNotes(problem) : shapeNotes(problem);
}

function barNotes(problem: BarProblem): readonly string[] {
  const notes: string[] = [];
  const least = Math.min(...problem.pieces.filter(({ qty }) => qty > 0).map(({ length }) => length));
  if (problem.kerf > least)
    notes.push(`The kerf of ${problem.kerf} mm is wider than the shortest piece of ${least} mm; check both.`);
  problem.stock.forEach(({ length }, i) => {
    if (usableLength(problem, i) <= 0)
      notes.push(`Trims and what the saw holds leave nothing of a bar of ${length} mm; make them smaller.`);
  });
  return [...new Set(notes)];
}

function sheetNotes({ kerf, trim, stock, panels }: SheetProblem): readonly string[] {
  const notes: string[] = [];
  const least = Math.min(
    ...panels.filter(({ qty }) => qty > 0).map((one) => Math.min(one.length, one.width)),
  );
  if (kerf > least)
    notes.push(`The kerf of ${kerf} mm is wider than the narrowest panel of ${least} mm; check both.`);
  return [...new Set([...notes, ...marginNotes(trim, "trim", stock)])];
}

function marginNotes(
  margin: number,
  name: "trim" | "margin",
  stock: readonly { readonly length: number; readonly width: number }[],
): readonly string[] {
  return stock
    .filter(({ length, width }) => Math.min(length, width) <= 2 * margin)
    .map(
      ({ length, width }) =>
        `The ${name} of ${margin} mm leaves nothing of a sheet of ${length} × ${width} mm; make it smaller.`,
    );
}

function shapeNotes(problem: ShapeProblem): readonly string[] {
  const { gap, margin, stock, shapes } = problem;
  const least = Math.min(
    ...shapes.flatMap(({ qty }, i) => {
      const { length, width } = sizeOfShape(problem, i);
      return qty > 0 ? [Math.round(Math.min(length, width) * 10) / 10] : [];
    }),
  );
  const wide =
    gap > least ? [`The gap of ${gap} mm is wider than the narrowest piece of ${least} mm; check both.`] : [];
  return [...new Set([...wide, ...marginNotes(margin, "margin", stock)])];
}
