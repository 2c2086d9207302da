/** Lists on pages: from the corner that stays, so that they grow away from it, going on beside themselves where they may grow no taller. */
import type { PlaneBox, Vec2 } from "../../geometry";
import type { ListCorner, ListItem } from "../../job";
import type { ListTable } from "../../lists";
import type { Tally } from "../../tally";
import { type DrawItem, movedBy } from "../display";
import { Flow, pageWithRoom } from "../flow";
import { silhouettesOf, withoutSilhouettes } from "../list-pages";
import { type DiagramInput, layoutBlock } from "../print";
import { type DrawnRow, type DrawnTable, tableRows } from "../table-drawing";
import type { PlacedRow } from "./placed";

const TITLE = 8;
const BETWEEN = 6;
/** The line under a list that says where it goes on. */
const GOES_ON = 5;

/** A list, or the part of it that an item shows: from which row on, or of a layout from which column on. */
export type ListPart = {
  readonly item: ListItem;
  readonly from: number;
  /** What is said under it when it does not end here. */
  readonly goesOn: string | null;
};

export type Drawn = {
  readonly items: readonly DrawItem[];
  readonly box: PlaneBox;
  readonly rows: readonly PlacedRow[];
  /** The first row, or column of a layout, that has no room; null: it ends here. */
  readonly next: number | null;
  /** Rows, or columns of a layout, that have no room. */
  readonly left: number;
  /** The columns of a table, as wide as they came out. */
  readonly columns: DrawnTable["columns"];
};
type Column = {
  readonly height: number;
  readonly items: readonly DrawItem[];
  /** Rows that stand for records, from the top of the column. */
  readonly rows?: readonly {
    readonly top: number;
    readonly height: number;
    readonly records: readonly string[];
  }[];
};

/** The layout of a stock size with its cutting order, as the shop papers have it; null: the job has no such stock any more. */
export function drawnLayout(
  { item, from, goesOn }: ListPart,
  first: ListItem,
  task: string,
  input: DiagramInput,
): Drawn | null {
  const asked = input.results.tasks.find(({ id }) => id === task);
  if (!asked) return null;
  // All parts are cut from one flow: it is as wide and as tall as where it begins.
  const { width, height } = first;
  const flow = new Flow(pageWithRoom(width, height ?? Number.POSITIVE_INFINITY));
  layoutBlock(flow, asked, input);
  const all = flow.columns();
  const end = item.columns === null ? all.length : Math.min(all.length, from + item.columns);
  const next = end < all.length ? end : null;
  const shown = all.slice(from, end);
  return {
    ...inPlace(withGoesOn(shown, next === null ? null : goesOn), item.corner, width),
    next,
    left: all.length - end,
    columns: [],
  };
}

/** The rows of a table from one on, as many as have room; `first` says how the whole list looks. */
export function drawnList(
  { item, from, goesOn }: ListPart,
  first: ListItem,
  table: ListTable,
  tally: Tally,
): Drawn {
  const { corner, width, height, columns: most } = item;
  const { silhouettes, list, columnWidths, rowHeight } = first;
  const shown = !silhouettes && list.kind === "cut" ? withoutSilhouettes(table) : table;
  const look = { columnWidths, rowHeight };
  const { heading, rows, columns } = tableRows(shown, width, silhouettesOf(tally), look);
  const title: DrawnRow = {
    height: TITLE,
    items: [
      {
        kind: "text",
        at: [0, 3],
        text: from > 0 ? `${table.title}, continued` : table.title,
        size: 5,
        face: "strong",
        align: "left",
        ink: "ink",
      },
    ],
  };
  const room = {
    height: height ?? Number.POSITIVE_INFINITY,
    columns: most ?? Number.POSITIVE_INFINITY,
  };
  const { laid, next } = inColumns(title, heading, rows.slice(from), room);
  const end = next === null ? null : from + next;
  return {
    ...inPlace(withGoesOn(laid, end === null ? null : goesOn), corner, width),
    next: end,
    left: end === null ? 0 : rows.slice(end).filter(({ records }) => records).length,
    columns,
  };
}

/** The last column with the sentence under it that says where the list goes on. */
function withGoesOn(columns: readonly Column[], goesOn: string | null): readonly Column[] {
  const last = columns.at(-1);
  if (goesOn === null || !last) return columns;
  const text: DrawItem = {
    kind: "text",
    at: [0, last.height + GOES_ON / 2],
    text: goesOn,
    size: 2.9,
    face: "text",
    align: "left",
    ink: "soft",
  };
  return [...columns.slice(0, -1), { ...last, height: last.height + GOES_ON, items: [...last.items, text] }];
}

/** Columns side by side, from the corner that stays. */
function inPlace(
  columns: readonly Column[],
  corner: ListCorner,
  width: number,
): Pick<Drawn, "items" | "box" | "rows"> {
  const whole = columns.length * width + (columns.length - 1) * BETWEEN;
  const tall = Math.max(...columns.map((column) => column.height));
  const [left, top] = cornerOf(corner, whole, tall);
  const toTheLeft = corner === "topRight" || corner === "bottomRight";
  const placed = columns.map((column, i) => {
    // The first stands at the corner; the others go on away from it.
    const x = toTheLeft ? whole - width - i * (width + BETWEEN) : i * (width + BETWEEN);
    const y = corner === "bottomLeft" || corner === "bottomRight" ? tall - column.height : 0;
    return { column, at: [left + x, top + y] as const };
  });
  return {
    items: placed
      .flatMap(({ column, at }) => movedBy(column.items, at))
      .map((item) => ({ ...item, layer: item.layer ?? "LISTS" })),
    rows: placed.flatMap(({ column, at: [x, y] }) =>
      (column.rows ?? []).map(({ top: from, height, records }) => ({
        records,
        box: { x0: x, y0: y + from, x1: x + width, y1: y + from + height },
      })),
    ),
    box: { x0: left, y0: top, x1: left + whole, y1: top + tall },
  };
}

function cornerOf(corner: ListCorner, width: number, height: number): Vec2 {
  return [
    corner === "topLeft" || corner === "bottomLeft" ? 0 : -width,
    corner === "topLeft" || corner === "topRight" ? 0 : -height,
  ];
}

/**
 * Rows in columns, the heading over each of them, as long as there is room; `next` is the first row that has none. A row that is
 * taller than a column stands alone in one.
 */
function inColumns(
  title: DrawnRow,
  heading: DrawnRow,
  rows: readonly DrawnRow[],
  room: { readonly height: number; readonly columns: number },
): { readonly laid: readonly Column[]; readonly next: number | null } {
  type Growing = Column & { height: number; items: DrawItem[]; rows: NonNullable<Column["rows"]>[number][] };
  const columns: Growing[] = [];
  let column: Growing = { height: 0, items: [], rows: [] };
  const put = ({ height, items, records }: DrawnRow) => {
    if (records && records.length > 0) column.rows.push({ top: column.height, height, records });
    column.items.push(...movedBy(items, [0, column.height]));
    column.height += height;
  };
  put(title);
  put(heading);
  columns.push(column);
  let empty = true;
  for (const [i, row] of rows.entries()) {
    if (!empty && column.height + row.height + (row.keepWithNext ?? 0) > room.height) {
      // What has no look of its own may be left away at an end.
      if (columns.length >= room.columns)
        return { laid: columns, next: rows.slice(i).some(({ items }) => items.length > 0) ? i : null };
      column = { height: 0, items: [], rows: [] };
      columns.push(column);
      put(heading);
    }
    put(row);
    empty = false;
  }
  return { laid: columns, next: null };
}
