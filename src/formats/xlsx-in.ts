/**
 * Rows of a cutting list out of an XLSX file. The zip is unpacked once in small steps only to count what comes out of
 * it, so that a small file that unpacks to gigabytes is refused before anything holds it; then exceljs reads row by
 * row and stops where a list may not go on.
 */
import { Readable } from "node:stream";
import ExcelJS from "exceljs";
import { Unzip, UnzipInflate } from "fflate";
import { MOST_LIST_ROWS } from "@/core/job";
import { err, ok, type Problem, type Result } from "@/core/kernel";
import { MOST_LIST_BYTES } from "./csv";

const MOST_UNPACKED = 60_000_000;
const MOST_PARTS = 2_000;
const MOST_COLUMNS = 200;
const STEP = 16_384;

const refuse = (why: string) => err({ kind: "malformed", what: "The spreadsheet", why } as const);

/** Whether the bytes are a zip, as XLSX files are. */
export const isZip = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 0x03 && bytes[3] === 0x04;

/** Rows of the first sheet as texts. Formulas are refused: what they would give is not in the file for sure. */
export async function xlsxRows(bytes: Uint8Array): Promise<Result<readonly (readonly string[])[], Problem>> {
  if (bytes.length > MOST_LIST_BYTES) return refuse(`it is larger than ${MOST_LIST_BYTES / 1e6} MB`);
  if (!isZip(bytes)) return refuse("it is not an XLSX file; save it as XLSX or CSV");
  const fault = unpackedFault(bytes);
  if (fault !== null) return refuse(fault);
  try {
    return await readRows(bytes);
  } catch {
    return refuse("it cannot be read as XLSX; save it again, or as CSV");
  }
}

/** Why the zip cannot be unpacked within bounds; null when it can. Nothing that comes out of it is kept. */
function unpackedFault(bytes: Uint8Array): string | null {
  let [size, parts] = [0, 0];
  let fault: string | null = null;
  const zip = new Unzip((file) => {
    parts++;
    if (parts > MOST_PARTS) fault = "it has too many parts";
    file.ondata = (error, data) => {
      if (error) fault = "its zip is damaged";
      else {
        size += data.length;
        if (size > MOST_UNPACKED) fault = `it unpacks to more than ${MOST_UNPACKED / 1e6} MB`;
      }
    };
    if (fault === null) file.start();
  });
  zip.register(UnzipInflate);
  try {
    for (let at = 0; at < bytes.length && fault === null; at += STEP)
      zip.push(bytes.subarray(at, at + STEP), at + STEP >= bytes.length);
  } catch {
    fault ??= "its zip is damaged";
  }
  return fault;
}

async function readRows(bytes: Uint8Array): Promise<Result<readonly (readonly string[])[], Problem>> {
  const reader = new ExcelJS.stream.xlsx.WorkbookReader(Readable.from([bytes]), {
    sharedStrings: "cache",
    styles: "ignore",
    hyperlinks: "ignore",
    worksheets: "emit",
  });
  for await (const sheet of reader) {
    const rows: string[][] = [];
    for await (const row of sheet) {
      if (rows.length > MOST_LIST_ROWS) return refuse(`it has more than ${MOST_LIST_ROWS} rows; split it`);
      if (row.cellCount > MOST_COLUMNS) return refuse(`it has more than ${MOST_COLUMNS} columns`);
      // Rows that were left empty keep their number, so that a sentence names the row that a person sees.
      while (rows.length < Math.min(row.number - 1, MOST_LIST_ROWS)) rows.push([]);
      const texts: string[] = [];
      for (let i = 1; i <= row.cellCount; i++) {
        const text = textOf(row.getCell(i).value);
        if (text === null)
          return refuse(
            `cell ${row.getCell(i).address} holds a formula; copy the sheet and paste it as values only`,
          );
        texts.push(text);
      }
      rows.push(texts);
    }
    return rows.length === 0 ? refuse("its first sheet is empty") : ok(rows);
  }
  return refuse("it has no sheet");
}

/** The text of a cell; null for a formula. */
function textOf(value: ExcelJS.CellValue): string | null {
  if (value === null || value === undefined) return "";
  if (value instanceof Date) return value.toISOString().slice(0, 10);
  if (typeof value !== "object") return String(value);
  if ("formula" in value || "sharedFormula" in value) return null;
  if ("richText" in value) return value.richText.map((part) => part.text).join("");
  if ("text" in value) return String(value.text);
  return "error" in value ? String(value.error) : "";
}
