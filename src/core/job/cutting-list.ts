/**
 * Cutting lists from elsewhere: rows of cells with a heading row become typed-in pieces. Each row is
 * read by itself; what cannot be read is told with its row and its text, and the good rows stay.
 */
import { agreeing, counted, err, ok, type Problem, type Result } from "../kernel";
import { type LengthUnit, parseLength } from "../measure";
import { parseSectionName, type Stockroom } from "../stockroom";
import {
  type ColumnMap,
  type ColumnMeaning,
  type ListColumn,
  mapColumns,
  readHeadings,
} from "./cutting-list-columns";
import { readEdges } from "./edging-words";
import type { RowFault } from "./row-fault";
import type { TypedPiece, TypedPieceId, TypedStand } from "./typed-piece";

export const MOST_LIST_ROWS = 20_000;

export type UnreadableRow = {
  /** Row of the sheet, the heading row being 1. */
  readonly row: number;
  /** The cells as they stood there. */
  readonly text: string;
  readonly fault: RowFault;
};

export type CuttingList = {
  readonly pieces: readonly TypedPiece[];
  readonly unreadable: readonly UnreadableRow[];
  /** What holds for the list as a whole: columns that were not read, a missing quantity column. */
  readonly notes: readonly string[];
  /** Whether any length without a unit was read by the given measure. */
  readonly usedUnit: boolean;
};

export type ListReading = {
  /** The measure of bare numbers. */
  readonly unit: LengthUnit;
  readonly stockroom: Stockroom;
  /** A fresh id for the nth piece. */
  readonly newId: (index: number) => string;
  /** Where the first piece stands among those that are there. */
  readonly firstPosition?: number;
  /** The columns as somebody chose them; without, the first row holds headings that say it. */
  readonly columns?: { readonly meanings: readonly ColumnMeaning[]; readonly hasHeadings: boolean };
  /** Materials that count as known. With it, rows of a stock or material that nobody knows are told, not taken. */
  readonly knownMaterials?: ReadonlySet<string>;
};

type Cells = (column: ListColumn) => string;

/** Reads a cutting list: `rows[0]` is the heading row, unless the columns are given and say that there is none. */
export function readCuttingList(
  rows: readonly (readonly string[])[],
  reading: ListReading,
): Result<CuttingList, Problem> {
  const filled = rows
    .map((cells, i) => ({ cells, row: i + 1 }))
    .filter(({ cells }) => cells.some((cell) => cell.trim() !== ""));
  const headless = reading.columns?.hasHeadings === false;
  const [head] = filled;
  const body = headless ? filled : filled.slice(1);
  if (!head) return err({ kind: "malformed", what: "The list", why: "it is empty" });
  if (body.length > MOST_LIST_ROWS) {
    return err({
      kind: "malformed",
      what: "The list",
      why: `it has ${body.length} rows, at most ${MOST_LIST_ROWS} are read; split it`,
    });
  }
  const columns = reading.columns
    ? mapColumns(reading.columns.meanings, headless ? [] : head.cells)
    : readHeadings(head.cells);
  if (!columns.ok) return columns;
  if (body.length === 0)
    return err({ kind: "malformed", what: "The list", why: "it has a heading row but no rows under it" });
  const pieces: TypedPiece[] = [];
  const unreadable: UnreadableRow[] = [];
  const remarks: string[] = [];
  const reader = new RowReader(columns.value, reading);
  for (const { cells, row } of body) {
    const formula = NUMERIC.map((column) => cells[columns.value.places.get(column)?.index ?? -1]).find(
      (cell) => cell?.trim().startsWith("="),
    );
    const more = headless ? 0 : cells.slice(head.cells.length).filter((cell) => cell.trim() !== "").length;
    if (isRemark(cells, columns.value)) {
      remarks.push(cells.find((cell) => cell.trim() !== "")?.trim() ?? "");
      continue;
    }
    const piece =
      formula !== undefined
        ? err<RowFault>({ kind: "formula", text: formula.trim() })
        : more > 0
          ? err<RowFault>({ kind: "fields", fields: cells.length, headings: head.cells.length })
          : reader.read(
              (column) => cells[columns.value.places.get(column)?.index ?? -1]?.trim() ?? "",
              pieces.length,
            );
    if (piece.ok) pieces.push(piece.value);
    else
      unreadable.push({
        row,
        text: cells
          .map((cell) => cell.trim())
          .filter((cell) => cell !== "")
          .join(" | "),
        fault: piece.problem,
      });
  }
  const notes: string[] = remarks.length === 0 ? [] : [remarksNote(remarks)];
  const { unread, places } = columns.value;
  if (unread.length > 0)
    notes.push(
      `Not read: the ${agreeing(unread.length, "column")} ${unread.map((name) => `"${name}"`).join(", ")}.`,
    );
  if (!places.has("quantity"))
    notes.push("The list has no quantity column: every row is counted once (assumed).");
  return ok({ pieces, unreadable, notes, usedUnit: reader.usedUnit });
}

