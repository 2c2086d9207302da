/** What is odd about a problem though it can be computed: a kerf wider than a piece, trims that leave nothing of a stock size. */
import { type LengthStyle, PLAIN_MM, sayLength, saySizes } from "../measure";
import { type BarProblem, usableLength } from "./bars";
import { type ShapeProblem, sizeOfShape } from "./shapes";
import type { SheetProblem } from "./sheets";

/** Lengths of a problem in words. */
const sayer =
  ({ style = PLAIN_MM }: { readonly style?: LengthStyle }) =>
  (mm: number) =>
    sayLength(mm, style);

/** Sentences, each with what, where and what to do; none when nothing is odd. */
export function problemNotes(problem: BarProblem | SheetProblem | ShapeProblem): readonly string[] {
  if ("pieces" in problem) return barNotes(problem);
  return "panels" in problem ? sheetNotes(problem) : shapeNotes(problem);
}

function barNotes(problem: BarProblem): readonly string[] {
  const say = sayer(problem);
  const notes: string[] = [];
  const least = Math.min(...problem.pieces.filter(({ qty }) => qty > 0).map(({ length }) => length));
  if (problem.kerf > least)
    notes.push(
      `The kerf of ${say(problem.kerf)} is wider than the shortest piece of ${say(least)}; check both.`,
    );
  problem.stock.forEach(({ length }, i) => {
    if (usableLength(problem, i) <= 0)
      notes.push(`Trims and what the saw holds leave nothing of a bar of ${say(length)}; make them smaller.`);
  });
  return [...new Set(notes)];
}

function sheetNotes(problem: SheetProblem): readonly string[] {
  const { kerf, trim, stock, panels } = problem;
  const say = sayer(problem);
  const notes: string[] = [];
  const least = Math.min(
    ...panels.filter(({ qty }) => qty > 0).map((one) => Math.min(one.length, one.width)),
  );
  if (kerf > least)
    notes.push(`The kerf of ${say(kerf)} is wider than the narrowest panel of ${say(least)}; check both.`);
  return [...new Set([...notes, ...marginNotes(trim, "trim", stock, problem.style)])];
}

function marginNotes(
  margin: number,
  name: "trim" | "margin",
  stock: readonly { readonly length: number; readonly width: number }[],
  style: LengthStyle = PLAIN_MM,
): readonly string[] {
  return stock
    .filter(({ length, width }) => Math.min(length, width) <= 2 * margin)
    .map(
      ({ length, width }) =>
        `The ${name} of ${sayLength(margin, style)} leaves nothing of a sheet of ${saySizes([length, width], style)}; make it smaller.`,
    );
}

function shapeNotes(problem: ShapeProblem): readonly string[] {
  const say = sayer(problem);
  const { gap, margin, stock, shapes } = problem;
  const least = Math.min(
    ...shapes.flatMap(({ qty }, i) => {
      const { length, width } = sizeOfShape(problem, i);
      return qty > 0 ? [Math.round(Math.min(length, width) * 10) / 10] : [];
    }),
  );
  const wide =
    gap > least
      ? [`The gap of ${say(gap)} is wider than the narrowest piece of ${say(least)}; check both.`]
      : [];
  return [...new Set([...wide, ...marginNotes(margin, "margin", stock, problem.style)])];
}
