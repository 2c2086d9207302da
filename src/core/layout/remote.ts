/** What a layout worker offers to whoever started it: a search of each kind, with every better answer told. */
import type { LayoutKind, LayoutOf, ProblemOf } from "./types";

export type LayoutWorker = {
  readonly [K in LayoutKind]: (
    problem: ProblemOf[K],
    budgetMs: number,
    onProgress: (best: LayoutOf[K]) => void,
  ) => Promise<LayoutOf[K]>;
};
