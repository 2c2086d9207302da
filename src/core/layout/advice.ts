/**
 * What would help a piece that finds no place: the size of stock that it needs, turning it, letting several stay apart, or
 * more of a stock that is used up.
 */
import { at, unreachable } from "../kernel";
import { PLAIN_MM, sayLength, saySizes } from "../measure";
import { type BarProblem, trims } from "./bars";
import type { KeptLayout } from "./kept";
import { type ShapeProblem, sizeOfShape } from "./shapes";
import type { SheetProblem } from "./sheets";
import { reasonWords, type UnplacedReason } from "./stock";

export type PieceWithoutPlace = {
  /** Which piece, panel or shape of the problem it is. */
  readonly index: number;
  readonly qty: number;
  readonly reason: UnplacedReason["kind"];
  /** The reason and what would help, each as a part of a sentence. */
  readonly why: string;
  readonly advice: string;
};

/** What a layout has no place for, with why and what would help. */
export function piecesWithoutPlace(kept: KeptLayout): readonly PieceWithoutPlace[] {
  const style = kept.problem.style ?? PLAIN_MM;
  return kept.layout.unplaced.map((one) => {
    const index = "piece" in one ? one.piece : "panel" in one ? one.panel : one.shape;
    const { qty, why } = one;
    return {
      index,
      qty,
      reason: why.kind,
      why: reasonWords(why, style),
      advice: adviceFor(kept, index, why),
    };
  });
}

function adviceFor(kept: KeptLayout, index: number, why: UnplacedReason): string {
  if (why.kind === "aside") return "Drag it back, or fill again";
  switch (kept.kind) {
    case "bars":
      return barAdvice(kept.problem, index, why);
    case "sheets":
      return sheetAdvice(kept.problem, index, why);
    case "shapes":
      return shapeAdvice(kept.problem, index, why);
    default:
      return unreachable(kept);
  }
}

type Reason = Exclude<UnplacedReason, { readonly kind: "aside" }>;

function barAdvice(problem: BarProblem, index: number, why: Reason): string {
  const { length } = at(problem.pieces, index);
  const say = (mm: number) => sayLength(mm, problem.style ?? PLAIN_MM);
  if (problem.stock.length === 0) return "Give its section a stock length in the stockroom";
  if (why.kind === "tooLong") {
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

const NO_SHEET = "Give its board a sheet size in the stockroom";
const MORE_SHEETS = "Raise how many sheets there are, or leave the number empty for as many as wanted";
const turnOrBuy = (needs: string) =>
  `Let it lie across the grain by hand, take its grain off, or buy a sheet of at least ${needs}`;
const finer = (needs: string) =>
  `Let it turn in finer steps, join it from two, or buy a sheet of at least ${needs}`;

/** What a size and what is kept free round it come to, in words. */
function neededSheet(
  problem: SheetProblem | ShapeProblem,
  size: { readonly length: number; readonly width: number },
  free: number,
): string {
  return saySizes([size.length + 2 * free, size.width + 2 * free], problem.style ?? PLAIN_MM);
}

function sheetAdvice(problem: SheetProblem, index: number, why: Reason): string {
  if (problem.stock.length === 0) return NO_SHEET;
  const needs = neededSheet(problem, at(problem.panels, index), problem.trim);
  switch (why.kind) {
    case "againstGrain":
      return turnOrBuy(needs);
    case "tooLarge":
      return `Join it from two, or buy a sheet of at least ${needs}`;
    case "blank":
      return why.why.kind === "againstGrain" ? turnOrBuy(needs) : "Part the panels that are kept together";
    case "blankUneven":
      return "Part the panels that are kept together, or make them one size across";
    case "noStock":
    case "usedUp":
    case "usedUpOrStages":
    case "tooLong":
    case "tooLargeTurned":
    case "grainOnly":
    case "tooMany":
    case "badOutline":
    case "told":
      return problem.stages === null
        ? MORE_SHEETS
        : "Allow more stages of cuts, or raise how many sheets there are";
    default:
      return unreachable(why);
  }
}

function shapeAdvice(problem: ShapeProblem, index: number, why: Reason): string {
  if (problem.stock.length === 0) return NO_SHEET;
  const needs = () => neededSheet(problem, sizeOfShape(problem, index), problem.margin);
  switch (why.kind) {
    case "tooMany":
      return "Make fewer at once: a smaller number of the job, or another board for some";
    case "badOutline":
      return "Set the corners of its outline in their order round the panel";
    case "grainOnly":
    case "againstGrain":
      return turnOrBuy(needs());
    case "tooLargeTurned":
    case "tooLarge":
      return finer(needs());
    case "noStock":
    case "usedUp":
    case "usedUpOrStages":
    case "tooLong":
    case "blank":
    case "blankUneven":
    case "told":
      return MORE_SHEETS;
    default:
      return unreachable(why);
  }
}