/** What stands before the sums of a list (common practice). */
const SUM = /^(?:(?:grand |sub)?totals?|sums?)\b/i;

/**
 * A line with nothing but words in its first cell, in a list of several columns: a remark under the table, not a piece. Nor is a line
 * of sums one, which begins with its word and names no piece.
 */
function isRemark(cells: readonly string[], { places }: ColumnMap): boolean {
  const name = cells[places.get("name")?.index ?? -1]?.trim() ?? "";
  const start = cells.find((cell) => cell.trim() !== "")?.trim() ?? "";
  if (SUM.test(start) && (name === "" || name === start)) return true;
  const filled = cells.flatMap((cell, i) => (cell.trim() === "" ? [] : [i]));
  const [only] = filled;
  if (filled.length !== 1 || only !== 0 || places.size < 3) return false;
  return /[a-z]/i.test(cells[0] ?? "") && (cells[0] ?? "").trim().includes(" ");
}

function remarksNote(remarks: readonly string[]): string {
  const [first = ""] = remarks;
  const more = remarks.length > 1 ? ` and ${counted(remarks.length - 1, "other line")}` : "";
  return `Not read as a piece: "${first.length > 60 ? `${first.slice(0, 57)}...` : first}"${more}.`;
}

/** Columns whose cells are numbers: a formula in one was not computed by whoever wrote the list. */
const NUMERIC = ["quantity", "length", "width", "thickness", "angle1", "angle2", "angles"] as const;

/** What our own lists say where there is nothing. */
const NOTHING_SAID = /^(no material|no section|no board|no section chosen|no board chosen|other|none|-|–)$/i;

class RowReader {
  usedUnit = false;
  private readonly columns: ColumnMap;
  private readonly reading: ListReading;

  constructor(columns: ColumnMap, reading: ListReading) {
    this.columns = columns;
    this.reading = reading;
  }

  read(raw: Cells, index: number): Result<TypedPiece, RowFault> {
    const cell = this.cellsOf(raw);
    const quantity = this.quantity(cell("quantity"));
    if (!quantity.ok) return quantity;
    const length = this.length("length", cell("length"));
    if (!length.ok) return length;
    const width = this.length("width", cell("width"));
    if (!width.ok) return width;
    const thickness = this.length("thickness", cell("thickness"));
    if (!thickness.ok) return thickness;
    const mark = cell("mark");
    if (mark.length > 12) return err({ kind: "longMark", text: mark });
    const name = cell("name") || cell("stock") || mark;
    if (name === "") return err({ kind: "missing", what: "name" });
    const unknown = this.unknown(cell("stock"), cell("material"));
    if (unknown !== null) return err(unknown);
    const common = {
      id: this.reading.newId(index) as TypedPieceId,
      name: name.slice(0, 80),
      mark: mark === "" ? null : mark,
      quantity: quantity.value,
      stockText: cell("stock") === "" ? null : cell("stock").slice(0, 80),
      material: cell("material") === "" ? null : cell("material").slice(0, 60),
      leftOut: false,
      position: (this.reading.firstPosition ?? 0) + index,
    };
    return this.sized(cell, common, { length: length.value, width: width.value, thickness: thickness.value });
  }

