/**
 * A list by its setup: rows of the tally filtered, ordered by several columns or by hand, grouped with subtotals that
 * show or hide their rows, or by assembly, and totalled. What is missing keeps a total from being taken for whole.
 */
import type { Job, ListColumn, ListSetup } from "../job";
import { at, remembersEach } from "../kernel";
import { formatCents, formatDecimal } from "../measure";
import { levelledLines } from "./levels";
import type { Line, ListGround, PieceLine } from "./list-ground";
import { flatLines, ordered } from "./list-rows";
import { columnOf, emptyCells, type ListView, listView, short } from "./list-view";
import {
  type Cell,
  type FootLine,
  type ListGroup,
  type ListRow,
  type ListTable,
  MISSING,
  numberCell,
  textCell,
} from "./table";

/** The table of a list. */
export function ownList(setup: ListSetup, ground: ListGround): ListTable {
  return tableOf(listView(setup, ground), flatLines);
}

/**
 * The same with a memory of its own: as long as neither the design nor the columns change, cells and lines are those of
 * the call before, so that another order or other groups cost no more than putting rows in order.
 */
export function createLister(): (setup: ListSetup, ground: ListGround) => ListTable {
  const memory = {};
  const views = remembersEach<object, ListView>();
  const lines = remembersEach<object, readonly PieceLine[]>();
  return (setup, ground) => {
    const { job, sizes, stockroom, tally, quantities, shape } = ground;
    const { id, columns, sizeOfMember, sizeOfPanel, kinds, assembly, materials, marks } = setup;
    const design = [job.info, sizes, stockroom, tally, quantities, shape];
    const cellsBy = [...design, job.ownColumns, job.listCells, id, columns, sizeOfMember, sizeOfPanel];
    const view = views(memory, cellsBy, () => listView(setup, ground));
    const rowsBy = [...design, kinds, assembly, materials, marks];
    return tableOf({ ...view, setup, ground }, () => lines(memory, rowsBy, () => flatLines(setup, ground)));
  };
}

function tableOf(view: ListView, linesOf: typeof flatLines): ListTable {
  const { setup, ground } = view;
  const inOrder = <T extends Line>(lines: readonly T[]) =>
    ordered(lines, setup, (line, column) => view.cell(line, view.shown(column)));
  const lines = setup.levels ? levelledLines(setup, ground, inOrder) : inOrder(linesOf(setup, ground));
  const pieces = lines.filter((line): line is PieceLine => line.kind === "pieces");
  // By assembly without rows, only what stands in the job itself: an assembly stands for what is in it.
  const shown = setup.levels && !setup.showRows ? lines.filter((line) => line.level === 1) : lines;
  const groups = setup.levels ? oneGroup(shown.map((line) => tableRow(line, view))) : groupsOf(pieces, view);
  const { groupBy, showRows, levels } = setup;
  // Where a group is one row, or its column is shown anyway, a column of its own would say it twice.
  const told =
    levels || groupBy === null || !showRows || setup.columns.some(({ column }) => column === groupBy);
  const groupColumns = told ? [] : [view.kind(groupBy)?.heading ?? groupBy];
  return {
    title: setup.name,
    columns: setup.columns.map((column) => columnOf(column, view)),
    groups,
    groupColumns,
    foot: setup.totals ? footLines(pieces, view) : [],
    notes: notesOf(shown, view),
  };
}

/** The list of a job that a name or an id means, capitals or not. */
export function findList(job: Job, name: string): ListSetup | undefined {
  const wanted = name.trim().toLowerCase();
  return Object.values(job.lists).find((list) => list.id === name || list.name.toLowerCase() === wanted);
}

/** What lists a job has, with what each is made of. */
export type Lists = ListGround & { readonly cutList: ListTable; readonly buyingList: ListTable };

/** The cut list (`cut`), the buying list (`buying`) or one of the job's own; null when there is none of that name. */
export function namedTable(name: string, lists: Lists): ListTable | null {
  if (name === "cut") return lists.cutList;
  if (name === "buying") return lists.buyingList;
  const setup = findList(lists.job, name);
  return setup ? ownList(setup, lists) : null;
}

