/**
 * Lists as XLSX (exceljs): numbers as numbers with the format that the list has, column widths, a heading that stays in
 * view, sums at the foot. Text is never a formula there: it is written as text.
 */
import type ExcelJS from "exceljs";
import { isLink } from "@/core/job";
import {
  allNotes,
  type Cell,
  type Column,
  type FootLine,
  fieldText,
  hasTypedOver,
  type ListRow,
  type ListTable,
  type NumberWriting,
  OVER_HEADING,
  overWords,
  writtenColumns,
} from "@/core/lists";
import { MM_PER_UNIT, roundTo } from "@/core/measure";

export type XlsxAbout = {
  /** The line under the table: job, revision, date. */
  readonly line: string;
  readonly created: Date;
};

const INK_SOFT = "FF5B645F";
const AMBER_PALE = "FFFBF1D8";

/** Writes a list as a workbook with one sheet. */
export async function tableToXlsx(table: ListTable, about: XlsxAbout): Promise<Uint8Array> {
  // Takes half a second to load, and few commands write workbooks.
  const { default: Excel } = await import("exceljs");
  const book = new Excel.Workbook();
  book.creator = "Rustic Tally";
  book.created = about.created;
  const sheet = book.addWorksheet(sheetName(table.title), {
    views: [{ state: "frozen", ySplit: 1 }],
    pageSetup: { orientation: "landscape", fitToPage: true, fitToWidth: 1, fitToHeight: 0 },
  });
  const groups = table.groupColumns ?? ["Stock", "Material"];
  const columns = writtenColumns(table);
  const over = hasTypedOver(table);
  const head = sheet.addRow([
    ...groups,
    ...columns.map((column) => column.heading),
    ...(over ? [OVER_HEADING] : []),
  ]);
  head.font = { bold: true };
  head.border = { bottom: { style: "medium" } };
  for (const group of table.groups)
    for (const row of group.rows) {
      const line = sheet.addRow([]);
      [group.heading, group.detail].slice(0, groups.length).forEach((text, i) => {
        line.getCell(i + 1).value = text;
      });
      columns.forEach((column, i) => {
        writeCell(line.getCell(groups.length + i + 1), row.cells[column.id], column);
      });
      if (over) line.getCell(groups.length + columns.length + 1).value = overWords(row, columns);
      if (row.level > 1) line.outlineLevel = Math.min(7, row.level - 1);
      indentName(line, row, columns, groups.length);
    }
  for (const foot of table.foot) writeFoot(sheet, foot, columns, groups.length);
  for (const note of ["", ...allNotes(table), about.line]) {
    sheet.addRow([note]).font = { color: { argb: INK_SOFT } };
  }
  setWidths(sheet, table, columns, groups);
  columns.forEach((column, i) => {
    head.getCell(groups.length + i + 1).alignment = { horizontal: alignOf(column) };
  });
  return new Uint8Array(await book.xlsx.writeBuffer());
}

const alignOf = ({ align }: Column) => (align === "centre" ? "center" : align);

/** A sheet name holds at most 31 signs and none of `* ? : \ / [ ]`. */
function sheetName(title: string): string {
  const name = title
    .replace(/[*?:\\/[\]']/g, " ")
    .replace(/\s+/g, " ")
    .trim()
    .slice(0, 31);
  return name === "" ? "List" : name;
}

function writeCell(to: ExcelJS.Cell, cell: Cell | undefined, column: Column): void {
  to.alignment = { horizontal: alignOf(column) };
  if (!cell) return;
  const number = cell.value === null || column.writes === null ? null : numberOf(cell.value, column.writes);
  if (number) {
    to.value = number.value;
    if (number.format !== null) to.numFmt = number.format;
  } else if (cell.link !== undefined && isLink(cell.link))
    to.value = { text: cell.text, hyperlink: cell.link };
  else {
    const text = fieldText(cell);
    if (text !== "") to.value = text;
  }
  if (cell.over) {
    to.font = { italic: true };
    to.fill = { type: "pattern", pattern: "solid", fgColor: { argb: AMBER_PALE } };
    to.note = `Changed by hand. Computed: ${cell.over.computed || "nothing"}`;
  }
}

/** The number that a spreadsheet holds and the format that shows it as the list does; lengths in the list's unit. */
function numberOf(
  value: number,
  writes: NumberWriting,
): { readonly value: number; readonly format: string | null } {
  if (writes.kind === "plain") return { value, format: null };
  if (writes.kind === "decimal") return { value, format: zeros(writes.places) };
  const { unit, format } = writes.style;
  const inUnit = value / MM_PER_UNIT[unit];
  if (format.kind === "fraction") {
    // Two signs each, so that a spreadsheet reduces 8/16 as the list does; the value is exact to the denominator.
    return { value: Math.round(inUnit * format.denominator) / format.denominator, format: "# ??/??" };
  }
  return {
    value: roundTo(inUnit, format.places),
    format: format.trailingZeros ? zeros(format.places) : null,
  };
}

const zeros = (places: number) => (places === 0 ? "0" : `0.${"0".repeat(places)}`);

function indentName(line: ExcelJS.Row, row: ListRow, columns: readonly Column[], offset: number): void {
  const at = columns.findIndex((column) => column.id === "name");
  if (at < 0 || row.level <= 1) return;
  line.getCell(offset + at + 1).alignment = { horizontal: "left", indent: row.level - 1 };
}

function writeFoot(
  sheet: ExcelJS.Worksheet,
  { label, cells }: FootLine,
  columns: readonly Column[],
  offset: number,
): void {
  const first = columns[0];
  // The label has a row of its own where a sum stands in the first column.
  const apart = offset === 0 && first !== undefined && cells[first.id] !== undefined;
  if (apart) sheet.addRow([label]).font = { bold: true };
  const line = sheet.addRow(apart ? [] : [label]);
  columns.forEach((column, i) => {
    const cell = cells[column.id];
    if (cell) writeCell(line.getCell(offset + i + 1), cell, column);
  });
  line.font = { bold: true };
  line.border = { top: { style: "thin" } };
}

const WIDEST = 60;

function setWidths(
  sheet: ExcelJS.Worksheet,
  table: ListTable,
  columns: readonly Column[],
  groups: readonly string[],
): void {
  const rows = table.groups.flatMap((group) => group.rows);
  const widest = (texts: readonly string[]) =>
    Math.min(WIDEST, texts.reduce((most, text) => Math.max(most, text.length), 4) + 2);
  groups.forEach((heading, i) => {
    const texts = table.groups.map((group) => (i === 0 ? group.heading : group.detail));
    sheet.getColumn(i + 1).width = widest([heading, ...texts]);
  });
  columns.forEach((column, i) => {
    const texts = rows.map((row) => fieldText(row.cells[column.id]));
    sheet.getColumn(groups.length + i + 1).width = widest([column.heading, ...texts]);
  });
}
