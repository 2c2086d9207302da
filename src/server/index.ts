/** The door of the use cases. */

export { batchInput, type OpenBatch, openBatch } from "./batches";
export { type Card, jobCards, jobPicture } from "./cards";
export { connection } from "./connection";
export {
  DIAGRAM_FORMATS,
  type DiagramFormat,
  isDiagramFormat,
  printDiagrams,
  printRackLabels,
} from "./diagrams";
export { type StepAnswer, stepBack, submitEdit } from "./edits";
export {
  createEmptyJob,
  createFromList,
  currentStockroom,
  duplicateJob,
  type OpenJob,
  openJob,
  openJobText,
} from "./jobs";
export { layoutTime } from "./layout-time";
export { readListRows } from "./list-rows";
export { type ComputedJob, computeJob, fileName, printInput, printJob, printList } from "./papers";
export { readShop, type Shop, ShopSchema, writeShop } from "./shop";