/** The names that lists are asked for by. */
export const listNames = (job: Job): readonly string[] => [
  "cut",
  "buying",
  ...Object.values(job.lists).map((list) => list.name),
];

function notesOf(lines: readonly Line[], view: ListView): readonly string[] {
  const { setup, ground } = view;
  const { materials, marks } = setup;
  return [
    ...(setup.assembly === null || setup.levels
      ? []
      : [`Only what is in ${ground.job.assemblies[setup.assembly]?.name ?? "an assembly that is gone"}.`]),
    ...(materials.length > 0 ? [`Only ${materials.join(", ")}.`] : []),
    ...(marks.length > 0 ? [`Only marks ${marks.join(", ")}.`] : []),
    ...(ground.tally.batch > 1 ? [`Counts are for ${ground.tally.batch} of this job.`] : []),
    ...emptyCells(lines, view),
  ];
}

function groupsOf(lines: readonly PieceLine[], view: ListView): readonly ListGroup[] {
  const { groupBy, showRows } = view.setup;
  if (groupBy === null) return oneGroup(lines.map((line) => tableRow(line, view)));
  const parts = new Map<string, PieceLine[]>();
  const column = view.shown(groupBy);
  for (const line of lines) {
    const heading = view.cell(line, column).text;
    const part = parts.get(heading);
    if (part) part.push(line);
    else parts.set(heading, [line]);
  }
  if (!showRows) return oneGroup([...parts].map(([heading, own]) => summedRow(heading, own, view)));
  return [...parts].map(([heading, own]) => ({
    heading,
    detail: "",
    summary: sumWords(own, view),
    rows: own.map((line) => tableRow(line, view)),
  }));
}

const oneGroup = (rows: readonly ListRow[]): readonly ListGroup[] =>
  rows.length === 0 ? [] : [{ heading: "", detail: "", summary: "", rows }];

function tableRow(line: Line, view: ListView): ListRow {
  const cells: Record<string, Cell> = {};
  for (const column of view.setup.columns) cells[column.column] = view.cell(line, column);
  return { id: line.id, records: line.records, summed: false, level: line.level, cells };
}

/** One row for a whole group: sums where a column adds up, marks side by side, a text that all share. */
function summedRow(heading: string, lines: readonly PieceLine[], view: ListView): ListRow {
  const records = lines.flatMap((line) => line.records);
  const cell = (column: ListColumn): Cell => {
    if (column.column === view.setup.groupBy) return textCell(heading);
    const cells = lines.map((line) => view.cell(line, column));
    if (addsUp(column, view)) return addedUp(column.column, cells);
    const texts = [...new Set(cells.map((one) => one.text))];
    if (texts.length === 1) return plain(at(cells, 0));
    if (column.column !== "mark") return textCell("several");
    return textCell(cells.flatMap((one) => (one.lack ? [] : [one.text])).join(" "));
  };
  return {
    id: `group ${heading}`,
    records,
    summed: true,
    level: 0,
    cells: Object.fromEntries(
      view.setup.columns.map((column) => [
        column.column,
        view.typedOver(cell(column), column, records, true),
      ]),
    ),
  };
}

/** What several rows say alike was typed over in them, not in the row that stands for them. */
const plain = ({ over: _, ...cell }: Cell): Cell => cell;

const addsUp = (column: ListColumn, view: ListView): boolean => {
  const kind = view.kind(column.column);
  return kind !== null && kind.writes.kind !== "words" && (column.adds ?? kind.adds);
};

/** How each column that adds up writes its sum. */
const SUM_WORDS: Readonly<Record<string, (sum: number) => string>> = {
  net: (sum) => formatDecimal(sum, 3),
  mass: (sum) => formatDecimal(sum, 2),
  cost: (sum) => formatCents(Math.round(sum * 100)),
};

/** A sum, and whether nothing in it was missing. */
type Sum = { readonly of: number; readonly whole: boolean };

