/** A list as data (docs/formats.md): its cells by column, with what is computed under a cell that was typed over. */
import { allNotes, type Cell, type ListTable, type NumberWriting, writtenColumns } from "@/core/lists";

export function listToJson(table: ListTable) {
  const columns = writtenColumns(table);
  const cellsOf = (cells: Readonly<Record<string, Cell>>) =>
    Object.fromEntries(
      columns.flatMap(({ id }) => {
        const cell = cells[id];
        return cell ? [[id, cellToJson(cell)]] : [];
      }),
    );
  return {
    title: table.title,
    columns: columns.map(({ id, heading, writes }) => ({ id, heading, unit: unitOf(writes) })),
    groups: table.groups.map(({ heading, detail, summary, rows }) => ({
      heading,
      detail,
      summary,
      rows: rows.map(({ level, summed, records, cells }) => ({
        level,
        summed,
        pieces: [...records],
        cells: cellsOf(cells),
      })),
    })),
    foot: table.foot.map(({ label, cells }) => ({ label, cells: cellsOf(cells) })),
    notes: [...allNotes(table)],
  };
}

/** Lengths are in millimetres here, however the list writes them. */
const unitOf = (writes: NumberWriting | null) => (writes?.kind === "length" ? "mm" : null);

function cellToJson({ text, value, lack, over }: Cell) {
  return {
    text,
    value,
    ...(lack ? { lack } : {}),
    ...(over ? { typedOver: { computed: over.computed, changed: over.changed } } : {}),
  };
}
