/**
 * The linear solver of the bar layouts: HiGHS, compiled to WebAssembly, behind the interface that the
 * core declares. Synchronous once loaded, so it belongs in a worker. A run that is aborted leaves the
 * instance in an undefined state: load a fresh one then.
 */
import loadHighs, { type Highs } from "highs";
import type { Column, LinearProgram, LinearSolver } from "@/core/layout/bars";

/** Loads the solver. `wasmUrl` is needed in the browser, where the package cannot find its own binary. */
export async function loadLinearSolver(wasmUrl?: string): Promise<LinearSolver> {
  const highs = await loadHighs(wasmUrl === undefined ? {} : { locateFile: () => wasmUrl });
  return { createProgram: (rows) => createProgram(highs, rows) };
}

function createProgram(highs: Highs, rows: number): LinearProgram {
  const { infinity, constants } = highs;
  const model = highs.createModel({
    numCols: 0,
    numRows: rows,
    colCost: [],
    colLower: [],
    colUpper: [],
    rowLower: new Array<number>(rows).fill(-infinity),
    rowUpper: new Array<number>(rows).fill(infinity),
    matrix: {
      format: "csc",
      numRows: rows,
      numCols: 0,
      starts: new Int32Array([0]),
      indices: new Int32Array(0),
      values: new Float64Array(0),
    },
  });
  model.options.set({ output_flag: false });
  let columns = 0;
  const finite = (value: number) =>
    value === Number.POSITIVE_INFINITY ? infinity : value === Number.NEGATIVE_INFINITY ? -infinity : value;
  const everyColumn = () => ({ kind: "range", from: 0, to: columns - 1 }) as const;
  const typed = (type: typeof constants.variableType.continuous | typeof constants.variableType.integer) =>
    model.changeColsIntegrality(everyColumn(), new Int32Array(columns).fill(type));

  return {
    addColumns: (added: readonly Column[]) => {
      if (added.length === 0) return;
      const starts = new Int32Array(added.length + 1);
      added.forEach((column, i) => {
        starts[i + 1] = (starts[i] ?? 0) + column.rows.length;
      });
      model.addCols({
        cost: Float64Array.from(added, (column) => column.cost),
        lower: new Float64Array(added.length),
        upper: new Float64Array(added.length).fill(infinity),
        matrix: {
          format: "csc",
          numRows: rows,
          numCols: added.length,
          starts,
          indices: Int32Array.from(added.flatMap((column) => column.rows)),
          values: Float64Array.from(added.flatMap((column) => column.values)),
        },
      });
      columns += added.length;
    },
    setRows: (lower, upper) => {
      model.changeRowsBounds(
        { kind: "range", from: 0, to: rows - 1 },
        Float64Array.from(lower, finite),
        Float64Array.from(upper, finite),
      );
    },
    solve: () => {
      model.run();
      if (model.getModelStatus() !== constants.modelStatus.optimal) return null;
      const { colValue, rowDual } = model.getSolution();
      return { objective: model.getObjectiveValue(), duals: rowDual, primal: colValue };
    },
    solveWhole: ({ seconds, nodes }) => {
      typed(constants.variableType.integer);
      model.options.set({ time_limit: seconds, mip_max_nodes: nodes });
      try {
        model.run();
        const feasible = Number(model.info.get("primal_solution_status")) === 2;
        return feasible ? model.getSolution().colValue : null;
      } finally {
        typed(constants.variableType.continuous);
        model.options.set({ time_limit: 1e9 });
      }
    },
    dispose: () => model.dispose(),
  };
}
