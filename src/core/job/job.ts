/**
 * The job document: flat tables of small records, each with its id. Nothing of the interface's state is
 * in it. A document carries its schema version and is migrated when it is read.
 */
import * as v from "valibot";
import { err, ok, type Problem, type Result } from "../kernel";
import { LENGTH_UNITS, type LengthStyle } from "../measure";
import { AssemblySchema, PlacementSchema } from "./assembly";
import { BoughtPartSchema } from "./bought-part";
import { LineSchema, PointSchema } from "./frame";
import { HandRowSchema } from "./hand-row";
import { issueWords } from "./issue-words";
import { KeySizeSchema, VariantSchema } from "./key-size";
import { BlankGroupSchema, LayoutSettingSchema } from "./layout-setting";
import { LengthFormatSchema } from "./length-format";
import { ListCellSchema } from "./list-cell";
import { LIST_DEFAULTS, ListSetupSchema } from "./list-setup";
import { MemberSchema } from "./member";
import { OwnColumnSchema } from "./own-column";
import { PanelSchema } from "./panel";
import { keyText, recordId } from "./text";
import { TypedPieceSchema } from "./typed-piece";
import { NOTHING_USUAL, UsualSchema } from "./usual";

const SCHEMA_VERSION = 7;

/** What holds for the job as a whole. */
export const JobInfoSchema = v.object({
  id: v.literal("job"),
  code: v.pipe(v.string(), v.trim(), v.minLength(1, "needs a code"), v.maxLength(24)),
  title: v.pipe(v.string(), v.trim(), v.minLength(1, "needs a title"), v.maxLength(80)),
  unit: v.picklist(LENGTH_UNITS),
  format: LengthFormatSchema,
  /** How many times the whole job is made. */
  batch: v.pipe(v.number(), v.integer(), v.minValue(1, "must be at least 1"), v.maxValue(10_000)),
  /** Added to net lengths and areas when material is bought by rule. */
  wastePercent: v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(200)),
  /** Where quantities are rounded to three places of m and m². */
  rounding: v.picklist(["piece", "line", "end"]),
  usual: UsualSchema,
  /** How the buying list writes feet in a job in inches or feet. */
  feet: v.optional(v.picklist(["decimal", "feetAndInches"]), "decimal"),
});
/** How a job's lengths are written. */
export const jobStyle = ({ info }: { readonly info: { readonly job: JobInfo } }): LengthStyle => ({
  unit: info.job.unit,
  format: info.job.format,
});

export type JobInfo = v.InferOutput<typeof JobInfoSchema>;

/** The mark that a piece was last given; kept so that marks stay over edits. */
export const KeptMarkSchema = v.object({
  id: recordId,
  mark: v.pipe(v.string(), v.minLength(1), v.maxLength(12)),
  /** Somebody typed it: the row keeps it whatever else changes. */
  held: v.optional(v.boolean()),
});
export type KeptMark = v.InferOutput<typeof KeptMarkSchema>;

/** Two marks whose small difference somebody looked at and meant. */
const MeantSchema = v.object({
  id: keyText(130),
});

export const RECORD_SCHEMAS = {
  info: JobInfoSchema,
  keySizes: KeySizeSchema,
  variants: VariantSchema,
  points: PointSchema,
  lines: LineSchema,
  members: MemberSchema,
  panels: PanelSchema,
  boughtParts: BoughtPartSchema,
  assemblies: AssemblySchema,
  placements: PlacementSchema,
  lists: ListSetupSchema,
  ownColumns: OwnColumnSchema,
  listCells: ListCellSchema,
  handRows: HandRowSchema,
  layoutSettings: LayoutSettingSchema,
  blankGroups: BlankGroupSchema,
  typedPieces: TypedPieceSchema,
  marks: KeptMarkSchema,
  meant: MeantSchema,
} as const;
export type TableName = keyof typeof RECORD_SCHEMAS;
export type RecordOf<T extends TableName> = v.InferOutput<(typeof RECORD_SCHEMAS)[T]>;
export type AnyRecord = RecordOf<TableName>;