  /** Cells without words that mean nothing, a board that is named as the material taken for the stock. */
  private cellsOf(raw: Cells): Cells {
    const said = (column: ListColumn) => {
      const text = raw(column);
      return (column === "stock" || column === "material") && NOTHING_SAID.test(text) ? "" : text;
    };
    const { stockroom } = this.reading;
    const named =
      said("stock") === "" && findEntry([...stockroom.sections, ...stockroom.boards], said("material"));
    if (!named) return said;
    return (column) => (column === "stock" ? said("material") : column === "material" ? "" : said(column));
  }

  /** What is wrong with words for a stock or a material that nobody knows; null when they are known, or need not be. */
  private unknown(stock: string, material: string): RowFault | null {
    const { knownMaterials, stockroom, unit } = this.reading;
    if (!knownMaterials) return null;
    const entries = [...stockroom.sections, ...stockroom.boards];
    if (stock !== "" && !findEntry(entries, stock) && parseSectionName(stock, unit) === null)
      return { kind: "unknownStock", text: stock };
    const wanted = plain(material);
    if (material !== "" && ![...knownMaterials].some((known) => plain(known) === wanted))
      return { kind: "unknownMaterial", text: material };
    return null;
  }

  private sized(
    cell: Cells,
    common: Omit<Extract<TypedPiece, { kind: "other" }>, "kind" | "stock">,
    size: {
      readonly length: number | null;
      readonly width: number | null;
      readonly thickness: number | null;
    },
  ): Result<TypedPiece, RowFault> {
    const { stockroom, unit } = this.reading;
    const section = findEntry(stockroom.sections, common.stockText);
    const board = findEntry(stockroom.boards, common.stockText);
    const shape = section
      ? null
      : common.stockText === null
        ? null
        : parseSectionName(common.stockText, unit);
    const asBar = section !== undefined || (board === undefined && (shape !== null || size.width === null));
    if (size.length === null) {
      if (size.width !== null || section || board || shape) return err({ kind: "missing", what: "length" });
      return ok({ ...common, kind: "other", stock: null });
    }
    if (asBar) {
      const angles = readAngles(cell);
      if (!angles.ok) return angles;
      const stand = readStand(cell("stand"));
      if (!stand.ok) return stand;
      if (angles.value.some((angle) => angle < 0) && stand.value === null) {
        return err({ kind: "negativeAngle" });
      }
      const [first, second] = angles.value.map(Math.abs);
      return ok({
        ...common,
        kind: "member",
        length: size.length,
        stock: section?.id ?? null,
        shape,
        angles: [first ?? 0, second ?? 0],
        stand: stand.value,
      });
    }
    if (size.width === null) return err({ kind: "missing", what: "width" });
    const edged = readEdges(cell);
    if (!edged.ok) return edged;
    if (board && size.thickness !== null && Math.abs(board.thickness - size.thickness) > 0.1) {
      return err({
        kind: "otherThickness",
        thickness: size.thickness,
        board: board.name,
        boardThickness: board.thickness,
        unit,
      });
    }
    return ok({
      ...common,
      kind: "panel",
      length: size.length,
      width: size.width,
      thickness: size.thickness,
      stock: board?.id ?? null,
      grain: !/^(no|none|any|free|0|-|false)$/i.test(cell("grain")),
      ...edged.value,
    });
  }

