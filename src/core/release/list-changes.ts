/**
 * What changed in a list since it was last looked at: each cell by its computed text, so that what somebody typed over
 * hides no change under it. Rows are matched by their id, then by the first of their records.
 */
import type { ListTable } from "../lists";

/** A row as it was seen, as plain data that can be kept. */
export type SeenRow = {
  readonly id: string;
  readonly record: string | null;
  readonly texts: Readonly<Record<string, string>>;
};

export type ListChange =
  | { readonly kind: "new" }
  | {
      readonly kind: "changed";
      /** The old text of each column that says something else now. */
      readonly was: Readonly<Record<string, string>>;
    };

export type ListChanges = {
  /** By the id of the row as it is now. */
  readonly byRow: ReadonlyMap<string, ListChange>;
  readonly gone: readonly SeenRow[];
};

export function seenRows(table: ListTable): readonly SeenRow[] {
  return table.groups.flatMap((group) =>
    group.rows.map((row) => ({
      id: row.id,
      record: row.records[0] ?? null,
      texts: Object.fromEntries(
        Object.entries(row.cells).map(([id, cell]) => [id, cell.over?.computed ?? cell.text]),
      ),
    })),
  );
}

/** Compares only columns that were seen: a column that is shown newly is no change. */
export function listChanges(seen: readonly SeenRow[], table: ListTable): ListChanges {
  const byId = new Map(seen.map((row) => [row.id, row]));
  const byRecord = new Map(seen.flatMap((row) => (row.record === null ? [] : [[row.record, row] as const])));
  const found = new Set<SeenRow>();
  const byRow = new Map<string, ListChange>();
  const now = seenRows(table);
  const ids = new Set(now.map((row) => row.id));
  for (const row of now) {
    const other = row.record === null ? undefined : byRecord.get(row.record);
    // A row that now stands under another mark is the same row, unless its old mark still has one.
    const was = byId.get(row.id) ?? (other && !ids.has(other.id) ? other : undefined);
    if (!was) {
      byRow.set(row.id, { kind: "new" });
      continue;
    }
    found.add(was);
    const changed = Object.entries(row.texts).flatMap(([id, text]) => {
      const old = was.texts[id];
      return old === undefined || old === text ? [] : [[id, old] as const];
    });
    if (changed.length > 0) byRow.set(row.id, { kind: "changed", was: Object.fromEntries(changed) });
  }
  return { byRow, gone: seen.filter((row) => !found.has(row)) };
}