const table = <S extends v.GenericSchema>(schema: S) => v.record(keyText(200), schema);

export const JobSchema = v.object({
  schemaVersion: v.literal(SCHEMA_VERSION),
  info: v.object({ job: JobInfoSchema }),
  keySizes: table(KeySizeSchema),
  variants: table(VariantSchema),
  points: table(PointSchema),
  lines: table(LineSchema),
  members: table(MemberSchema),
  panels: table(PanelSchema),
  boughtParts: table(BoughtPartSchema),
  assemblies: table(AssemblySchema),
  placements: table(PlacementSchema),
  lists: table(ListSetupSchema),
  ownColumns: table(OwnColumnSchema),
  listCells: table(ListCellSchema),
  handRows: table(HandRowSchema),
  layoutSettings: table(LayoutSettingSchema),
  blankGroups: table(BlankGroupSchema),
  typedPieces: table(TypedPieceSchema),
  marks: table(KeptMarkSchema),
  meant: table(MeantSchema),
});
export type Job = v.InferOutput<typeof JobSchema>;

/** A job without any geometry. */
export function emptyJob(info: Pick<JobInfo, "code" | "title"> & Partial<JobInfo>): Job {
  return {
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
        ...info,
        id: "job",
      },
    },
    keySizes: {},
    variants: {},
    points: {},
    lines: {},
    members: {},
    panels: {},
    boughtParts: {},
    assemblies: {},
    placements: {},
    lists: {},
    ownColumns: {},
    listCells: {},
    handRows: {},
    layoutSettings: {},
    blankGroups: {},
    typedPieces: {},
    marks: {},
    meant: {},
  };
}

/**
 * Fields that records got in a version, with the value that says what held before. 2: what was there is always
 * present and has nothing to choose from. 3: all stands in the job itself, is made, and has no look of its own. 4: lists took everything, in computed
 * order, without levels. 6: panels are rectangles, and cut as the stockroom says. 7: more
 * kinds of end cuts, nothing to add.
 */
const ADDED_FIELDS: Readonly<Record<number, Readonly<Partial<Record<TableName, object>>>>> = {
  2: {
    keySizes: { choices: [] },
    members: { when: null },
    panels: { when: null },
    boughtParts: { when: null },
  },
  3: {
    info: { usual: NOTHING_USUAL },
    keySizes: { asked: false },
    points: { assembly: null },
    members: { role: "made", look: null },
    panels: { assembly: null, between: null, role: "made", look: null },
    boughtParts: { assembly: null, stand: null, look: null },
  },
  4: { lists: LIST_DEFAULTS },
  6: { panels: { outline: null }, layoutSettings: { cut: null, gap: null, turn: null } },
};
const ADDED_TABLES: Readonly<Record<number, readonly TableName[]>> = {
  3: ["assemblies", "placements", "lists"],
  4: ["ownColumns", "listCells", "handRows"],
  5: ["layoutSettings", "blankGroups"],
};

/** A document one version on. Versions so far have only ever added fields and tables. */
function stepped(document: Record<string, unknown>, version: number): Record<string, unknown> {
  const fields = Object.entries(ADDED_FIELDS[version] ?? {}).map(([table, added]) => [
    table,
    eachRecord(document[table], added),
  ]);
  const tables = (ADDED_TABLES[version] ?? []).map((table) => [table, {}]);
  return { ...document, ...Object.fromEntries([...fields, ...tables]), schemaVersion: version };
}

/** Every record of a stored table with the fields that are new. */
function eachRecord(table: unknown, added: object): unknown {
  if (typeof table !== "object" || table === null) return table;
  return Object.fromEntries(Object.entries(table).map(([id, record]) => [id, { ...added, ...record }]));
}

/**
 * A record out of the edit log as the present version has it. The log keeps records as they were written;
 * undo puts them back into a document of today.
 */
export function recordOfToday(table: TableName, record: AnyRecord): AnyRecord {
  return Object.assign({}, ...Object.values(ADDED_FIELDS).map((fields) => fields[table]), record);
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
  for (const name of Object.keys(RECORD_SCHEMAS) as TableName[]) {
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
