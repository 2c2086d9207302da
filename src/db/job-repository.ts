/**
 * Jobs with their edit log and saved layouts. Each change is one transaction: the document, its revision
 * and the log move together or not at all.
 */
import { and, asc, desc, eq, inArray, isNotNull, isNull } from "drizzle-orm";
import { applyDiff, type Diff, diffOfToday, type Edit, type Job } from "@/core/job";
import { ok, type Problem, type Result, sentence } from "@/core/kernel";
import type { Connection, Database } from "./database";
import { type Document, readDocument, writtenDocument } from "./documents";
import { letGoAll } from "./rack-repository";
import { editLog, jobs } from "./schema";

export type JobSummary = {
  readonly id: string;
  readonly code: string;
  readonly title: string;
  readonly revision: number;
  readonly updatedAt: number;
};
export type StoredJob = JobSummary & { readonly job: Job };
export type StepNames = { readonly undo: string | null; readonly redo: string | null };

type Transaction = Parameters<Parameters<Database["transaction"]>[0]>[0];

/** A stored job whose document cannot be read: the message is a sentence for people. */
export class UnreadableJob extends Error {}

type Row = typeof jobs.$inferSelect;

const summaryOf = ({ id, code, title, revision, updatedAt }: Row): JobSummary => ({
  id,
  code,
  title,
  revision,
  updatedAt,
});

function documentOf(row: Row): Document {
  const read = readDocument(row.id, row.document);
  if (!read.ok) throw new UnreadableJob(`${row.code}: ${sentence(read.problem)}`);
  return read.value;
}

const storedOf = (row: Row): StoredJob => ({ ...summaryOf(row), job: documentOf(row).job });

/** A job, or why its document cannot be read: one that is broken keeps no other from being listed. */
export type ListedJob = JobSummary & { readonly job: Result<Job, Problem> };

const SUMMARY = {
  id: jobs.id,
  code: jobs.code,
  title: jobs.title,
  revision: jobs.revision,
  updatedAt: jobs.updatedAt,
};

/** All jobs by their names; no document is read. */
export async function listJobs({ db }: Connection): Promise<readonly JobSummary[]> {
  return db
    .select(SUMMARY)
    .from(jobs)
    .where(isNull(jobs.deletedAt))
    .orderBy(asc(jobs.code), asc(jobs.createdAt));
}

/** Jobs with their documents, by id; those that are gone are passed over. */
export async function readJobs({ db }: Connection, ids: readonly string[]): Promise<readonly ListedJob[]> {
  if (ids.length === 0) return [];
  const rows = await db
    .select()
    .from(jobs)
    .where(and(inArray(jobs.id, [...ids]), isNull(jobs.deletedAt)));
  return rows.map((row) => {
    const read = readDocument(row.id, row.document);
    return { ...summaryOf(row), job: read.ok ? ok(read.value.job) : read };
  });
}

/** The job of that id, unless it was deleted. */
const isThere = (id: string) => and(eq(jobs.id, id), isNull(jobs.deletedAt));

async function rowOf({ db }: Connection, id: string): Promise<Row | null> {
  const [row] = await db.select().from(jobs).where(isThere(id));
  return row ?? null;
}

/** The document of a job as it is stored, whether it can be read or not. */
export async function rawDocument({ db }: Connection, id: string): Promise<string | null> {
  const [row] = await db.select({ document: jobs.document }).from(jobs).where(isThere(id));
  return row?.document ?? null;
}

/** A job by its name alone; its document is not read. */
export async function findSummary({ db }: Connection, id: string): Promise<JobSummary | null> {
  const [row] = await db.select(SUMMARY).from(jobs).where(isThere(id));
  return row ?? null;
}

export async function findJob(connection: Connection, id: string): Promise<StoredJob | null> {
  const row = await rowOf(connection, id);
  return row ? storedOf(row) : null;
}

/** A job with its document as text, checked and brought up to date, ready to be sent on. */
export async function findJobText(
  connection: Connection,
  id: string,
): Promise<(JobSummary & { readonly document: string }) | null> {
  const row = await rowOf(connection, id);
  return row ? { ...summaryOf(row), document: documentOf(row).read } : null;
}

export async function insertJob({ write }: Connection, id: string, job: Job, at: number): Promise<void> {
  const { code, title } = job.info.job;
  await write((db) =>
    db.insert(jobs).values({
      id,
      code,
      title,
      document: writtenDocument(id, job),
      revision: 1,
      createdAt: at,
      updatedAt: at,
    }),
  );
}

export async function setDeleted({ write }: Connection, id: string, at: number | null): Promise<boolean> {
  // What a job has set aside in the rack is free again when the job is deleted.
  if (at !== null) await write((db) => db.transaction((tx) => letGoAll(tx, id)));
  const wanted = at === null ? isNotNull(jobs.deletedAt) : isNull(jobs.deletedAt);
  const changed = await write((db) =>
    db
      .update(jobs)
      .set({ deletedAt: at })
      .where(and(eq(jobs.id, id), wanted))
      .returning({ id: jobs.id }),
  );
  return changed.length > 0;
}

