/**
 * A list by its setup: rows of the tally filtered, ordered by several columns, grouped with subtotals that show
 * or hide their rows, and totalled. What is missing keeps a total from being taken for whole.
 */
import { holds, homeOf, type Job, type ListColumn, type ListSetup } from "../job";
import { at, byNaturalText, byNumber, inTurn, type Order } from "../kernel";
import { formatCents, formatDecimal } from "../measure";
import type { TallyRow } from "../tally";
import { cellOf, columnKind, columnOf } from "./list-columns";
import { type ListedRow, type ListGround, type RowQuantity, rowQuantities } from "./list-ground";
import { type Cell, type ListGroup, type ListRow, type ListTable, numberCell, textCell } from "./table";

/** The table of a list. */
export function ownList(setup: ListSetup, ground: ListGround): ListTable {
  const rows = [...listedRows(setup, ground)].sort(rowOrder(setup, ground));
  const groups = groupsOf(rows, setup, ground);
  const notes = [
    ...(setup.assembly === null
      ? []
      : [`Only what is in ${ground.job.assemblies[setup.assembly]?.name ?? "an assembly that is gone"}.`]),
    ...(ground.tally.batch > 1 ? [`Counts are for ${ground.tally.batch} of this job.`] : []),
    ...(setup.totals ? [`Total: ${sumWords(rows, setup, ground)}.`] : []),
  ];
  const { groupBy, showRows } = setup;
  // Where a group is one row, or its column is shown anyway, a column of its own would say it twice.
  const told = groupBy === null || !showRows || setup.columns.some(({ column }) => column === groupBy);
  const groupColumns = told ? [] : [columnKind(groupBy)?.heading ?? groupBy];
  return { title: setup.name, columns: setup.columns.map(columnOf), groups, groupColumns, notes };
}

/** The list of a job that a name or an id means, capitals or not. */
export function findList(job: Job, name: string): ListSetup | undefined {
  const wanted = name.trim().toLowerCase();
  return Object.values(job.lists).find((list) => list.id === name || list.name.toLowerCase() === wanted);
}

const NOTHING_KNOWN: RowQuantity = { measure: "each", each: null, unitPrice: null, massEach: null };

/** Rows of the wanted kinds, with the counts of the wanted assembly. */
function listedRows(setup: ListSetup, ground: ListGround): readonly ListedRow[] {
  const quantities = rowQuantities(ground);
  const { batch } = ground.tally;
  return ground.tally.rows.flatMap((row): ListedRow[] => {
    if (!setup.kinds.includes(row.kind)) return [];
    const pieces = row.pieces.filter(({ id }) => goesIn(id, setup, ground));
    const count = (hand: TallyRow["pieces"][number]["hand"]) =>
      pieces.filter((piece) => piece.hand === hand).reduce((sum, piece) => sum + piece.quantity, 0) * batch;
    const [asDrawn, opposite] = [count("asDrawn"), count("opposite")];
    if (asDrawn + opposite === 0) return [];
    const quantity = quantities.get(row.id) ?? NOTHING_KNOWN;
    return [{ row, count: asDrawn + opposite, asDrawn, opposite, quantity }];
  });
}

function goesIn(id: string, { assembly }: ListSetup, { job }: ListGround): boolean {
  if (assembly === null) return true;
  if (id === assembly) return true;
  const home = homeOf(job, id);
  return home !== undefined && holds(job, assembly, home);
}

/** Numbers by their value, texts as people read them; what has no value comes last either way. */
function rowOrder(setup: ListSetup, ground: ListGround): Order<ListedRow> {
  const orders = setup.order.map(({ column, descending }): Order<ListedRow> => {
    const shown = setup.columns.find((one) => one.column === column);
    const plain: ListColumn = shown ?? { column, heading: null, align: null, width: null, format: null };
    const turn = descending ? -1 : 1;
    return (a, b) => {
      const [x, y] = [cellOf(a, plain, setup, ground), cellOf(b, plain, setup, ground)];
      if (x.value !== null && y.value !== null) return turn * byNumber(x.value, y.value);
      if (x.value !== null || y.value !== null) return x.value !== null ? -1 : 1;
      return turn * byNaturalText(x.text, y.text);
    };
  });
  // Array.sort is stable: rows that are equal stay as the tally has them.
  return orders.length === 0 ? () => 0 : inTurn(...orders);
}

