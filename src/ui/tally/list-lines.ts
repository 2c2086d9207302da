/** The lines that a list shows: groups and rows that are not folded away and that hold what is looked for. */
import { arrayMove } from "@dnd-kit/sortable";
import { handOrderOf, type ListGroup, type ListRow, type ListTable } from "@/core/lists";

export type ListLine =
  | { readonly kind: "group"; readonly group: ListGroup; readonly folded: boolean }
  | { readonly kind: "row"; readonly row: ListRow; readonly opens: boolean; readonly folded: boolean };

/** By what a group is known among those that are folded. */
export const foldOfGroup = ({ heading, detail }: ListGroup): string => `group ${heading} ${detail}`;

/** The rows that hold what is looked for in any of their cells, whatever the capitals; all where nothing is. */
function rowsThatHold(rows: readonly ListRow[], find: string): readonly ListRow[] {
  const wanted = find.trim().toLowerCase();
  if (wanted === "") return rows;
  return rows.filter((row) =>
    Object.values(row.cells).some((cell) => cell.text.toLowerCase().includes(wanted)),
  );
}

export function listLines(
  table: ListTable,
  { folded, find }: { readonly folded: ReadonlySet<string>; readonly find: string },
): readonly ListLine[] {
  const lines: ListLine[] = [];
  for (const group of table.groups) {
    const rows = rowsThatHold(group.rows, find);
    if (rows.length === 0) continue;
    const shut = group.heading !== "" && folded.has(foldOfGroup(group));
    if (group.heading !== "") lines.push({ kind: "group", group, folded: shut });
    if (!shut) lines.push(...rowLines(rows, folded));
  }
  return lines;
}

/** Rows of one group; in a list by assembly what stands under a folded line is left away. */
function rowLines(rows: readonly ListRow[], folded: ReadonlySet<string>): readonly ListLine[] {
  const lines: ListLine[] = [];
  let hiddenBelow = Number.POSITIVE_INFINITY;
  rows.forEach((row, i) => {
    if (row.level > hiddenBelow) return;
    hiddenBelow = Number.POSITIVE_INFINITY;
    const shut = folded.has(row.id);
    const opens = (rows[i + 1]?.level ?? 0) > row.level && row.level > 0;
    if (shut && opens) hiddenBelow = row.level;
    lines.push({ kind: "row", row, opens, folded: shut });
  });
  return lines;
}

/** The order by hand after a row was moved to the place of another. */
export function movedOrder(table: ListTable, moved: string, to: string): string[] {
  const rows = table.groups.flatMap((group) => group.rows);
  const from = rows.findIndex((row) => row.id === moved);
  const at = rows.findIndex((row) => row.id === to);
  const inOrder = from < 0 || at < 0 ? rows : arrayMove(rows, from, at);
  return handOrderOf(inOrder);
}
