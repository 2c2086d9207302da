/** Use cases of jobs: open, make, copy, delete and bring back, and new ones from a cutting list. */
import { randomUUID } from "node:crypto";
import {
  emptyJob,
  type Job,
  type JobInfo,
  readCuttingList,
  rowFaultWords,
  type UnreadableRow,
  withEdit,
} from "@/core/job";
import { err, ok, type Problem, type Result } from "@/core/kernel";
import { createPipeline } from "@/core/pipeline";
import { indexStockroom, type Rack, type Stockroom } from "@/core/stockroom";
import {
  type Connection,
  findJob,
  findJobText,
  insertJob,
  readLayouts,
  readRack,
  readSetting,
  readStock,
  type StepNames,
  type StoredJob,
  type StoredLayout,
  stepNames,
} from "@/db";
import { readListRows } from "./list-rows";

const newId = () => randomUUID().slice(0, 13);

export async function currentStockroom(db: Connection): Promise<Stockroom> {
  return indexStockroom((await readStock(db)).data);
}

/** A job with everything that its desk needs. */
export type OpenJob = StoredJob & {
  readonly layouts: readonly StoredLayout[];
  readonly rack: Rack;
  readonly steps: StepNames;
  /** The name of the shop, as it stands on papers. */
  readonly shop: string;
};

export async function openJob(db: Connection, id: string, variant: string): Promise<OpenJob | null> {
  const stored = await findJob(db, id);
  if (!stored) return null;
  return { ...stored, ...(await besideJob(db, id, variant, stored.code)) };
}

/** The same as the text of a JSON object: a document that was read before leaves as it is stored. */
export async function openJobText(db: Connection, id: string, variant: string): Promise<string | null> {
  const found = await findJobText(db, id);
  if (!found) return null;
  const { document, ...summary } = found;
  const rest = JSON.stringify({ ...summary, ...(await besideJob(db, id, variant, summary.code)) });
  return `${rest.slice(0, -1)},"job":${document}}`;
}

async function besideJob(db: Connection, id: string, variant: string, code: string) {
  const [layouts, pieces, steps, shop] = await Promise.all([
    readLayouts(db, { job: id, variant, code }),
    readRack(db),
    stepNames(db.db, id),
    readSetting(db, "shop"),
  ]);
  return { layouts, rack: { owner: id, pieces }, steps, shop: shop ?? "" };
}

/** The job with the marks that its tally gives it, so that they stay from the first edit on. */
function withMarksKept(job: Job, stockroom: Stockroom): Job {
  const { tally } = createPipeline()(job, null, stockroom, []);
  if (tally.newMarks.length === 0) return job;
  const kept = withEdit(job, { kind: "keepMarks", marks: [...tally.newMarks], drop: [] });
  return kept.ok ? kept.value : job;
}

export async function createJob(db: Connection, job: Job, id = newId()): Promise<string> {
  await insertJob(db, id, withMarksKept(job, await currentStockroom(db)), Date.now());
  return id;
}

export function createEmptyJob(
  db: Connection,
  info: Pick<JobInfo, "code" | "title" | "unit">,
): Promise<string> {
  const format: JobInfo["format"] =
    info.unit === "in" || info.unit === "ft"
      ? { kind: "fraction", denominator: 16 }
      : { kind: "decimal", places: 1, trailingZeros: false };
  return createJob(db, emptyJob({ ...info, format }));
}

export async function duplicateJob(db: Connection, id: string): Promise<string | null> {
  const stored = await findJob(db, id);
  if (!stored) return null;
  const { job } = stored;
  const info = { ...job.info.job, code: `${job.info.job.code} copy`.slice(0, 24), title: job.info.job.title };
  const copy = newId();
  await insertJob(db, copy, { ...job, info: { job: info } }, Date.now());
  return copy;
}

export type ListImport = {
  readonly id: string;
  readonly pieces: number;
  readonly unreadable: readonly UnreadableRow[];
  readonly notes: readonly string[];
};

/** Makes a job from a cutting list, its text or its cells; the rows that cannot be read are told, the others become pieces. */
export async function createFromList(
  db: Connection,
  { code, title, unit }: Pick<JobInfo, "code" | "title" | "unit">,
  list: string | readonly (readonly string[])[],
): Promise<Result<ListImport, Problem>> {
  const info = { code, title, unit };
  const rows = typeof list === "string" ? await readListRows(list) : ok(list);
  if (!rows.ok) return rows;
  const stockroom = await currentStockroom(db);
  const read = readCuttingList(rows.value, { unit: info.unit, stockroom, newId: () => `typed-${newId()}` });
  if (!read.ok) return read;
  const { pieces, unreadable, notes } = read.value;
  const [first] = unreadable;
  if (pieces.length === 0) {
    return err({
      kind: "malformed",
      what: "The list",
      why: `none of its ${unreadable.length} rows can be read; the first: ${first ? rowFaultWords(first.fault) : ""}`,
    });
  }
  const base = emptyJob({
    ...info,
    ...(info.unit === "in" || info.unit === "ft" ? { format: { kind: "fraction", denominator: 16 } } : {}),
  });
  const job: Job = { ...base, typedPieces: Object.fromEntries(pieces.map((piece) => [piece.id, piece])) };
  const id = await createJob(db, job);
  return ok({ id, pieces: pieces.length, unreadable, notes });
}
