/** The door of the sheet layouts. */
export { type CutRect, runsNeeded } from "./cuts";
export { type LeftPart, type SheetCut, type SheetCuttingOrder, sheetCuts } from "./cutting-order";
export { layOutSheets, type SheetOptions, type SheetProgress } from "./layout";
export {
  type CutSheet,
  type Offcut,
  type Placement,
  type SheetLayout,
  type SheetProblem,
  SheetProblemSchema,
  type UnplacedPanel,
} from "./problem";
export { verifySheets } from "./verify";
