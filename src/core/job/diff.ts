/**
 * What an edit did, as plain data: records added, updated from/to and removed. Undo is the reversed
 * diff; two edits touch one another when they name the same record.
 */
import { grouped } from "../kernel";
import { type AnyRecord, type Job, recordOfToday, TABLES, type TableName } from "./job";
import { notePut, putBetween, type Table } from "./lineage";

export type Placed = { readonly table: TableName; readonly record: AnyRecord };
export type Diff = {
  readonly added: readonly Placed[];
  readonly updated: readonly {
    readonly table: TableName;
    readonly from: AnyRecord;
    readonly to: AnyRecord;
  }[];
  readonly removed: readonly Placed[];
};

/** A diff out of the edit log, its records as the present version has them. */
export function diffOfToday(diff: Diff): Diff {
  const placed = ({ table, record }: Placed): Placed => ({ table, record: recordOfToday(table, record) });
  return {
    added: diff.added.map(placed),
    updated: diff.updated.map(({ table, from, to }) => ({
      table,
      from: recordOfToday(table, from),
      to: recordOfToday(table, to),
    })),
    removed: diff.removed.map(placed),
  };
}

export function reverseDiff(diff: Diff): Diff {
  return {
    added: diff.removed,
    updated: diff.updated.map(({ table, from, to }) => ({ table, from: to, to: from })),
    removed: diff.added,
  };
}

/** The document after the diff; tables that it does not touch stay the same objects. */
export function applyDiff(job: Job, diff: Diff): Job {
  const changed = new Map<TableName, Record<string, AnyRecord>>();
  const open = (name: TableName) => {
    const copy = changed.get(name) ?? { ...job[name] };
    changed.set(name, copy);
    return copy;
  };
  for (const { table, record } of diff.removed) delete open(table)[record.id];
  for (const { table, record } of diff.added) open(table)[record.id] = record;
  for (const { table, to } of diff.updated) open(table)[to.id] = to;
  const emptied = new Set(diff.removed.map(({ table }) => table));
  const put = grouped(
    [...diff.added, ...diff.updated.map(({ table, to }) => ({ table, record: to }))],
    ({ table }) => table,
  );
  for (const [table, after] of changed) {
    const ids = put.get(table)?.map(({ record }) => record.id) ?? [];
    if (!emptied.has(table)) notePut(after, job[table], ids);
  }
  return { ...job, ...Object.fromEntries(changed) } as Job;
}

/**
 * The difference between two documents that share structure: only tables that are not identical are read, and of one that was made
 * of the other by putting records into it only these.
 */
export function diffBetween(before: Job, after: Job): Diff {
  const added: Placed[] = [];
  const updated: { table: TableName; from: AnyRecord; to: AnyRecord }[] = [];
  const removed: Placed[] = [];
  for (const table of TABLES) {
    if (before[table] === after[table]) continue;
    const from: Table = before[table];
    const to: Table = after[table];
    const put = putBetween(from, to);
    for (const [id, record] of put ? put.map((id) => [id, to[id]] as const) : Object.entries(to)) {
      const old = from[id];
      if (!record) continue;
      if (!old) added.push({ table, record });
      else if (old !== record) updated.push({ table, from: old, to: record });
    }
    if (put) continue;
    for (const [id, record] of Object.entries(from)) if (!to[id]) removed.push({ table, record });
  }
  return { added, updated, removed };
}

/** The document that edits made of another one, tables in which nothing differs being the same objects. Order as of `applyDiff`. */
export function settled(before: Job, after: Job): Job {
  const diff = diffBetween(before, after);
  const changed = new Set([...diff.added, ...diff.updated, ...diff.removed].map(({ table }) => table));
  // A record that went and came back stands elsewhere than the diff would leave it.
  const inOrder = [...changed].every((table) => putBetween(before[table], after[table]) !== null);
  if (!inOrder) return applyDiff(before, diff);
  return { ...before, ...Object.fromEntries([...changed].map((table) => [table, after[table]])) };
}

export function isEmptyDiff(diff: Diff): boolean {
  return diff.added.length + diff.updated.length + diff.removed.length === 0;
}

/** `table/id` of every record that a diff names; kept marks follow from other edits and do not count. */
export function touchedRecords(diff: Diff): ReadonlySet<string> {
  const names = [
    ...diff.added.map(({ table, record }) => [table, record.id] as const),
    ...diff.updated.map(({ table, to }) => [table, to.id] as const),
    ...diff.removed.map(({ table, record }) => [table, record.id] as const),
  ];
  return new Set(names.filter(([table]) => table !== "marks").map(([table, id]) => `${table}/${id}`));
}
