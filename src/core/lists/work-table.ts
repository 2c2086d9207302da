/** Tables that go with one layout: no groups, no sums, a note under them. */
import type { Column, ListRow, ListTable } from "./table";

export const column = (
  id: string,
  heading: string,
  width: number,
  align: Column["align"] = "left",
): Column => ({
  id,
  heading,
  align,
  width,
  writes: null,
});

export const row = (id: string, cells: ListRow["cells"]): ListRow => ({
  id,
  records: [],
  summed: false,
  level: 0,
  cells,
});

export const table = (
  title: string,
  columns: readonly Column[],
  rows: readonly ListRow[],
  note: string,
): ListTable => ({
  title,
  columns,
  groups: rows.length === 0 ? [] : [{ heading: "", detail: "", summary: "", rows }],
  groupColumns: [],
  foot: [],
  notes: note === "" ? [] : [note],
});
