/** Layouts in a web worker: decode, call the core, report. It is ended from outside to cancel. */
import { expose } from "comlink";
import { type BarLayout, type BarProblem, layOutBars } from "@/core/layout/bars";
import { layOutSheets, type SheetLayout, type SheetProblem } from "@/core/layout/sheets";
import { loadLinearSolver } from "@/engines/linear-solver";

export type LayoutWorker = {
  bars: (problem: BarProblem, budgetMs: number, onProgress: (best: BarLayout) => void) => Promise<BarLayout>;
  sheets: (
    problem: SheetProblem,
    budgetMs: number,
    onProgress: (best: SheetLayout) => void,
  ) => Promise<SheetLayout>;
};

const now = () => performance.now();

const worker: LayoutWorker = {
  bars: async (problem, budgetMs, onProgress) => {
    const solver = await loadLinearSolver(`${self.location.origin}/engines/highs.wasm`);
    return layOutBars(problem, { solver, now, budgetMs, onProgress: ({ best }) => onProgress(best) });
  },
  sheets: async (problem, budgetMs, onProgress) =>
    layOutSheets(problem, { seed: 1, now, budgetMs, onProgress: ({ best }) => onProgress(best) }),
};

expose(worker);
