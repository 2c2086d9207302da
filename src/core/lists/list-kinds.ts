/** Lists to begin with: ordinary setups that are changed like any other. */
import type { ListColumn, ListSetup } from "../job";

const column = (id: string): ListColumn => ({
  column: id,
  heading: null,
  align: null,
  width: null,
  format: null,
});

type Start = Pick<ListSetup, "kinds" | "order" | "groupBy" | "showRows" | "totals"> & {
  readonly name: string;
  readonly note: string;
  readonly columns: readonly string[];
};

export const LIST_STARTS: readonly Start[] = [
  {
    name: "Cut list by stock",
    note: "made pieces under their section or board, longest first",
    kinds: ["member", "panel", "other"],
    columns: ["mark", "name", "count", "size", "end1", "end2", "stand", "note"],
    order: [
      { column: "stock", descending: false },
      { column: "length", descending: true },
    ],
    groupBy: "stock",
    showRows: true,
    totals: true,
  },
  {
    name: "Lengths to buy",
    note: "one row for each section or board, its rows added up",
    kinds: ["member", "panel"],
    columns: ["stock", "material", "mark", "count", "net", "measure", "mass"],
    order: [{ column: "stock", descending: false }],
    groupBy: "stock",
    showRows: false,
    totals: true,
  },
  {
    name: "Costed cutting list",
    note: "every piece with its net cost, subtotals and a total",
    kinds: ["member", "panel", "bought"],
    columns: ["mark", "name", "count", "size", "net", "measure", "unitPrice", "cost"],
    order: [{ column: "kind", descending: false }],
    groupBy: "kind",
    showRows: true,
    totals: true,
  },
  {
    name: "Parts list",
    note: "everything in one flat table",
    kinds: ["member", "panel", "other", "bought"],
    columns: ["mark", "name", "count", "stock", "material", "size"],
    order: [],
    groupBy: null,
    showRows: true,
    totals: false,
  },
];

/** A setup from one of those, under a name of its own. */
export function startList(start: Start, id: string, name: string, position: number): ListSetup {
  return {
    id: id as ListSetup["id"],
    name,
    kinds: [...start.kinds],
    assembly: null,
    columns: start.columns.map(column),
    order: [...start.order],
    groupBy: start.groupBy,
    showRows: start.showRows,
    totals: start.totals,
    sizeOfMember: null,
    sizeOfPanel: null,
    position,
  };
}