function sumOf(cells: readonly Cell[]): Sum {
  const sum = cells.reduce((total, cell) => total + (cell.value ?? 0), 0);
  // A text typed over a number is no number either: the sum says so.
  const whole = cells.every((cell) => cell.value !== null || cell.lack === "notApplicable");
  return { of: Number(sum.toPrecision(12)), whole };
}

const sumCell = ({ of, whole }: Sum, text: string): Cell =>
  whole ? numberCell(of, text) : { ...MISSING, text: `incomplete: ${text}` };

function addedUp(column: string, cells: readonly Cell[]): Cell {
  const sum = sumOf(cells);
  return sumCell(sum, (SUM_WORDS[column] ?? short)(sum.of));
}

/** The sum of a column over some lines. */
const columnSum = (lines: readonly PieceLine[], column: ListColumn, view: ListView): Cell =>
  addedUp(
    column.column,
    lines.map((line) => view.cell(line, column)),
  );

const UNITS: Readonly<Record<string, string>> = { count: "pieces", mass: "kg" };

/** The sums of the columns that add up, in words; lengths and areas are never added to one another. */
function sumWords(lines: readonly PieceLine[], view: ListView): string {
  const words = view.setup.columns.flatMap((column) => {
    if (!addsUp(column, view)) return [];
    if (column.column === "net") return netWords(lines, column, view);
    const { text } = columnSum(lines, column, view);
    if (column.column === "cost") return [`${text} ${view.ground.quantities.currency}`];
    const unit = UNITS[column.column] ?? columnOf(column, view).heading.toLowerCase();
    return [`${text} ${unit === "pieces" && text === "1" ? "piece" : unit}`];
  });
  if (words.length > 0) return words.join(" · ");
  const count = lines.reduce((sum, line) => sum + line.count, 0);
  return `${count} ${count === 1 ? "piece" : "pieces"}`;
}

function netWords(lines: readonly PieceLine[], column: ListColumn, view: ListView): readonly string[] {
  return (["m", "m²", "each"] as const).flatMap((measure) => {
    const own = lines.filter((line) => line.quantity.measure === measure);
    if (own.length === 0) return [];
    const sum = columnSum(own, column, view);
    return measure === "each" ? [`${(sum.value ?? 0).toFixed(0)} each`] : [`${sum.text} ${measure}`];
  });
}

/** The total; or the sum, the job's waste on the cost of what is measured, and the total of both. */
function footLines(lines: readonly PieceLine[], view: ListView): readonly FootLine[] {
  const cost = view.setup.columns.find(({ column }) => column === "cost");
  if (!view.setup.wasteAtFoot || !cost) return [footLine("Total", lines, view)];
  const percent = view.ground.job.info.job.wastePercent;
  const costs = (of: readonly PieceLine[]) => sumOf(of.map((line) => view.cell(line, cost)));
  const sum = costs(lines);
  // Fittings are counted each and have no waste.
  const measured = costs(lines.filter((line) => line.quantity.measure !== "each"));
  const waste: Sum = { of: Math.round(measured.of * percent) / 100, whole: measured.whole };
  const total: Sum = { of: sum.of + waste.of, whole: sum.whole };
  const money = (one: Sum) =>
    sumCell(one, `${formatCents(Math.round(one.of * 100))} ${view.ground.quantities.currency}`);
  return [
    footLine("Sum", lines, view),
    { label: `Waste, ${percent} %`, cells: { cost: money(waste) } },
    { label: "Total", cells: { cost: money(total) } },
  ];
}

/** Each sum under its column. */
function footLine(label: string, lines: readonly PieceLine[], view: ListView): FootLine {
  const cells = view.setup.columns.flatMap((column): [string, Cell][] => {
    if (!addsUp(column, view)) return [];
    if (column.column === "net") return [["net", textCell(netWords(lines, column, view).join(" · "))]];
    const sum = columnSum(lines, column, view);
    if (column.column !== "cost") return [[column.column, sum]];
    return [["cost", { ...sum, text: `${sum.text} ${view.ground.quantities.currency}` }]];
  });
  if (cells.length === 0) return { label: `${label}: ${sumWords(lines, view)}`, cells: {} };
  return { label, cells: Object.fromEntries(cells) };
}
