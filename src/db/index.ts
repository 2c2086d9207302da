/** The door of the database: the connection and one repository for each aggregate. */
export { type Connection, databaseUrl, openDatabase } from "./database";
export {
  findJob,
  insertJob,
  type JobSummary,
  listJobs,
  readLayouts,
  type StepNames,
  type StoredJob,
  saveLayout,
  setDeleted,
  stepJob,
  stepNames,
} from "./job-repository";
export { keepListSetup, readListSetups, removeListSetup } from "./list-setup-repository";
export {
  readSetting,
  readStock,
  removeStockEntry,
  type StockChange,
  type StockSnapshot,
  saveStockEntry,
  writeSetting,
} from "./stock-repository";
