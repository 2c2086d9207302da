/** What is in a set of drawings, as a table: its pages in their order. */
import { type ListTable, numberCell, textCell } from "./table";
import { column, row, table } from "./work-table";

const COLUMNS = [
  column("sheet", "Sheet", 10, "right"),
  column("heading", "Heading", 50),
  column("paper", "Paper", 14),
  column("scale", "Scale", 14),
];

/** Pages in their order, paper and scale in words. */
export const contentsTable = (
  pages: readonly {
    readonly id: string;
    readonly heading: string;
    readonly paper: string;
    readonly scale: string;
  }[],
): ListTable =>
  table(
    "Contents",
    COLUMNS,
    pages.map(({ id, heading, paper, scale }, i) =>
      row(id, {
        sheet: numberCell(i + 1),
        heading: textCell(heading),
        paper: textCell(paper),
        scale: textCell(scale),
      }),
    ),
    "",
  );
