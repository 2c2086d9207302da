/** The door of the layouts: tasks from the tally and the layouts that are kept. */
export type { LayoutWorker } from "./remote";
export {
  type BarTask,
  blankOf,
  type KeptLayout,
  keepLayout,
  keptFor,
  type LaidPiece,
  type LayoutTask,
  layoutTasks,
  type SheetTask,
} from "./tasks";
