/**
 * Which table an edit copied, and the records that it put into the copy. Whoever asks what differs between two tables, or keeps
 * what was worked out of one, looks at those records and not at thousands. It is only about time: where nothing is known of a
 * table, it is gone through.
 */
import type { AnyRecord } from "./job";

export type Table<R = AnyRecord> = Readonly<Record<string, R>>;
type Origin = { readonly copied: WeakRef<Table>; readonly put: readonly string[] };

// Weak both ways: a table that nobody holds any more goes, whatever was made of it.
const origins = new WeakMap<Table, Origin>();

/** Edits in a row that are followed back, and records that they may change; more are not worth it. */
const MOST_EDITS = 50;
const MOST_RECORDS = 2_000;

/** Notes that a table is a copy of another one into which these records were put, new ones or in the place of others; none went. */
export function notePut(table: Table, copied: Table, put: readonly string[]): void {
  if (put.length <= MOST_RECORDS) origins.set(table, { copied: new WeakRef(copied), put });
}

/**
 * The ids of records that may differ between a table and one that was made of it by putting records into it, in the order in which
 * they came; null: that is not known, or records went.
 */
export function putBetween(before: Table, after: Table): readonly string[] | null {
  const steps: (readonly string[])[] = [];
  let table: Table | undefined = after;
  let most = MOST_RECORDS;
  while (table !== before) {
    const origin: Origin | undefined = table && origins.get(table);
    most -= origin?.put.length ?? 0;
    if (!origin || most < 0 || steps.push(origin.put) > MOST_EDITS) return null;
    table = origin.copied.deref();
  }
  return [...new Set(steps.reverse().flat())];
}

/**
 * Gives an object that stands for one part of every record of a table: the same one for a copy in which only other parts were
 * changed. What hangs on that part alone is remembered by it.
 */
export function standsFor<R extends AnyRecord>(part: (record: R) => unknown): (table: Table<R>) => object {
  const known = new WeakMap<Table<R>, object>();
  const isSame = (before: R | undefined, after: R | undefined) =>
    before !== undefined && after !== undefined && Object.is(part(before), part(after));
  return (table) => {
    const own = known.get(table);
    if (own) return own;
    const origin = origins.get(table);
    const copied = origin?.copied.deref() as Table<R> | undefined;
    const theirs = copied && known.get(copied);
    const same = theirs && origin?.put.every((id) => isSame(copied[id], table[id]));
    const stamp = same ? theirs : {};
    known.set(table, stamp);
    return stamp;
  };
}
