/** What the edits share: putting, changing and removing records of the job's tables. */
import { err, ok, own, type Problem, type Result } from "../kernel";
import type { AnyRecord, Job, TableName } from "./job";
import { notePut, type Table } from "./lineage";

export const missing = (what: string, id: string) => err({ kind: "missingRecord", what, id } as const);

/** Adding never takes the place of what is there. */
export const idTaken = (id: string) => refused("The id", id, "is in this job already; try again");

/** The first id of new records that a table has, or that two of them carry. */
export function takenId(
  table: Readonly<Record<string, unknown>>,
  records: readonly { readonly id: string }[],
): string | null {
  const seen = new Set<string>();
  for (const { id } of records) {
    if (own(table, id) !== undefined || seen.has(id)) return id;
    seen.add(id);
  }
  return null;
}

/** What cannot be done to a record, in words: `what "value" must`. */
export const refused = (what: string, value: string, must: string) =>
  err({ kind: "badValue", what, value, must } as const);

/** Only the keys that carry a value: a partial record from JSON has no others, one from code may. */
export function defined<T extends object>(set: T): { [K in keyof T]: Exclude<T[K], undefined> } {
  return Object.fromEntries(Object.entries(set).filter(([, value]) => value !== undefined)) as {
    [K in keyof T]: Exclude<T[K], undefined>;
  };
}

export function put(job: Job, table: TableName, records: readonly AnyRecord[]): Job {
  if (records.length === 0) return job;
  const before: Table = job[table];
  const after: Record<string, AnyRecord> = { ...before };
  for (const record of records) after[record.id] = record;
  const ids = records.map(({ id }) => id);
  notePut(after, before, ids);
  return { ...job, [table]: after } as Job;
}

type Change = { readonly ids: readonly string[]; readonly set: object };

/** Sets parts of records, one change after the other; the table is copied once. */
export function changeInTurn(
  job: Job,
  table: TableName,
  what: string,
  changes: readonly Change[],
): Result<Job, Problem> {
  const changed = new Map<string, AnyRecord>();
  for (const { ids, set } of changes)
    for (const id of ids) {
      const record = changed.get(id) ?? own<AnyRecord>(job[table], id);
      if (!record) return missing(what, id);
      changed.set(id, { ...record, ...defined(set) } as AnyRecord);
    }
  return ok(put(job, table, [...changed.values()]));
}

export const change = (
  job: Job,
  table: TableName,
  what: string,
  ids: readonly string[],
  set: object,
): Result<Job, Problem> => changeInTurn(job, table, what, [{ ids, set }]);

export function removeAll(
  job: Job,
  table: TableName,
  what: string,
  targets: readonly string[],
): Result<Job, Problem> {
  const records: Record<string, AnyRecord> = { ...job[table] };
  for (const id of targets) {
    if (!own(records, id)) return missing(what, id);
    delete records[id];
  }
  return ok({ ...job, [table]: records } as Job);
}

/** A table without some of its records: the same one when it has none of them. */
export function without<T>(
  records: Readonly<Record<string, T>>,
  gone: ReadonlySet<string>,
): Record<string, T> {
  if (!Object.keys(records).some((id) => gone.has(id))) return records;
  return Object.fromEntries(Object.entries(records).filter(([id]) => !gone.has(id)));
}
