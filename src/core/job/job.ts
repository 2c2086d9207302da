/**
 * The job document: flat tables of small records, each with its id. Nothing of the interface's state is
 * in it. A document carries its schema version and is migrated when it is read: each table says itself what its records
 * have got since.
 */
import * as v from "valibot";
import { err, ok, type Problem, type Result } from "../kernel";
import { assemblies, placements } from "./assembly";
import { boughtParts } from "./bought-part";
import type { Entity, Stored } from "./entity";
import { lines, points } from "./frame";
import { handRows } from "./hand-row";
import { imports } from "./import";
import { issueWords } from "./issue-words";
import { info, type JobInfo, marks, meant } from "./job-info";
import { keySizes, variants } from "./key-size";
import { blankGroups, layoutSettings } from "./layout-setting";
import { listCells } from "./list-cell";
import { lists } from "./list-setup";
import { members } from "./member";
import { ownColumns } from "./own-column";
import { pages } from "./page";
import { pageItems } from "./page-item";
import { panels } from "./panel";
import { keyText } from "./text";
import { typedPieces } from "./typed-piece";
import { NOTHING_USUAL } from "./usual";

/**
 * 7: more kinds of end cuts, nothing to add. 8: shapes from files by their content. 9: pages. 10: the way of the grain, panels that
 * are tilted, single ones of a row left out, the entry that prices an assembly. 11: files that were read. 12: ends at two angles, nothing to add.
 * 13: cut-outs of panels, nothing to add.
 */
export const SCHEMA_VERSION = 13;

export const ENTITIES = {
  info,
  keySizes,
  variants,
  points,
  lines,
  members,
  panels,
  boughtParts,
  assemblies,
  placements,
  lists,
  ownColumns,
  listCells,
  handRows,
  layoutSettings,
  blankGroups,
  typedPieces,
  pages,
  pageItems,
  imports,
  marks,
  meant,
} as const;
export type TableName = keyof typeof ENTITIES;
export const TABLES = Object.keys(ENTITIES) as readonly TableName[];
export type RecordOf<T extends TableName> = v.InferOutput<(typeof ENTITIES)[T]["schema"]>;
export type AnyRecord = RecordOf<TableName>;

const recordKey = keyText(200);
/** All tables but `info`, which holds one record. */
type TableSchemas = {
  [T in Exclude<TableName, "info">]: v.RecordSchema<
    typeof recordKey,
    (typeof ENTITIES)[T]["schema"],
    undefined
  >;
};
const tableSchemas = Object.fromEntries(
  TABLES.flatMap((table) => (table === "info" ? [] : [[table, v.record(recordKey, ENTITIES[table].schema)]])),
) as TableSchemas;

export const JobSchema = v.object({
  schemaVersion: v.literal(SCHEMA_VERSION),
  info: v.object({ job: info.schema }),
  ...tableSchemas,
});
export type Job = v.InferOutput<typeof JobSchema>;

/** A job without any geometry. */
export function emptyJob(own: Pick<JobInfo, "code" | "title"> & Partial<JobInfo>): Job {
  const empty = Object.fromEntries(TABLES.map((table) => [table, {}])) as Omit<Job, "schemaVersion">;
  return {
    ...empty,
    schemaVersion: SCHEMA_VERSION,
    info: {
      job: {
        unit: "mm",
        format: { kind: "decimal", places: 1, trailingZeros: false },
        batch: 1,
        wastePercent: 10,
        rounding: "line",
        feet: "decimal",
        usual: NOTHING_USUAL,
        drawnBy: "",
        ...own,
        id: "job",
      },
    },
  };
}

/** A document one version on: tables and fields that are new, and records that changed. */
function stepped(document: Record<string, unknown>, version: number): Record<string, unknown> {
  const tables = TABLES.flatMap((table): (readonly [string, unknown])[] => {
    const { since, added, changed }: Entity<v.GenericSchema> = ENTITIES[table];
    if (since === version) return [[table, {}]];
    const [fields, change] = [added[version], changed[version]];
    if (!fields && !change) return [];
    return [[table, eachRecord(document[table], (record) => (change ?? same)({ ...fields, ...record }))]];
  });
  return { ...document, ...Object.fromEntries(tables), schemaVersion: version };
}

const same = (record: Stored) => record;

/** A stored table with something done to each of its records. */
function eachRecord(table: unknown, change: (record: Stored) => Stored): unknown {
  if (typeof table !== "object" || table === null) return table;
  return Object.fromEntries(
    Object.entries(table).map(([id, record]) => [
      id,
      typeof record === "object" && record !== null ? change(record) : record,
    ]),
  );
}

/**
 * A record out of the edit log as the present version has it. The log keeps records as they were written;
 * undo puts them back into a document of today.
 */
export function recordOfToday(table: TableName, record: AnyRecord): AnyRecord {
  const { added, changed }: Entity<v.GenericSchema> = ENTITIES[table];
  const filled: Stored = Object.assign({}, ...Object.values(added), record);
  return Object.values(changed).reduce((one, change) => change(one), filled) as AnyRecord;
}

/** Checks and migrates a stored or received document. */
export function readJob(data: unknown): Result<Job, Problem> {
  if (typeof data !== "object" || data === null || Array.isArray(data)) {
    return err({ kind: "malformed", what: "The job file", why: "it is not a JSON object" });
  }
  let document = data as Record<string, unknown>;
  const version = document["schemaVersion"];
  if (typeof version !== "number" || !Number.isInteger(version) || version < 1 || version > SCHEMA_VERSION) {
    return err({
      kind: "malformed",
      what: "The job file",
      why: `its schemaVersion is ${JSON.stringify(version) ?? "missing"}, this program reads up to ${SCHEMA_VERSION}`,
    });
  }
  for (let from = version; from < SCHEMA_VERSION; from++) document = stepped(document, from + 1);
  const checked = v.safeParse(JobSchema, document);
  if (checked.success) return idsAgree(checked.output as Job);
  return err({ kind: "malformed", what: "The job file", why: issueWords(checked.issues) });
}

function idsAgree(job: Job): Result<Job, Problem> {
  for (const name of TABLES) {
    for (const [key, record] of Object.entries(job[name])) {
      if (record.id !== key) {
        return err({
          kind: "malformed",
          what: "The job file",
          why: `${name}.${key} carries the id ${record.id}`,
        });
      }
    }
  }
  return ok(job);
}