  private quantity(text: string): Result<number, RowFault> {
    if (!this.columns.places.has("quantity")) return ok(1);
    if (text === "") return err({ kind: "missing", what: "quantity" });
    const match = /^(-?\d+(?:[.,]\d+)?)\s*(?:x|×|off|pcs?\.?|ea|no\.?|st\.?)?$/i.exec(text);
    const value = match ? Number((match[1] ?? "").replace(",", ".")) : Number.NaN;
    if (!Number.isFinite(value)) return err({ kind: "quantity", text, must: "number" });
    if (value <= 0) return err({ kind: "quantity", text, must: "positive" });
    if (!Number.isInteger(value)) return err({ kind: "quantity", text, must: "whole" });
    if (value > 100_000) return err({ kind: "quantity", text, must: "below" });
    return ok(value);
  }

  private length(column: "length" | "width" | "thickness", text: string): Result<number | null, RowFault> {
    if (text === "" || text === "-" || text === "–") return ok(null);
    const unit = this.columns.places.get(column)?.unit ?? this.reading.unit;
    // Our own lists mark a length that was rounded.
    const read = parseLength(text.replace(/^≈\s*/, ""), unit);
    if (!read.ok) return err({ kind: "size", column, problem: read.problem });
    if (read.value <= 0) return err({ kind: "notPositive", column, text });
    if (/[\d\s]$/.test(text) && this.columns.places.get(column)?.unit == null) this.usedUnit = true;
    return ok(read.value);
  }
}

const plain = (text: string) => text.toLowerCase().replace(/×/g, "x").replace(/\s+/g, "");

/** The entry whose name or id is written there, apart from spaces, case and the sign between sizes. */
function findEntry<T extends { readonly id: string; readonly name: string }>(
  entries: readonly T[],
  text: string | null,
): T | undefined {
  if (text === null) return undefined;
  const wanted = plain(text);
  return entries.find((entry) => plain(entry.name) === wanted || plain(entry.id) === wanted);
}

function readAngle(text: string): Result<number, RowFault> {
  if (/^coped?$/i.test(text.trim())) return err({ kind: "coped" });
  const bare = text
    .replace(/°|deg(rees)?/gi, "")
    .replace(",", ".")
    .trim();
  if (bare === "" || /^(-|–|sq(uare)?)$/i.test(bare)) return ok(0);
  const value = /^-?\d+(\.\d+)?$/.test(bare) ? Number(bare) : Number.NaN;
  if (!Number.isFinite(value)) return err({ kind: "angle", text, must: "number" });
  // Lists that measure from the edge of the bar write a square end as 90.
  if (value === 90) return ok(0);
  if (Math.abs(value) >= 89) return err({ kind: "angle", text, must: "below" });
  return ok(value);
}

function readAngles(cell: Cells): Result<readonly [number, number], RowFault> {
  const both = cell("angles");
  const parts = both === "" ? [cell("angle1"), cell("angle2")] : both.split(/\s*[/|;&]\s*|\s+(?=-?\d)/);
  if (parts.length > 2) return err({ kind: "manyAngles", text: both });
  const first = readAngle(parts[0] ?? "");
  if (!first.ok) return first;
  const second = readAngle(parts[1] ?? (both === "" ? "" : (parts[0] ?? "")));
  if (!second.ok) return second;
  return ok([first.value, second.value]);
}

function readStand(text: string): Result<TypedStand, RowFault> {
  const word = text.toLowerCase().replace(/\s+/g, " ").trim();
  if (word === "" || /^(-|–|square|single|none)$/.test(word)) return ok(null);
  if (/^(opposed|opposing|\/\s*\\|\\\s*\/)$/.test(word)) return ok("opposed");
  if (/^(parallel|\/\s*\/|\\\s*\\)$/.test(word)) return ok("parallel");
  const turned = /^(?:turned )?(-?\d+(?:\.\d+)?)\s*(?:°|deg)?$/.exec(word);
  if (turned && Math.abs(Number(turned[1])) <= 180) return ok({ turn: Number(turned[1]) });
  return err({ kind: "direction", text });
}
