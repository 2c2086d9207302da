/** The door of the bar layouts. */

export { type BarCuttingOrder, type BarStep, barCuts } from "./cutting-order";
export { type BarOptions, type BarProgress, layOutBars, remainderOf } from "./layout";
export {
  type BarLayout,
  type BarProblem,
  BarProblemSchema,
  type CutBar,
  type Unplaced,
  usableLength,
} from "./problem";
export type { Column, LinearAnswer, LinearProgram, LinearSolver } from "./solver";
export { verifyBars } from "./verify";
