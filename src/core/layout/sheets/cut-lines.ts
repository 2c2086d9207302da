/** Where the blade runs on a sheet: the middle of each kerf, in the sheet's own millimetres, with the stage of the cut. */
import { at, fromNm, toNm } from "../../kernel";
import { type CutRect, inflated, sameRect, slices } from "./cuts";
import type { CutSheet, SheetProblem } from "./problem";

export type CutLine = {
  readonly stage: number;
  readonly from: readonly [number, number];
  readonly to: readonly [number, number];
};

/** Lines of all cuts but the trims; a sheet that cannot be cut right across gives those that it can. */
export function cutLines(problem: SheetProblem, sheet: CutSheet): readonly CutLine[] {
  const [region, rects] = inflated(problem, at(problem.stock, sheet.stock), sheet.placements);
  const lines: CutLine[] = [];
  const [kerf, trim] = [toNm(problem.kerf), toNm(problem.trim)];
  const visit = (part: CutRect, within: readonly CutRect[], stage: number, idle: number): void => {
    const [only] = within;
    if (!only || (within.length === 1 && sameRect(only, part)) || idle > 1) return;
    const axis = stage % 2 === 1 ? "y" : "x";
    const size = axis === "y" ? "width" : "length";
    const parts = slices(part, within, axis, size);
    for (const slice of parts.slice(0, -1)) {
      const place = fromNm(slice.region[axis] + slice.region[size] - kerf / 2 + trim);
      const across = axis === "y" ? "x" : "y";
      const extent = axis === "y" ? part.length : part.width;
      const [low, high] = [fromNm(part[across] + trim), fromNm(part[across] + extent - kerf + trim)];
      lines.push(
        axis === "y"
          ? { stage, from: [low, place], to: [high, place] }
          : { stage, from: [place, low], to: [place, high] },
      );
    }
    for (const slice of parts) visit(slice.region, slice.rects, stage + 1, parts.length === 1 ? idle + 1 : 0);
  };
  visit(region, rects, 1, 0);
  return lines;
}
