/**
 * What changed in a list since it was last looked at: each cell by its computed text, so that what somebody typed over
 * hides no change under it. Rows are matched by their id, then by the first of their records.
 */
import type { ListSetup } from "../job";
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
  const computed = new Set(table.columns.flatMap(({ id, typed }) => (typed ? [] : [id])));
  return table.groups.flatMap((group) =>
    group.rows.map((row) => ({
      id: row.id,
      record: row.records[0] ?? null,
      texts: Object.fromEntries(
        Object.entries(row.cells).flatMap(([id, cell]) =>
          computed.has(id) ? [[id, cell.over?.computed ?? cell.text]] : [],
        ),
      ),
    })),
  );
}

/** A list as it was looked at: its rows, and by which setup they said what they said. */
export type SeenList = {
  /** What decides which rows there are. */
  readonly rowsBy: string;
  /** What decides how a column is written, by its id. */
  readonly columnsBy: Readonly<Record<string, string>>;
  readonly rows: readonly SeenRow[];
};

export function seenList(table: ListTable, setup: ListSetup): SeenList {
  return { ...writtenBy(setup), rows: seenRows(table) };
}

function writtenBy(setup: ListSetup): Omit<SeenList, "rows"> {
  const { kinds, assembly, materials, marks, levels, groupBy, showRows, sizeOfMember, sizeOfPanel } = setup;
  const lines = levels && setup.assemblyLines ? "lines" : levels;
  const rowsBy = JSON.stringify([
    kinds,
    assembly,
    materials,
    marks,
    lines,
    showRows ? "" : groupBy,
    showRows,
  ]);
  const columnsBy = Object.fromEntries(
    setup.columns.map(({ column, format, unit }) => [
      column,
      JSON.stringify([format, unit ?? null, ...(column === "size" ? [sizeOfMember, sizeOfPanel] : [])]),
    ]),
  );
  return { rowsBy, columnsBy };
}

/**
 * What was seen, brought to the setup of now: another way to write a column, or other rows to go in, is no change of
 * the design, and what it makes different counts as seen. The identical object where the setup is the same.
 */
export function seenBy(seen: SeenList, table: ListTable, setup: ListSetup): SeenList {
  const { rowsBy, columnsBy } = writtenBy(setup);
  if (seen.rowsBy !== rowsBy) return seenList(table, setup);
  const other = Object.keys(columnsBy).filter((id) => seen.columnsBy[id] !== columnsBy[id]);
  if (other.length === 0) return seen;
  const byId = new Map(seenRows(table).map((row) => [row.id, row]));
  const rows = seen.rows.map((row): SeenRow => {
    const is = byId.get(row.id);
    if (!is) return row;
    const texts = other.flatMap((id) => {
      const text = is.texts[id];
      return text === undefined ? [] : [[id, text] as const];
    });
    return { ...row, texts: { ...row.texts, ...Object.fromEntries(texts) } };
  });
  return { rowsBy, columnsBy, rows };
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
