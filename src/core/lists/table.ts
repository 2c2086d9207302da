/**
 * A list as a table: columns and groups of rows, each cell with its text and, where it is a number, its
 * value. The screen, CSV, XLSX, PDF and SVG are made from the same table.
 */
import type { LengthStyle } from "../measure";

export type Align = "left" | "right" | "centre";

/** How the numbers of a column are written, for those who write them again: a length's value is in millimetres. */
export type NumberWriting =
  | { readonly kind: "length"; readonly style: LengthStyle }
  | { readonly kind: "decimal"; readonly places: number }
  | { readonly kind: "plain" };

export type Column = {
  readonly id: string;
  readonly heading: string;
  readonly align: Align;
  /** Share of the width on paper. */
  readonly width: number;
  /** null: its cells are words, or a drawing. */
  readonly writes: NumberWriting | null;
  /** Its values are typed, not computed: a new one is no change of the design. */
  readonly typed?: boolean;
  /** Files hold it alone, for whoever reads them again, or the screen and paper alone: others say the same there. */
  readonly onlyIn?: "files" | "view";
};

/** Why a cell has no value: it ought to be there, it does not exist for this row, or nobody typed one yet. */
export type Lack = "missing" | "notApplicable" | "empty";

/** What stands under a cell that was typed over. */
export type Over = {
  /** The computed text as it is now. */
  readonly computed: string;
  /** The computed text when the cell was typed over. */
  readonly was: string;
  readonly changed: boolean;
};

export type Cell = {
  readonly text: string;
  readonly value: number | null;
  readonly lack?: Lack;
  readonly over?: Over;
  readonly link?: string;
  /** The pieces of the row differ: each value with how many have it, the most first. */
  readonly several?: readonly OneOfSeveral[];
};

export type OneOfSeveral = { readonly text: string; readonly count: number };

/** A cell of a row whose pieces differ. */
export const severalCell = (several: readonly OneOfSeveral[]): Cell => ({
  text: "several",
  value: null,
  several,
});

/** "powder black × 3, galvanised × 1". */
export const severalWords = (several: readonly OneOfSeveral[]): string =>
  several.map(({ text, count }) => `${text} × ${count}`).join(", ");

export type ListRow = {
  /** The tally row or quantity line that it stands for. */
  readonly id: string;
  /** Records that it stands for: pieces, or the assembly of a line that is one. */
  readonly records: readonly string[];
  /** It adds several rows up. */
  readonly summed: boolean;
  /** 0 in flat lists; in a list by assembly how deep it stands, from 1. */
  readonly level: number;
  readonly cells: Readonly<Record<string, Cell>>;
};

export type ListGroup = {
  readonly heading: string;
  readonly detail: string;
  readonly summary: string;
  readonly rows: readonly ListRow[];
};

/** A line under the table: subtotal, waste, total, each sum under its column. */
export type FootLine = { readonly label: string; readonly cells: Readonly<Record<string, Cell>> };

export type ListTable = {
  readonly title: string;
  readonly columns: readonly Column[];
  readonly groups: readonly ListGroup[];
  /** What the heading of a group is, and its detail where it has one: columns of their own in files. */
  readonly groupColumns?: readonly string[];
  readonly foot: readonly FootLine[];
  /** Sentences under the table: what it holds and what is incomplete. */
  readonly notes: readonly string[];
  /** Sentences that stand before those on paper and in files; the desk says them beside the table. */
  readonly writtenNotes?: readonly string[];
};

export const textCell = (text: string): Cell => ({ text, value: null });
export const numberCell = (value: number, text = String(value)): Cell => ({ text, value });
/** The value does not exist for this row. */
export const NOT_APPLICABLE: Cell = { text: "–", value: null, lack: "notApplicable" };
/** It ought to be there and is not. */
export const MISSING: Cell = { text: "missing", value: null, lack: "missing" };
/** Nobody typed a value yet. */
export const EMPTY: Cell = { text: "not set", value: null, lack: "empty" };

/** The column that shows the piece drawn; files without drawings leave it out. */
export const SILHOUETTE_COLUMN = "silhouette";

/** The columns that are shown on the screen and on paper. */
export const shownColumns = (table: ListTable): readonly Column[] =>
  table.columns.filter(({ onlyIn }) => onlyIn !== "files");

export const writtenColumns = (table: ListTable): readonly Column[] =>
  table.columns.filter(({ id, onlyIn }) => id !== SILHOUETTE_COLUMN && onlyIn !== "view");

/** The sentences under a table on paper and in files. */
export const allNotes = ({ writtenNotes = [], notes }: ListTable): readonly string[] => [
  ...writtenNotes,
  ...notes,
];

/** What a cell says in a file: what does not apply, or was never set, is an empty field there. */
export function fieldText(cell: Cell | undefined): string {
  if (!cell || cell.lack === "notApplicable" || cell.lack === "empty") return "";
  return cell.several ? `several: ${severalWords(cell.several)}` : cell.text;
}

/** Which cells of a row were typed over, with what is computed there: `Count (computed 4)`. */
export function overWords(row: ListRow, columns: readonly Column[]): string {
  return columns
    .flatMap(({ id, heading }) => {
      const over = row.cells[id]?.over;
      return over ? [`${heading} (computed ${over.computed || "nothing"})`] : [];
    })
    .join("; ");
}

export const hasTypedOver = (table: ListTable): boolean =>
  table.groups.some((group) => group.rows.some((row) => Object.values(row.cells).some((cell) => cell.over)));

/** The heading of the column that names what was typed over, in files. */
export const OVER_HEADING = "Changed by hand";

const oneLine = (text: string) => text.replace(/[\t\r\n]+/g, " ");

const ROUNDED = "≈";

/**
 * A number as spreadsheets read it: without the sign that it is rounded, which goes into the heading; a bare fraction,
 * which would be a date to them, with a whole number before it.
 */
function spreadsheetText(cell: Cell | undefined): string {
  const text = oneLine(fieldText(cell));
  if (!cell || cell.value === null) return text;
  const number = text.replace(ROUNDED, "");
  return /^\d+\/\d+$/.test(number) ? `0 ${number}` : number;
}

/** The heading of a column, with the sign for rounded where a number in it is. */
function spreadsheetHeading({ id, heading }: Column, table: ListTable): string {
  const rounded = table.groups.some(({ rows }) =>
    rows.some((row) => row.cells[id]?.value !== null && row.cells[id]?.text.startsWith(ROUNDED)),
  );
  return rounded ? `${heading} ${ROUNDED}` : heading;
}

/** A table as text that pastes into a spreadsheet: tabs between cells, a line for each row, numbers as they are. */
export function tableAsTabs(table: ListTable): string {
  const own = table.groupColumns ?? [];
  const columns = writtenColumns(table);
  const over = hasTypedOver(table);
  const lines = [
    [...own, ...columns.map((column) => spreadsheetHeading(column, table)), ...(over ? [OVER_HEADING] : [])],
    ...table.groups.flatMap((group) =>
      group.rows.map((row) => [
        ...[group.heading, group.detail].slice(0, own.length).map(oneLine),
        ...columns.map((column) => spreadsheetText(row.cells[column.id])),
        ...(over ? [overWords(row, columns)] : []),
      ]),
    ),
  ];
  return lines.map((cells) => cells.join("\t")).join("\n");
}
