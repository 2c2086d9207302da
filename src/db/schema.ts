/**
 * The database: jobs as aggregates (the document as JSON with its revision) beside relational tables for
 * what is asked across jobs. Migrations are made from this file by drizzle-kit.
 */
import { index, integer, primaryKey, real, sqliteTable, text, uniqueIndex } from "drizzle-orm/sqlite-core";

export const jobs = sqliteTable("jobs", {
  id: text("id").primaryKey(),
  code: text("code").notNull(),
  title: text("title").notNull(),
  document: text("document").notNull(),
  revision: integer("revision").notNull(),
  createdAt: integer("created_at").notNull(),
  updatedAt: integer("updated_at").notNull(),
  /** Set while a deleted job can still be brought back. */
  deletedAt: integer("deleted_at"),
});

/**
 * Everything that was ever done to a job, never shortened. An edit is `applied`, `undone`, or `dropped`
 * when another edit took the place of what was undone; undo and redo are rows of their own.
 */
export const editLog = sqliteTable(
  "edit_log",
  {
    id: integer("id").primaryKey({ autoIncrement: true }),
    jobId: text("job_id")
      .notNull()
      .references(() => jobs.id, { onDelete: "cascade" }),
    /** Revision of the job after it. */
    revision: integer("revision").notNull(),
    /** What its sender calls it: an edit that is sent twice is applied once. */
    editId: text("edit_id"),
    action: text("action", { enum: ["edit", "undo", "redo"] }).notNull(),
    name: text("name").notNull(),
    state: text("state", { enum: ["applied", "undone", "dropped"] }).notNull(),
    edit: text("edit"),
    diff: text("diff").notNull(),
    at: integer("at").notNull(),
  },
  (table) => [
    index("edit_log_job").on(table.jobId, table.revision),
    uniqueIndex("edit_log_edit").on(table.jobId, table.editId),
  ],
);

/** What jobs refer to by its content (SHA-256), each once. */
export const assets = sqliteTable("assets", {
  id: text("id").primaryKey(),
  asset: text("asset").notNull(),
  at: integer("at").notNull(),
});

/** Kept layouts, one for each variant and task of a job. */
export const layouts = sqliteTable(
  "layouts",
  {
    jobId: text("job_id")
      .notNull()
      .references(() => jobs.id, { onDelete: "cascade" }),
    variant: text("variant").notNull(),
    taskId: text("task_id").notNull(),
    kept: text("kept").notNull(),
    at: integer("at").notNull(),
    /** When it went to the floor; null: it has not yet. */
    releasedAt: integer("released_at"),
  },
  (table) => [primaryKey({ columns: [table.jobId, table.variant, table.taskId] })],
);

/** Pages of drawings as they were put out last, one for each variant of a job. */
export const pagesOut = sqliteTable(
  "pages_out",
  {
    jobId: text("job_id")
      .notNull()
      .references(() => jobs.id, { onDelete: "cascade" }),
    variant: text("variant").notNull(),
    pageId: text("page_id").notNull(),
    revision: integer("revision").notNull(),
    at: integer("at").notNull(),
    /** What stood on it, as JSON. */
    says: text("says").notNull(),
  },
  (table) => [primaryKey({ columns: [table.jobId, table.variant, table.pageId] })],
);

/** Jobs that are laid out together. */
export const combinedJobs = sqliteTable("batches", {
  id: text("id").primaryKey(),
  name: text("name").notNull(),
  /** Ids of its jobs in their order, as JSON. */
  jobs: text("jobs").notNull(),
  at: integer("at").notNull(),
});

/** Kept layouts of combined layouts. */
export const combinedLayouts = sqliteTable(
  "batch_layouts",
  {
    combinedId: text("batch_id")
      .notNull()
      .references(() => combinedJobs.id, { onDelete: "cascade" }),
    taskId: text("task_id").notNull(),
    kept: text("kept").notNull(),
    at: integer("at").notNull(),
    releasedAt: integer("released_at"),
  },
  (table) => [primaryKey({ columns: [table.combinedId, table.taskId] })],
);

/** Layouts that were released, as they were then: appended, never changed. */
export const releasedLayouts = sqliteTable("released_layouts", {
  /** The id of the layout. */
  id: text("id").primaryKey(),
  /** The job or the combined layout. */
  owner: text("owner").notNull(),
  variant: text("variant").notNull(),
  taskId: text("task_id").notNull(),
  kept: text("kept").notNull(),
  at: integer("at").notNull(),
});

/** Offcuts in the rack. What has left it stays as a row, so that a label is never given twice. */
export const rackPieces = sqliteTable("rack_pieces", {
  id: text("id").primaryKey(),
  label: text("label").notNull().unique(),
  entryId: text("entry_id").notNull(),
  material: text("material"),
  length: real("length").notNull(),
  /** null: a bar. */
  width: real("width"),
  place: text("place").notNull(),
  note: text("note").notNull(),
  cameFrom: text("came_from"),
  /** Whose layout has set it aside: a job or a combined layout. */
  holderJob: text("holder_job"),
  holderCode: text("holder_code"),
  holderVariant: text("holder_variant"),
  holderTask: text("holder_task"),
  at: integer("at").notNull(),
  goneAt: integer("gone_at"),
  /** Counts the changes by hand; what a layout sets aside is no change of the piece. */
  revision: integer("revision").notNull().default(1),
});

/** Entries of the stockroom; what differs between kinds stands in `facts` as validated JSON. */
export const stockEntries = sqliteTable("stock_entries", {
  id: text("id").primaryKey(),
  kind: text("kind", { enum: ["section", "board", "edging", "bought", "saw"] }).notNull(),
  position: integer("position").notNull(),
  name: text("name").notNull(),
  material: text("material"),
  facts: text("facts").notNull(),
  revision: integer("revision").notNull(),
});

/** Sizes that an entry is sold in, with their prices. `width` is null for bars. */
export const stockSizes = sqliteTable(
  "stock_sizes",
  {
    entryId: text("entry_id")
      .notNull()
      .references(() => stockEntries.id, { onDelete: "cascade" }),
    position: integer("position").notNull(),
    length: real("length").notNull(),
    width: real("width"),
    price: real("price"),
    /** What the price is for; null: the whole bar or sheet. */
    per: text("per"),
    count: integer("count"),
  },
  (table) => [primaryKey({ columns: [table.entryId, table.position] })],
);

/** List setups that are kept for other jobs, by name. */
export const listSetups = sqliteTable("list_setups", {
  name: text("name").primaryKey(),
  kept: text("kept").notNull(),
  at: integer("at").notNull(),
});

export const settings = sqliteTable("settings", {
  name: text("name").primaryKey(),
  value: text("value").notNull(),
});
