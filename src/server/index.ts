/** The door of the use cases. */
export { connection } from "./connection";
export { type StepAnswer, stepBack, submitEdit } from "./edits";
export {
  createEmptyJob,
  createFromList,
  createJob,
  currentStockroom,
  duplicateJob,
  type OpenJob,
  openJob,
} from "./jobs";
export { KeptSchema, keptFault } from "./kept-layout";
export { type ComputedJob, computeJob, fileName, printJob, printList } from "./papers";
