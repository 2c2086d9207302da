/**
 * A list as a table: columns and groups of rows, each cell with its text and, where it is a number, its
 * value. The screen, CSV and PDF are made from the same table.
 */
export type Align = "left" | "right" | "centre";

export type Column = {
  readonly id: string;
  readonly heading: string;
  readonly align: Align;
  /** Share of the width on paper. */
  readonly width: number;
};

export type Cell = { readonly text: string; readonly value: number | null };

export type ListRow = {
  /** The tally row or quantity line that it stands for. */
  readonly id: string;
  readonly cells: Readonly<Record<string, Cell>>;
};

export type ListGroup = {
  readonly heading: string;
  readonly detail: string;
  readonly summary: string;
  readonly rows: readonly ListRow[];
};

export type ListTable = {
  readonly title: string;
  readonly columns: readonly Column[];
  readonly groups: readonly ListGroup[];
  /** What the heading of a group is, and its detail where it has one: columns of their own in files. */
  readonly groupColumns?: readonly string[];
  /** Sentences under the table: totals and what is incomplete. */
  readonly notes: readonly string[];
};

export const textCell = (text: string): Cell => ({ text, value: null });
export const numberCell = (value: number, text = String(value)): Cell => ({ text, value });
/** The value does not exist for this row; a missing one is said in words instead. */
export const NOT_APPLICABLE: Cell = { text: "–", value: null };

const oneLine = (text: string) => text.replace(/[\t\r\n]+/g, " ");

/** A table as text that pastes into a spreadsheet: tabs between cells, a line for each row, numbers as they are. */
export function tableAsTabs(table: ListTable): string {
  const own = table.groupColumns ?? [];
  const lines = [
    [...own, ...table.columns.map((column) => column.heading)],
    ...table.groups.flatMap((group) =>
      group.rows.map((row) => [
        ...own.map(() => group.heading),
        ...table.columns.map((column) => row.cells[column.id]?.text ?? ""),
      ]),
    ),
  ];
  // What does not apply is an empty field there, so that a column of numbers stays one.
  return lines.map((cells) => cells.map((text) => (text === "–" ? "" : oneLine(text))).join("\t")).join("\n");
}
