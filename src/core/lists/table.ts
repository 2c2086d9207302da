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
