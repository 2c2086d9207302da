/** The door of the layouts: tasks from the tally and the layouts that are kept. */
export { type PieceWithoutPlace, piecesWithoutPlace } from "./advice";
export { blankOf } from "./blank";
export {
  type FoundLayout,
  isReleased,
  type KeptBars,
  type KeptLayout,
  type KeptShapes,
  type KeptSheets,
  keepLayout,
  keptFor,
  type LayoutOf,
  type ProblemOf,
  stockOfKept,
  usedRack,
} from "./kept";
export { type Taken, withLocks, withOwnLocks } from "./locks";
export { problemNotes } from "./notes";
export { areaOfPanel, outlinePoints } from "./panel-shape";
export type { LayoutWorker } from "./remote";
export { type Rest, restsToKeep } from "./rests";
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
export {
  type BarTask,
  type LaidPiece,
  type LayoutKind,
  type LayoutTask,
  type LayoutWishes,
  layoutTasks,
  type NamedRow,
  pieceKey,
  type RowFinder,
  rowFinder,
  type ShapeTask,
  type SheetTask,
  type TaskGround,
  type TaskStock,
  tasksOfRows,
} from "./tasks";
