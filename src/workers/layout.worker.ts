/** Layouts in a web worker: decode, call the core, report. It is ended from outside to cancel. */
import { expose } from "comlink";
import type { LayoutWorker } from "@/core/layout";
import { layOutBars } from "@/core/layout/bars";
import { layOutNesting } from "@/core/layout/nesting";
import { layOutSheets } from "@/core/layout/sheets";
import { loadLinearSolver } from "@/engines/linear-solver";

const now = () => performance.now();

const worker: LayoutWorker = {
  bars: async (problem, budgetMs, onProgress) => {
    const solver = await loadLinearSolver(`${self.location.origin}/engines/highs.wasm`);
    return layOutBars(problem, { solver, now, budgetMs, onProgress: ({ best }) => onProgress(best) });
  },
  sheets: async (problem, budgetMs, onProgress) =>
    layOutSheets(problem, { seed: 1, now, budgetMs, onProgress: ({ best }) => onProgress(best) }),
  shapes: async (problem, budgetMs, onProgress) =>
    layOutNesting(problem, { seed: 1, now, budgetMs, onProgress: ({ best }) => onProgress(best) }),
};

expose(worker);
