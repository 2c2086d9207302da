/** What the edits share: putting, changing and removing records of the job's tables. */
import { err, ok, type Problem, type Result } from "../kernel";
import type { AnyRecord, Job, TableName } from "./job";

export const missing = (what: string, id: string) => err({ kind: "missingRecord", what, id } as const);

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
  return {
    ...job,
    [table]: { ...job[table], ...Object.fromEntries(records.map((record) => [record.id, record])) },
  } as Job;
}

export function change(
  job: Job,
  table: TableName,
  what: string,
  targets: readonly string[],
  set: object,
): Result<Job, Problem> {
  const records: Readonly<Record<string, AnyRecord>> = job[table];
  const changed: AnyRecord[] = [];
  for (const id of targets) {
    const record = records[id];
    if (!record) return missing(what, id);
    changed.push({ ...record, ...defined(set) } as AnyRecord);
  }
  return ok(put(job, table, changed));
}

export function removeAll(
  job: Job,
  table: TableName,
  what: string,
  targets: readonly string[],
): Result<Job, Problem> {
  const records: Record<string, AnyRecord> = { ...job[table] };
  for (const id of targets) {
    if (!records[id]) return missing(what, id);
    delete records[id];
  }
  return ok({ ...job, [table]: records } as Job);
}
