import equal from "fast-deep-equal";
import { own } from "../kernel";
import { type AnyRecord, type Job, TABLES } from "./job";

/**
 * A document that came from elsewhere, with the objects of the one before wherever both say the same, so that what is
 * remembered by them stays: the one before itself where nothing differs. The order of the records is that of `after`.
 */
export function sharing(before: Job, after: Job): Job {
  const tables = TABLES.map((table) => [table, sharedTable(before[table], after[table])] as const);
  return tables.every(([table, shared]) => shared === before[table])
    ? before
    : ({ ...after, ...Object.fromEntries(tables) } as Job);
}

type Table = Readonly<Record<string, AnyRecord>>;

function sharedTable(before: Table, after: Table): Table {
  if (before === after) return before;
  const ids = Object.keys(before);
  let isSame = true;
  const entries = Object.entries(after).map(([id, record], i) => {
    const old = own(before, id);
    const shared = old && equal(old, record) ? old : record;
    if (shared !== old || ids[i] !== id) isSame = false;
    return [id, shared] as const;
  });
  return isSame && entries.length === ids.length ? before : Object.fromEntries(entries);
}
