/** The door of the use cases. */

export { bringIn } from "./bring-in";
export { type Card, jobCards, jobPicture } from "./cards";
export { combinedInput, type OpenCombined, openCombined } from "./combined";
export { connection } from "./connection";
export {
  DIAGRAM_FORMATS,
  type DiagramFormat,
  isDiagramFormat,
  printDiagrams,
  printRackLabels,
} from "./diagrams";
export { lastEdits, type StepAnswer, stepBack, submitEdit } from "./edits";
export {
  createEmptyJob,
  createFromList,
  duplicateJob,
  type OpenJob,
  openJob,
  openJobText,
} from "./jobs";
export { layoutTime } from "./layout-time";
export { readListRows } from "./list-rows";
export { drawnPages, printPages, putPagesOut, withPages } from "./pages";
export { type ComputedJob, computeJob, fileName, printInput, printJob, printList } from "./papers";
export { readShop, type Shop, ShopSchema, writeShop } from "./shop";
export { compareVariants, printVariants } from "./variants";
