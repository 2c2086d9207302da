/**
 * CSV out (RFC 4180: comma, CRLF, quotes doubled) and rows in. A field that a spreadsheet would run as a
 * formula is written with an apostrophe before it; lengths and marks are never turned into numbers here.
 */
import Papa from "papaparse";
import { err, ok, type Problem, type Result } from "@/core/kernel";
import {
  type Cell,
  type Column,
  fieldText,
  hasTypedOver,
  type ListTable,
  OVER_HEADING,
  overWords,
  writtenColumns,
} from "@/core/lists";
import { type LengthStyle, MM_PER_UNIT, roundTo } from "@/core/measure";

/** How numbers are written: as the list shows them, or all as decimals, which any program reads. */
export type CsvNumbers = "shown" | "decimals";

/**
 * A list as CSV: what the heading of a group says (usually stock and material) stands in columns of its own, and so does
 * what was typed over. Headings of lengths name their unit; sums stand in rows at the end.
 */
export function listToCsv(table: ListTable, numbers: CsvNumbers = "shown"): string {
  const own = table.groupColumns ?? ["Stock", "Material"];
  const columns = writtenColumns(table);
  const over = hasTypedOver(table);
  const field = (cell: Cell | undefined, { writes }: Column) =>
    numbers === "decimals" && cell && cell.value !== null && writes?.kind === "length"
      ? decimalOf(cell.value, writes.style)
      : fieldText(cell);
  const headings = [...own, ...columns.map(headingWithUnit), ...(over ? [OVER_HEADING] : [])];
  const rows = table.groups.flatMap((group) =>
    group.rows.map((row) => [
      ...[group.heading, group.detail].slice(0, own.length),
      ...columns.map((column) => field(row.cells[column.id], column)),
      ...(over ? [overWords(row, columns)] : []),
    ]),
  );
  const sums = table.foot.map(({ label, cells }) => {
    const line = [...own.map(() => ""), ...columns.map((column) => field(cells[column.id], column))];
    // The label stands in the first field that no sum needs.
    const free = line.indexOf("");
    return line.map((text, i) => (i === free ? label : text));
  });
  return rowsToCsv([headings, ...rows, ...sums]);
}

/** "Length (in)": of a length that does not name its unit yet. */
function headingWithUnit({ heading, writes }: Column): string {
  if (writes?.kind !== "length") return heading;
  const { unit } = writes.style;
  return new RegExp(`\\b${unit}\\b`).test(heading) ? heading : `${heading} (${unit})`;
}

/** A length in the unit of the list, to a hundredth of a millimetre or as many places of an inch. */
function decimalOf(mm: number, { unit }: LengthStyle): string {
  const places = { mm: 2, cm: 3, m: 5, in: 4, ft: 5 }[unit];
  return String(roundTo(mm / MM_PER_UNIT[unit], places));
}

/** A plain number, negative ones included, is no formula; everything else that starts like one is. */
const PLAIN_NUMBER = /^-?\d+(\.\d+)?$/;
const STARTS_A_FORMULA = /^\s*[=+\-@\t\r]/;

function harmless(field: string): string {
  return STARTS_A_FORMULA.test(field) && !PLAIN_NUMBER.test(field) ? `'${field}` : field;
}

/** A field as it was before it was made harmless. */
const asTyped = (field: string) =>
  field.startsWith("'") && STARTS_A_FORMULA.test(field.slice(1)) ? field.slice(1) : field;

export function rowsToCsv(rows: readonly (readonly string[])[]): string {
  return `${Papa.unparse(rows.map((row) => row.map(harmless)) as string[][], { newline: "\r\n" })}\r\n`;
}

export const MOST_LIST_BYTES = 5_000_000;

/** The text of a file: UTF-8 or UTF-16 where it is marked or valid, else Windows-1252. */
export function decodeText(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder("utf-16le").decode(bytes);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder("utf-16be").decode(bytes);
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder("windows-1252").decode(bytes);
  }
}

/** Rows of a cutting list from a file or the clipboard: comma, semicolon or tab. */
export function listRows(input: Uint8Array | string): Result<readonly (readonly string[])[], Problem> {
  const what = "The list";
  if (input.length > MOST_LIST_BYTES) {
    return err({ kind: "malformed", what, why: `it is larger than ${MOST_LIST_BYTES / 1e6} MB` });
  }
  const text = typeof input === "string" ? input : decodeText(input);
  if (text.trim() === "") return err({ kind: "malformed", what, why: "it is empty" });
  if (text.includes("\0"))
    return err({ kind: "malformed", what, why: "it is not a text file; save it as CSV first" });
  const firstLine = text.split(/\r?\n/, 1)[0] ?? "";
  const delimiter = delimiterOf(firstLine);
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, ""), { delimiter, skipEmptyLines: false });
  const broken = parsed.errors.find((error) => error.type === "Quotes");
  if (broken)
    return err({
      kind: "malformed",
      what,
      why: `a quotation mark is not closed in row ${(broken.row ?? 0) + 1}`,
    });
  return ok(parsed.data.map((row) => row.map(asTyped)));
}

/** The sign that parts the heading row most often; a list of one column has none. */
function delimiterOf(heading: string): string {
  const counts = ["\t", ";", ","].map((sign) => ({ sign, count: heading.split(sign).length - 1 }));
  const best = counts.reduce((a, b) => (b.count > a.count ? b : a));
  return best.count === 0 ? "," : best.sign;
}
