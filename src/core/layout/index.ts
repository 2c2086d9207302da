/** The door of the layouts: tasks from the tally and the layouts that are kept. */
export { blankOf } from "./blank";
export { LAYOUT_KINDS, layoutKind, type Rest, type Taken } from "./kinds";
export { areaOfPanel, cutOutArea, openingPoints, outlinePoints, panelShape } from "./panel-shape";
export type { LayoutWorker } from "./remote";
export {
  type FoundLayout,
  isReleased,
  type OutdatedReason,
  outdatedWords,
  type PieceWithoutPlace,
  piecesWithoutPlace,
  restsToKeep,
  savedFault,
  savedFor,
  savedLayout,
  stockOfSaved,
  usedRack,
  withLocks,
  withOwnLocks,
} from "./saved";
export { readSaved, SavedSchema } from "./saved-schema";
export { type SawChoice, type SawReason, sawFor, sawReasonWords } from "./saws";
export {
  type BarSettings,
  barSettings,
  cutWay,
  type NestingSettings,
  nestingSettings,
  type SheetSettings,
  sheetSettings,
} from "./settings";
export { layoutTasks, type RowFinder, rowFinder, tasksOfRows } from "./tasks";
export {
  type BarTask,
  type LaidPiece,
  type LayoutKind,
  type LayoutOf,
  type LayoutTask,
  type LayoutWishes,
  type NamedRow,
  type NestingTask,
  type ProblemOf,
  pieceKey,
  type SavedBars,
  type SavedLayout,
  type SavedNesting,
  type SavedOf,
  type SavedSheets,
  type SheetTask,
  type TaskGround,
  type TaskStock,
} from "./types";
