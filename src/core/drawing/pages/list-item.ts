/** Lists on pages: from the corner that stays, so that they grow away from it, going on beside themselves where they may grow no taller. */
import type { PlaneBox, Vec2 } from "../../geometry";
import type { ListCorner, ListItem } from "../../job";
import type { ListTable } from "../../lists";
import type { Tally } from "../../tally";
import { type DrawItem, movedBy } from "../display";
import { Flow, pageWithRoom } from "../flow";
import { silhouettesOf, withSilhouettes } from "../list-pages";
import { type DiagramInput, layoutBlock } from "../print";
import { type DrawnRow, tableRows } from "../table-drawing";
import type { PlacedRow } from "./placed";

const TITLE = 8;
const BETWEEN = 6;

/** The layout of a stock size with its cutting order, as the shop papers have it; null: the job has no such stock any more. */
export function drawnLayout(
  { corner, width, height }: ListItem,
  task: string,
  input: DiagramInput,
): Drawn | null {
  const asked = input.results.tasks.find(({ id }) => id === task);
  if (!asked) return null;
  const flow = new Flow(pageWithRoom(width, height ?? Number.POSITIVE_INFINITY));
  layoutBlock(flow, asked, input);
  return inPlace(flow.columns(), corner, width);
}

type Drawn = {
  readonly items: readonly DrawItem[];
  readonly box: PlaneBox;
  readonly rows: readonly PlacedRow[];
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

export function drawnList(
  { corner, width, height, silhouettes, list }: ListItem,
  table: ListTable,
  tally: Tally,
): Drawn {
  const shown = silhouettes && list.kind === "cut" ? withSilhouettes(table) : table;
  const { heading, rows } = tableRows(shown, width, silhouettesOf(tally));
  const title: DrawnRow = {
    height: TITLE,
    items: [
      { kind: "text", at: [0, 3], text: table.title, size: 5, face: "strong", align: "left", ink: "ink" },
    ],
  };
  return inPlace(inColumns(title, heading, rows, height ?? Number.POSITIVE_INFINITY), corner, width);
}

/** Columns side by side, from the corner that stays. */
function inPlace(columns: readonly Column[], corner: ListCorner, width: number): Drawn {
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

/** Rows in as many columns as it takes, the heading over each of them. A row that is taller than all of it stands alone. */
function inColumns(
  title: DrawnRow,
  heading: DrawnRow,
  rows: readonly DrawnRow[],
  most: number,
): readonly Column[] {
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
  for (const row of rows) {
    if (!empty && column.height + row.height + (row.keepWithNext ?? 0) > most) {
      column = { height: 0, items: [], rows: [] };
      columns.push(column);
      put(heading);
    }
    put(row);
    empty = false;
  }
  return columns;
}