export type LoggedStep = {
  readonly action: "edit" | "undo" | "redo";
  readonly name: string;
  readonly edit: Edit | null;
  readonly diff: Diff;
  /** What its sender calls it; null: it has no name. */
  readonly editId?: string | null;
};
export type Decision<T> = { readonly step: LoggedStep | null; readonly answer: T };
export type LogView = {
  readonly stored: StoredJob;
  /** Diffs of all steps after a revision, oldest first. */
  readonly since: (revision: number) => Promise<readonly Diff[]>;
  /** Whether an edit of that name was carried out before. */
  readonly wasApplied: (editId: string) => Promise<boolean>;
  /** The newest edit that can be undone, the oldest of the undone that can be done again. */
  readonly last: (
    which: "undo" | "redo",
  ) => Promise<{ readonly id: number; readonly name: string; readonly diff: Diff } | null>;
};
export type StepResult<T> = { readonly answer: T; readonly stored: StoredJob; readonly steps: StepNames };

/**
 * Decides and carries out one step in a single transaction. `decide` sees the newest document and
 * returns what is to be logged, or nothing. Null when there is no such job.
 */
export async function stepJob<T>(
  connection: Connection,
  id: string,
  at: number,
  decide: (view: LogView) => Promise<Decision<T>>,
): Promise<StepResult<T> | null> {
  return connection.write((db) =>
    db.transaction(async (tx) => {
      const [row] = await tx.select().from(jobs).where(isThere(id));
      if (!row) return null;
      const stored = storedOf(row);
      const { step, answer } = await decide(viewOf(tx, stored));
      const after = step ? await carryOut(tx, stored, step, at) : stored;
      return { answer, stored: after, steps: await stepNames(tx, id) };
    }),
  );
}

function viewOf(tx: Transaction, stored: StoredJob): LogView {
  return {
    stored,
    since: async (revision) => {
      const rows = await tx
        .select()
        .from(editLog)
        .where(eq(editLog.jobId, stored.id))
        .orderBy(asc(editLog.revision));
      return rows
        .filter((row) => row.revision > revision)
        .map((row) => diffOfToday(JSON.parse(row.diff) as Diff));
    },
    wasApplied: async (editId) => {
      const [row] = await tx
        .select({ id: editLog.id })
        .from(editLog)
        .where(and(eq(editLog.jobId, stored.id), eq(editLog.editId, editId)));
      return row !== undefined;
    },
    last: async (which) => {
      const row = await lastStep(tx, stored.id, which);
      return row ? { id: row.id, name: row.name, diff: diffOfToday(JSON.parse(row.diff) as Diff) } : null;
    },
  };
}

function nextSteps(db: Transaction | Database, jobId: string, which: "undo" | "redo", most: number) {
  const state = which === "undo" ? "applied" : "undone";
  return db
    .select()
    .from(editLog)
    .where(and(eq(editLog.jobId, jobId), eq(editLog.action, "edit"), eq(editLog.state, state)))
    .orderBy(which === "undo" ? desc(editLog.id) : asc(editLog.id))
    .limit(most);
}

async function lastStep(db: Transaction | Database, jobId: string, which: "undo" | "redo") {
  const [row] = await nextSteps(db, jobId, which, 1);
  return row ?? null;
}

/** What the next so many steps back are called, the newest edit first. */
export async function stepsBack({ db }: Connection, jobId: string, most: number): Promise<readonly string[]> {
  return (await nextSteps(db, jobId, "undo", most)).map(({ name }) => name);
}

async function carryOut(
  tx: Transaction,
  stored: StoredJob,
  step: LoggedStep,
  at: number,
): Promise<StoredJob> {
  const job = applyDiff(stored.job, step.diff);
  const revision = stored.revision + 1;
  const { code, title } = job.info.job;
  await tx
    .update(jobs)
    .set({ document: writtenDocument(stored.id, job), revision, code, title, updatedAt: at })
    .where(eq(jobs.id, stored.id));
  if (step.action === "edit") {
    await tx
      .update(editLog)
      .set({ state: "dropped" })
      .where(and(eq(editLog.jobId, stored.id), eq(editLog.action, "edit"), eq(editLog.state, "undone")));
  } else {
    const target = await lastStep(tx, stored.id, step.action);
    if (target)
      await tx
        .update(editLog)
        .set({ state: step.action === "undo" ? "undone" : "applied" })
        .where(eq(editLog.id, target.id));
  }
  await tx.insert(editLog).values({
    jobId: stored.id,
    revision,
    action: step.action,
    name: step.name,
    state: "applied",
    editId: step.editId ?? null,
    edit: step.edit ? JSON.stringify(step.edit) : null,
    diff: JSON.stringify(step.diff),
    at,
  });
  return { ...stored, job, revision, code, title, updatedAt: at };
}

export async function stepNames(db: Transaction | Database, jobId: string): Promise<StepNames> {
  return {
    undo: (await lastStep(db, jobId, "undo"))?.name ?? null,
    redo: (await lastStep(db, jobId, "redo"))?.name ?? null,
  };
}
