/** Lists to begin with: ordinary setups that are changed like any other. */
import { LIST_DEFAULTS, type ListSetup, plainColumn } from "../job";

type Start = Pick<ListSetup, "kinds" | "order" | "groupBy" | "showRows" | "totals"> &
  Partial<Pick<ListSetup, "levels" | "wasteAtFoot">> & {
    readonly name: string;
    readonly note: string;
    readonly columns: readonly string[];
  };

export const LIST_STARTS: readonly Start[] = [
  {
    name: "Cut list by stock",
    note: "made pieces under their section or board, longest first",
    kinds: ["member", "panel", "other"],
    columns: ["mark", "name", "count", "silhouette", "size", "end1", "end2", "stand", "note"],
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
    name: "Costed cut list",
    note: "every piece with its net cost; at the foot the sum, waste and total",
    kinds: ["member", "panel", "bought"],
    columns: ["mark", "name", "count", "size", "net", "measure", "unitPrice", "cost"],
    order: [],
    groupBy: "kind",
    showRows: true,
    totals: true,
    wasteAtFoot: true,
  },
  {
    name: "Bill by assembly",
    note: "each assembly as one line with its count, what is in it under it",
    kinds: ["member", "panel", "other", "bought"],
    columns: ["level", "mark", "name", "inOne", "count", "size", "stock"],
    order: [],
    groupBy: null,
    showRows: true,
    totals: false,
    levels: true,
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
    ...LIST_DEFAULTS,
    id: id as ListSetup["id"],
    name,
    kinds: [...start.kinds],
    assembly: null,
    columns: start.columns.map(plainColumn),
    order: [...start.order],
    groupBy: start.groupBy,
    showRows: start.showRows,
    totals: start.totals,
    levels: start.levels ?? false,
    assemblyLines: true,
    wasteAtFoot: start.wasteAtFoot ?? false,
    sizeOfMember: null,
    sizeOfPanel: null,
    position,
  };
}