function groupsOf(rows: readonly ListedRow[], setup: ListSetup, ground: ListGround): readonly ListGroup[] {
  const { groupBy } = setup;
  if (groupBy === null) {
    const group = {
      heading: "",
      detail: "",
      summary: "",
      rows: rows.map((row) => tableRow(row, setup, ground)),
    };
    return rows.length === 0 ? [] : [group];
  }
  const parts = new Map<string, ListedRow[]>();
  const plain: ListColumn = { column: groupBy, heading: null, align: null, width: null, format: null };
  for (const row of rows) {
    const heading = cellOf(row, plain, setup, ground).text;
    parts.set(heading, [...(parts.get(heading) ?? []), row]);
  }
  const groups = [...parts].map(([heading, own]) => ({ heading, own }));
  if (setup.showRows)
    return groups.map(({ heading, own }) => ({
      heading,
      detail: "",
      summary: sumWords(own, setup, ground),
      rows: own.map((row) => tableRow(row, setup, ground)),
    }));
  return [
    {
      heading: "",
      detail: "",
      summary: "",
      rows: groups.map(({ heading, own }) => summedRow(heading, own, setup, ground)),
    },
  ];
}

function tableRow(row: ListedRow, setup: ListSetup, ground: ListGround): ListRow {
  return {
    id: row.row.id,
    cells: Object.fromEntries(
      setup.columns.map((column) => [column.column, cellOf(row, column, setup, ground)]),
    ),
  };
}

/** One row for a whole group: sums where a column adds up, marks side by side, a text that all share. */
function summedRow(
  heading: string,
  rows: readonly ListedRow[],
  setup: ListSetup,
  ground: ListGround,
): ListRow {
  const cell = (column: ListColumn): Cell => {
    if (column.column === setup.groupBy) return textCell(heading);
    const cells = rows.map((row) => cellOf(row, column, setup, ground));
    if (columnKind(column.column)?.adds) return addedUp(column.column, cells);
    const texts = [...new Set(cells.map((one) => one.text))];
    if (texts.length === 1) return at(cells, 0);
    return textCell(column.column === "mark" ? texts.filter(Boolean).join(" ") : "several");
  };
  return {
    id: `group ${heading}`,
    cells: Object.fromEntries(setup.columns.map((column) => [column.column, cell(column)])),
  };
}

/** How each column that adds up writes its sum. */
const SUM_WORDS: Readonly<Record<string, (sum: number) => string>> = {
  net: (sum) => formatDecimal(sum, 3),
  mass: (sum) => formatDecimal(sum, 2),
  cost: (sum) => formatCents(Math.round(sum * 100)),
};

function addedUp(column: string, cells: readonly Cell[]): Cell {
  const known = cells.filter((cell) => cell.value !== null);
  const sum = Number(known.reduce((total, cell) => total + (cell.value ?? 0), 0).toPrecision(12));
  const text = (SUM_WORDS[column] ?? String)(sum);
  const short = cells.some((cell) => cell.value === null && cell.text !== "–");
  return short ? textCell(`incomplete: ${text}`) : numberCell(sum, text);
}

const UNITS: Readonly<Record<string, string>> = { count: "pieces", mass: "kg" };

/** The sums of the columns that add up, in words; lengths and areas are never added to one another. */
function sumWords(rows: readonly ListedRow[], setup: ListSetup, ground: ListGround): string {
  const words = setup.columns.flatMap((column) => {
    if (!columnKind(column.column)?.adds) return [];
    if (column.column === "net") return netWords(rows, column, setup, ground);
    const { text } = addedUp(
      column.column,
      rows.map((row) => cellOf(row, column, setup, ground)),
    );
    if (column.column === "cost") return [`${text} ${ground.quantities.currency}`];
    const unit = UNITS[column.column] ?? columnOf(column).heading.toLowerCase();
    return [`${text} ${unit === "pieces" && text === "1" ? "piece" : unit}`];
  });
  if (words.length > 0) return words.join(" · ");
  const count = rows.reduce((sum, row) => sum + row.count, 0);
  return `${count} ${count === 1 ? "piece" : "pieces"}`;
}

function netWords(
  rows: readonly ListedRow[],
  column: ListColumn,
  setup: ListSetup,
  ground: ListGround,
): readonly string[] {
  return (["m", "m²", "each"] as const).flatMap((measure) => {
    const own = rows.filter((row) => row.quantity.measure === measure);
    if (own.length === 0) return [];
    const sum = addedUp(
      "net",
      own.map((row) => cellOf(row, column, setup, ground)),
    );
    return measure === "each" ? [`${(sum.value ?? 0).toFixed(0)} each`] : [`${sum.text} ${measure}`];
  });
}
