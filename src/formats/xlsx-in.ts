/**
 * Rows of a cutting list out of an XLSX file (ECMA-376, parts 1 and 2): the first sheet of the workbook, its texts and
 * numbers as they are stored. Each part is read as a stream of tags that ends where a list may not go on.
 */
import { SaxesParser } from "saxes";
import { MOST_LIST_ROWS } from "@/core/job";
import { err, ok, type Problem, type Result } from "@/core/kernel";
import { MOST_LIST_BYTES } from "./csv";
import { unpackedParts } from "./xlsx-parts";

const MOST_COLUMNS = 200;
/** As many texts as a list may have cells. */
const MOST_TEXTS = MOST_LIST_ROWS * MOST_COLUMNS;

const refuse = (why: string) => err({ kind: "malformed", what: "The spreadsheet", why } as const);

/** Whether the bytes are a zip, as XLSX files are. */
export const isZip = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 0x03 && bytes[3] === 0x04;

/** What ends the reading of a part with a sentence. */
class Refusal extends Error {}

/** Rows of the first sheet as texts. Formulas are refused: what they would give is not in the file for sure. */
export async function xlsxRows(bytes: Uint8Array): Promise<Result<readonly (readonly string[])[], Problem>> {
  if (bytes.length > MOST_LIST_BYTES) return refuse(`it is larger than ${MOST_LIST_BYTES / 1e6} MB`);
  if (!isZip(bytes)) return refuse("it is not an XLSX file; save it as XLSX or CSV");
  const parts = unpackedParts(bytes);
  if (typeof parts === "string") return refuse(parts);
  try {
    const sheet = parts.get(firstSheet(parts));
    if (!sheet) return refuse("it has no sheet");
    const rows = rowsOf(sheet, sharedTexts(parts.get("xl/sharedStrings.xml") ?? []));
    return rows.length === 0 ? refuse("its first sheet is empty") : ok(rows);
  } catch (fault) {
    return refuse(
      fault instanceof Refusal ? fault.message : "it cannot be read as XLSX; save it again, or as CSV",
    );
  }
}

type Pieces = readonly Uint8Array[];
type Parts = ReadonlyMap<string, Pieces>;

/** Hears the tags of a part by their names without prefix. */
type Ears = {
  readonly open?: (name: string, attributes: ReadonlyMap<string, string>) => void;
  readonly text?: (text: string) => void;
  readonly close?: (name: string) => void;
};

const plainName = (name: string) => name.slice(name.indexOf(":") + 1);

function listen(pieces: Pieces, { open, text, close }: Ears): void {
  const parser = new SaxesParser();
  parser.on("error", (fault) => {
    throw fault;
  });
  parser.on("opentag", ({ name, attributes }) => open?.(plainName(name), mapOf(attributes)));
  parser.on("closetag", ({ name }) => close?.(plainName(name)));
  parser.on("text", (words) => text?.(words));
  parser.on("cdata", (words) => text?.(words));
  const decoder = new TextDecoder();
  for (const piece of pieces) parser.write(decoder.decode(piece, { stream: true }));
  parser.write(decoder.decode()).close();
}

const mapOf = (attributes: Record<string, unknown>) =>
  new Map(Object.entries(attributes).map(([name, value]) => [plainName(name), String(value)]));

/** The name of the part of the first sheet in the order of the workbook; the first part there is without one. */
function firstSheet(parts: Parts): string {
  let first: string | null = null;
  listen(parts.get("xl/workbook.xml") ?? [], {
    open: (name, attributes) => {
      if (name === "sheet") first ??= attributes.get("id") ?? null;
    },
  });
  let target: string | null = null;
  listen(parts.get("xl/_rels/workbook.xml.rels") ?? [], {
    open: (name, attributes) => {
      if (name === "Relationship" && attributes.get("Id") === first)
        target = attributes.get("Target") ?? null;
    },
  });
  return target === null ? "" : new URL(target, "zip:///xl/").pathname.slice(1);
}

/** Texts that cells point to by their number, runs of formatted text joined, hints of pronunciation left out. */
function sharedTexts(pieces: Pieces): readonly string[] {
  const texts: string[] = [];
  if (pieces.length === 0) return texts;
  let [text, isText, isHint] = ["", false, false];
  listen(pieces, {
    open: (name) => {
      if (name === "si") text = "";
      if (name === "rPh") isHint = true;
      isText = name === "t" && !isHint;
    },
    text: (words) => {
      if (isText) text += words;
    },
    close: (name) => {
      isText = false;
      if (name === "rPh") isHint = false;
      if (name !== "si") return;
      if (texts.length >= MOST_TEXTS) throw new Refusal("it has too many texts; split it");
      texts.push(text);
    },
  });
  return texts;
}

function rowsOf(sheet: Pieces, shared: readonly string[]): readonly (readonly string[])[] {
  const rows: string[][] = [];
  let row: string[] = [];
  let cell = { at: "", column: 0, type: "n", text: "" };
  let [isText, isHint] = [false, false];
  listen(sheet, {
    open: (name, attributes) => {
      isText = name === "v" || (name === "t" && !isHint);
      if (name === "rPh") isHint = true;
      else if (name === "row") {
        const number = Number(attributes.get("r") ?? rows.length + 1);
        if (!(number > rows.length)) throw new Refusal("its rows are out of order; save it again");
        if (number > MOST_LIST_ROWS + 1)
          throw new Refusal(`it has more than ${MOST_LIST_ROWS} rows; split it`);
        // Rows that were left empty keep their number, so that a sentence names the row that a person sees.
        while (rows.length < number) rows.push([]);
        row = rows[number - 1] ?? [];
      } else if (name === "c") {
        const at = attributes.get("r") ?? `${row.length}`;
        const column = attributes.has("r") ? columnOf(at) : row.length + 1;
        if (!(column > 0 && column <= MOST_COLUMNS))
          throw new Refusal(`it has more than ${MOST_COLUMNS} columns`);
        cell = { at, column, type: attributes.get("t") ?? "n", text: "" };
      } else if (name === "f")
        throw new Refusal(`cell ${cell.at} holds a formula; copy the sheet and paste it as values only`);
    },
    text: (words) => {
      if (isText) cell.text += words;
    },
    close: (name) => {
      isText = false;
      if (name === "rPh") isHint = false;
      if (name !== "c") return;
      while (row.length < cell.column) row.push("");
      row[cell.column - 1] = textOf(cell, shared);
    },
  });
  return rows;
}

/** What a cell says; numbers as they are stored, dates as the numbers that they are. */
function textOf({ type, text }: { readonly type: string; readonly text: string }, shared: readonly string[]) {
  if (type === "s") return text === "" ? "" : (shared[Number(text)] ?? "");
  if (type === "b") return text === "1" ? "true" : "false";
  return type === "n" && text !== "" && Number.isFinite(Number(text)) ? String(Number(text)) : text;
}

/** The number of the column of a cell, A being 1; 0 where it is none. */
function columnOf(at: string): number {
  const letters = /^[A-Z]{1,3}/.exec(at)?.[0] ?? "";
  return [...letters].reduce((sum, letter) => sum * 26 + letter.charCodeAt(0) - 64, 0);
}
