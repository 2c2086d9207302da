/** Lists on pages: the table with its silhouettes, repeated headings, sums and sentences. */
import type { ListRow, ListTable } from "../lists";
import { SILHOUETTE_COLUMN } from "../lists";
import type { Tally } from "../tally";
import type { DrawItem, Drawing } from "./display";
import { Flow, PAGE_SIZES, type Page, type PageHead, type PageSize, title } from "./flow";
import { silhouette, silhouetteLength } from "./silhouette";
import { tableRows } from "./table-drawing";

/** Above this sum of column widths a page lies on its long side. */
const WIDE = 150;
const TALL_WIDTH = 297;

export type ListPaper = PageSize | "tall";

/** One list on pages; `tall`: on a single one that is as long as the list. */
export function listPages(
  head: PageHead,
  list: { readonly table: ListTable; readonly tally: Tally },
  paper: ListPaper,
): readonly Drawing[] {
  const { columns } = list.table;
  const shares = columns.reduce((sum, column) => sum + column.width, 0);
  const flow = new Flow(pageFor(paper, shares > WIDE));
  listSection(flow, list.table, list.tally);
  return flow.pages(head);
}

function pageFor(paper: ListPaper, lying: boolean): Page {
  if (paper === "tall") return { name: "one page", width: TALL_WIDTH, height: Number.POSITIVE_INFINITY };
  const { name, width, height } = PAGE_SIZES[paper];
  return lying ? { name: `${name} lying`, width: height, height: width } : { name, width, height };
}

/** A list without the column of silhouettes, for pages on which there is no room for them. */
export const withoutSilhouettes = (table: ListTable): ListTable => ({
  ...table,
  columns: table.columns.filter(({ id }) => id !== SILHOUETTE_COLUMN),
});

export function listSection(flow: Flow, table: ListTable, tally: Tally): void {
  if (!flow.isFresh()) flow.newPage();
  flow.add(9, title(table.title));
  const drawn = tableRows(table, flow.width, silhouettesOf(tally));
  flow.add(drawn.heading.height, drawn.heading.items);
  for (const row of drawn.rows) {
    if (row.height + (row.keepWithNext ?? 0) > flow.room && !flow.isFresh()) {
      flow.newPage();
      flow.add(drawn.heading.height, drawn.heading.items);
    }
    flow.add(row.height, row.items);
  }
}

/** The drawing of a row's piece, to one scale for the whole list. */
export function silhouettesOf(tally: Tally): (row: ListRow, width: number) => readonly DrawItem[] {
  const longest = Math.max(1, ...tally.rows.map((row) => silhouetteLength(row.shown)));
  return ({ records: [first], summed }, width) => {
    const row = first === undefined || summed ? undefined : tally.rowOfPiece.get(first);
    return row ? silhouette(row.shown, { scale: (width - 2) / longest, depth: 4, line: 0.2 }) : [];
  };
}
