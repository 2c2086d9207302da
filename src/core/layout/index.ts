/** The door of the layouts: tasks from the tally and the layouts that are kept. */
export { adviceFor } from "./advice";
export { blankOf } from "./blank";
export {
  type FoundLayout,
  isReleased,
  type KeptBars,
  type KeptLayout,
  type KeptSheets,
  keepLayout,
  keptFor,
  usedRack,
} from "./kept";
export { lockedBars, lockedSheets, type Taken, withLocks } from "./locks";
export { problemNotes } from "./notes";
export type { LayoutWorker } from "./remote";
export { type Rest, restsToKeep } from "./rests";
export { askedOf, type SawChoice, sawFor } from "./saws";
export { type BarSettings, barSettings, type SheetSettings, sheetSettings } from "./settings";
export {
  type BarTask,
  type LaidPiece,
  type LayoutTask,
  type LayoutWishes,
  layoutTasks,
  type NamedRow,
  NO_WISHES,
  pieceKey,
  type RowFinder,
  rowFinder,
  type SheetTask,
  stockOfTask,
  type TaskGround,
  tasksOfRows,
} from "./tasks";
