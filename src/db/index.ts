/** The door of the database: the connection and one repository for each aggregate. */

export { assetText, readAssets, saveAsset } from "./asset-repository";
export { backUp, dailyBackup } from "./backup";
export { backupFaultWords } from "./backup-fault";
export {
  type Combined,
  findCombined,
  listCombined,
  removeCombined,
  saveCombined,
} from "./combined-repository";
export { type Connection, databaseUrl, openDatabase, readFault } from "./database";
export { DatabaseFault } from "./fault";
export {
  findJob,
  findJobText,
  findSummary,
  insertJob,
  type JobSummary,
  type ListedJob,
  listJobs,
  rawDocument,
  readJobs,
  type StepNames,
  type StoredJob,
  setDeleted,
  stepJob,
  stepNames,
  stepsBack,
  UnreadableJob,
} from "./job-repository";
export {
  type LayoutOwner,
  type ReleaseOutcome,
  readLayouts,
  releaseLayout,
  type StoredLayout,
  saveLayout,
} from "./layout-repository";
export { keepListSetup, readListSetups, removeListSetup } from "./list-setup-repository";
export { keepPagesOut, readPagesOut } from "./page-repository";
export { readRack, readRackRevisions, removeRackPiece, saveRackPiece } from "./rack-repository";
export {
  readSetting,
  readStock,
  removeStockEntry,
  type StockChange,
  type StockSnapshot,
  saveSetRecipe,
  saveStockEntry,
  saveTitleBlock,
  writeSetting,
} from "./stock-repository";
