/** What a layout worker offers to whoever started it: the searches, with every better answer told. */
import type { BarLayout, BarProblem } from "./bars";
import type { SheetLayout, SheetProblem } from "./sheets";

export type LayoutWorker = {
  readonly bars: (
    problem: BarProblem,
    budgetMs: number,
    onProgress: (best: BarLayout) => void,
  ) => Promise<BarLayout>;
  readonly sheets: (
    problem: SheetProblem,
    budgetMs: number,
    onProgress: (best: SheetLayout) => void,
  ) => Promise<SheetLayout>;
};
