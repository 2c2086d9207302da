/** What the bar layout needs of a linear and integer solver; the engines give it one. */

/** A column: its cost, its entries and the most it may take. */
export type Column = {
  readonly cost: number;
  readonly rows: readonly number[];
  readonly values: readonly number[];
};

export type LinearAnswer = {
  readonly objective: number;
  readonly duals: ArrayLike<number>;
  readonly primal: ArrayLike<number>;
};

/** A minimisation over columns x ≥ 0 with bounds on the rows; kept and solved again as it grows. */
export type LinearProgram = {
  readonly addColumns: (columns: readonly Column[]) => void;
  readonly setRows: (lower: readonly number[], upper: readonly number[]) => void;
  /** null when it has no solution. */
  readonly solve: () => LinearAnswer | null;
  /** The best whole-numbered answer found within the limits; null when there is none. */
  readonly solveWhole: (limits: {
    readonly seconds: number;
    readonly nodes: number;
  }) => ArrayLike<number> | null;
  readonly dispose: () => void;
};

export type LinearSolver = {
  readonly createProgram: (rows: number) => LinearProgram;
};
