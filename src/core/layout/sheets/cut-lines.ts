/** Where the blade runs on a sheet: the middle of each kerf, in the sheet's own millimetres, with the stage of the cut. */
import { fromNm, toNm } from "../../kernel";
import { type CutPart, cutTree } from "./cut-tree";
import type { CutSheet, SheetProblem } from "./problem";

export type CutLine = {
  readonly stage: number;
  readonly from: readonly [number, number];
  readonly to: readonly [number, number];
};

/** Lines of all cuts of the sheet's tree but the trims. */
export function cutLines(problem: SheetProblem, sheet: CutSheet): readonly CutLine[] {
  const [kerf, trim] = [toNm(problem.kerf), toNm(problem.trim)];
  const linesOf = (part: CutPart): readonly CutLine[] => {
    if (part.kind !== "cut") return [];
    const [axis, size, across, extent] =
      part.way === "rip"
        ? (["y", "width", "x", "length"] as const)
        : (["x", "length", "y", "width"] as const);
    const low = fromNm(part.region[across] + trim);
    const high = fromNm(part.region[across] + part.region[extent] - kerf + trim);
    const own = part.parts.slice(0, -1).map(({ region }): CutLine => {
      const place = fromNm(region[axis] + region[size] - kerf / 2 + trim);
      return axis === "y"
        ? { stage: part.stage, from: [low, place], to: [high, place] }
        : { stage: part.stage, from: [place, low], to: [place, high] };
    });
    return [...own, ...part.parts.flatMap(linesOf)];
  };
  const tree = cutTree(problem, sheet);
  return tree ? linesOf(tree) : [];
}
