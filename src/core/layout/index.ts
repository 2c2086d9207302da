/** The door of the layouts: tasks from the tally and the layouts that are kept. */
export { blankOf } from "./blank";
export {
  type FoundLayout,
  isReleased,
  keepLayout,
  keptFault,
  keptFor,
  type OutdatedReason,
  outdatedWords,
  type PieceWithoutPlace,
  piecesWithoutPlace,
  restsToKeep,
  stockOfKept,
  usedRack,
  withLocks,
  withOwnLocks,
} from "./kept";
export { KeptSchema, readKept } from "./kept-schema";
export { LAYOUT_KINDS, layoutKind, type Rest, type Taken } from "./kinds";
export { areaOfPanel, outlinePoints } from "./panel-shape";
export type { LayoutWorker } from "./remote";
export { type SawChoice, type SawReason, sawFor, sawReasonWords } from "./saws";
export {
  type BarSettings,
  barSettings,
  cutWay,
  type ShapeSettings,
  type SheetSettings,
  shapeSettings,
  sheetSettings,
} from "./settings";
export { layoutTasks, type RowFinder, rowFinder, tasksOfRows } from "./tasks";
export {
  type BarTask,
  type KeptBars,
  type KeptLayout,
  type KeptOf,
  type KeptShapes,
  type KeptSheets,
  type LaidPiece,
  type LayoutKind,
  type LayoutOf,
  type LayoutTask,
  type LayoutWishes,
  type NamedRow,
  type ProblemOf,
  pieceKey,
  type ShapeTask,
  type SheetTask,
  type TaskGround,
  type TaskStock,
} from "./types";
