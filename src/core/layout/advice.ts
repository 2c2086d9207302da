/**
 * What would help a piece that finds no place: the size of stock that it needs, turning it, letting several stay apart, or
 * more of a stock that is used up.
 */
import { at } from "../kernel";
import { PLAIN_MM, sayLength, saySizes } from "../measure";
import { type BarProblem, trims } from "./bars";
import type { KeptLayout } from "./kept";
import { type ShapeProblem, sizeOfShape } from "./shapes";
import type { SheetProblem } from "./sheets";
import { ASIDE } from "./stock";

/** The sentence that goes with a piece without a place; empty when nothing can be said. */
export function adviceFor({ problem, kind }: KeptLayout, index: number, why: string): string {
  if (why === ASIDE) return "Drag it back, or fill again";
  switch (kind) {
    case "bars":
      return barAdvice(problem as BarProblem, index, why);
    case "sheets":
      return sheetAdvice(problem as SheetProblem, index, why);
    default:
      return shapeAdvice(problem as ShapeProblem, index, why);
  }
}

function barAdvice(problem: BarProblem, index: number, why: string): string {
  const { length } = at(problem.pieces, index);
  const say = (mm: number) => sayLength(mm, problem.style ?? PLAIN_MM);
  if (problem.stock.length === 0) return "Give its section a stock length in the stockroom";
  if (why.startsWith("longer")) {
    const { start, end } = trims(problem);
    const held = problem.grip > 0 ? problem.grip + problem.kerf : 0;
    const needed = length + start + Math.max(end, held);
    const longer = problem.stock.filter((bar) => bar.length >= needed).map((bar) => bar.length);
    const buy =
      longer.length > 0
        ? `have more of ${say(Math.min(...longer))}`
        : `buy a bar of ${say(needed)} or longer`;
    return `Splice it from two, or ${buy}`;
  }
  const limited = problem.stock
    .filter((bar) => bar.count !== null && bar.rack === null)
    .map((bar) => say(bar.length));
  return limited.length === 0
    ? "Give its section a stock length that can be bought"
    : `Raise how many of ${limited.join(" and ")} there are, or leave the number empty for as many as wanted`;
}

function sheetAdvice(problem: SheetProblem, index: number, why: string): string {
  const { length, width } = at(problem.panels, index);
  if (problem.stock.length === 0) return "Give its board a sheet size in the stockroom";
  const needs = saySizes([length + 2 * problem.trim, width + 2 * problem.trim], problem.style ?? PLAIN_MM);
  if (why.includes("against the grain"))
    return `Let it lie across the grain by hand, take its grain off, or buy a sheet of at least ${needs}`;
  if (why.includes("larger than every sheet"))
    return why.startsWith("kept together")
      ? "Part the panels that are kept together"
      : `Join it from two, or buy a sheet of at least ${needs}`;
  if (why.startsWith("kept together"))
    return "Part the panels that are kept together, or make them one size across";
  return problem.stages === null
    ? "Raise how many sheets there are, or leave the number empty for as many as wanted"
    : "Allow more stages of cuts, or raise how many sheets there are";
}

function shapeAdvice(problem: ShapeProblem, index: number, why: string): string {
  if (problem.stock.length === 0) return "Give its board a sheet size in the stockroom";
  if (why.startsWith("more than"))
    return "Make fewer at once: a smaller number of the job, or another board for some";
  if (why.startsWith("its outline")) return "Set the corners of its outline in their order round the panel";
  const { length, width } = sizeOfShape(problem, index);
  const needs = saySizes(
    [length + 2 * problem.margin, width + 2 * problem.margin],
    problem.style ?? PLAIN_MM,
  );
  if (why.includes("against the grain"))
    return `Let it lie across the grain by hand, take its grain off, or buy a sheet of at least ${needs}`;
  if (why.startsWith("larger"))
    return `Let it turn in finer steps, join it from two, or buy a sheet of at least ${needs}`;
  return "Raise how many sheets there are, or leave the number empty for as many as wanted";
}
