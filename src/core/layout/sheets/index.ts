/** The door of the sheet layouts. */
export {
  boxOf,
  bringBack,
  movedTogether,
  movePanel,
  type PlacedAt,
  type Refusal,
  type Spot,
  setAside,
  setLock,
} from "./by-hand";
export { type CutLine, cutLines } from "./cut-lines";
export type { CutRect } from "./cuts";
export { type LeftPart, type SheetCut, type SheetCuttingOrder, sheetCuts } from "./cutting-order";
export { wholeBlank } from "./instance";
export { layOutSheets, lockedFault, lockedSheetFault, type SheetOptions, type SheetProgress } from "./layout";
export {
  type CutSheet,
  type LockedPlacement,
  type Offcut,
  type Placement,
  readSheetProblem,
  type SheetLayout,
  type SheetProblem,
  type SheetProblemInput,
  SheetProblemSchema,
  type Together,
  type UnplacedPanel,
} from "./problem";
export { withOffcuts } from "./result";
export { type Direction, firstSpot, nextSpot, snapped } from "./spots";
export { verifySheets } from "./verify";
