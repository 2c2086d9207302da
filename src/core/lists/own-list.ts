/**
 * A list by its setup: rows of the tally filtered, ordered by several columns or by hand, grouped with subtotals that
 * show or hide their rows, or by assembly, and totalled. What is missing keeps a total from being taken for whole.
 */

import { addedLists, cutListOf, type Job, type ListColumn, type ListSetup } from "../job";
import { at, counted, fromNm, LENGTH_TOLERANCE_MM, remembersEach } from "../kernel";
import { areaOfPanel } from "../layout";
import { formatCents, formatDecimal, formatLength } from "../measure";
import { quantityWords, shopUnit } from "../quantities";
import { levelledLines } from "./levels";
import { partOfCost } from "./list-columns";
import type { Line, ListGround, PieceLine } from "./list-ground";
import { flatLines, ordered } from "./list-rows";
import { columnOf, emptyCells, type ListView, listView, short } from "./list-view";
import { styleOf } from "./piece-notes";
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
  const shown = !setup.levels
    ? lines
    : setup.showRows
      ? lines.filter(({ kind }) => kind !== "assembly" || setup.assemblyLines)
      : lines.filter(({ level }) => level === 1);
  const groups = setup.levels ? oneGroup(shown.map((line) => tableRow(line, view))) : groupsOf(pieces, view);
  const { groupBy, showRows, levels } = setup;
  // Where a group is one row, or its column is shown anyway, a column of its own would say it twice.
  const told =
    levels || groupBy === null || !showRows || setup.columns.some(({ column }) => column === groupBy);
  const by = told ? null : view.kind(groupBy);
  // Groups of one stock name its material beside it.
  const besides = by?.group && !setup.columns.some(({ column }) => column === "material") ? ["Material"] : [];
  const groupColumns = told ? [] : [by?.heading ?? groupBy, ...besides];
  return {
    title: setup.name,
    columns: setup.columns.map((column) => columnOf(column, view)),
    groups,
    groupColumns,
    foot: setup.totals ? footLines(pieces, view) : [],
    notes: [...notesOf(shown, view), ...leftOutOfCost(pieces, view)],
  };
}

/** The list of a job that a name or an id means, capitals or not. */
function findList(job: Job, name: string): ListSetup | undefined {
  return addedLists(job).find((list) => list.id === name || sameName(list.name, name));
}

const sameName = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();

/** What lists a job has, with what each is made of. */
export type Lists = ListGround & { readonly cutList: ListTable; readonly buyingList: ListTable };

/** The cut list (`cut`), the buying list (`buying`) or one of the job's own; null when there is none of that name. */
export function namedTable(name: string, lists: Lists): ListTable | null {
  if (name === "cut") return lists.cutList;
  if (name === "buying") return lists.buyingList;
  const setup = findList(lists.job, name);
  if (setup) return ownList(setup, lists);
  return sameName(cutListOf(lists.job).name, name) ? lists.cutList : null;
}

/** The names that lists are asked for by. */
export const listNames = (job: Job): readonly string[] => [
  "cut",
  "buying",
  ...addedLists(job).map((list) => list.name),
];

function notesOf(lines: readonly Line[], view: ListView): readonly string[] {
  const { setup, ground } = view;
  const { materials, marks } = setup;
  return [
    ...(setup.assembly === null || setup.levels
      ? []
      : [`Limited to ${ground.job.assemblies[setup.assembly]?.name ?? "an assembly that is gone"}.`]),
    ...(materials.length > 0 ? [`Only ${materials.join(", ")}.`] : []),
    ...(marks.length > 0 ? [`Limited to marks ${marks.join(", ")}.`] : []),
    ...(ground.tally.batch > 1 ? [`Counts are for ${ground.tally.batch} of this job.`] : []),
    ...emptyCells(lines, view),
  ];
}

function groupsOf(lines: readonly PieceLine[], view: ListView): readonly ListGroup[] {
  const { groupBy, showRows } = view.setup;
  if (groupBy === null) return oneGroup(lines.map((line) => tableRow(line, view)));
  const parts = partsBy(groupBy, lines, view);
  if (!showRows) return oneGroup(parts.map((part) => summedRow(part, view)));
  return parts.map(({ heading, detail, isStock, lines: own }) => ({
    heading,
    detail,
    summary: `${sumWords(own, view)}${isStock ? stockTotal(own, view) : ""}`,
    rows: own.map((line) => tableRow(line, view)),
  }));
}

type Part = {
  readonly heading: string;
  readonly detail: string;
  /** All of it is of one section or board. */
  readonly isStock: boolean;
  readonly lines: PieceLine[];
};

/** Lines by the groups of a column; what somebody typed over it is a group of its own. */
function partsBy(groupBy: string, lines: readonly PieceLine[], view: ListView): readonly Part[] {
  const parts = new Map<string, Part>();
  const column = view.shown(groupBy);
  const group = view.kind(groupBy)?.group;
  for (const line of lines) {
    const { text, over } = view.cell(line, column);
    const found = group && !over ? group(line) : null;
    const key = found?.key ?? `text ${text}`;
    const part = parts.get(key);
    if (part) part.lines.push(line);
    else
      parts.set(key, {
        heading: found?.heading ?? text,
        detail: found?.detail ?? "",
        isStock: found !== null,
        lines: [line],
      });
  }
  return [...parts.values()];
}

/** " · 14.3 m²": how much of its stock a group is, unless a column of the list adds that up. */
function stockTotal(lines: readonly PieceLine[], { setup, ground: { job } }: ListView): string {
  if (setup.columns.some(({ column, adds }) => column === "net" || (column === "length" && adds))) return "";
  const style = styleOf(job.info.job);
  let [length, area] = [0, 0];
  for (const { row, count } of lines) {
    const { form } = row.shown;
    if (form.kind === "member") length += fromNm(form.cutNm) * count;
    if (form.kind === "panel") area += areaOfPanel(form) * count;
  }
  if (area > 0) return ` · ${quantityWords("m²", area / 1e6, style)} ${shopUnit("m²", style.unit).name}`;
  return length > 0 ? ` · ${formatLength(length, style, LENGTH_TOLERANCE_MM)} ${style.unit}` : "";
}

const oneGroup = (rows: readonly ListRow[]): readonly ListGroup[] =>
  rows.length === 0 ? [] : [{ heading: "", detail: "", summary: "", rows }];

function tableRow(line: Line, view: ListView): ListRow {
  const cells: Record<string, Cell> = {};
  for (const column of view.setup.columns) cells[column.column] = view.cell(line, column);
  return { id: line.id, records: line.records, summed: false, level: line.level, cells };
}

/** One row for a whole group: sums where a column adds up, marks side by side, a text that all share. */
function summedRow({ heading, detail, lines }: Part, view: ListView): ListRow {
  const records = lines.flatMap((line) => line.records);
  const cell = (column: ListColumn): Cell => {
    if (column.column === view.setup.groupBy) return textCell(heading);
    const cells = lines.map((line) => view.cell(line, column));
    if (addsUp(column, view)) return columnSum(lines, column, view);
    const texts = [...new Set(cells.map((one) => one.text))];
    if (texts.length === 1) return plain(at(cells, 0));
    if (column.column !== "mark") return textCell("several");
    return textCell(cells.flatMap((one) => (one.lack ? [] : [one.text])).join(" "));
  };
  return {
    id: `group ${heading}${detail === "" ? "" : ` ${detail}`}`,
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
  return kind !== null && kind.sumOf !== null && (column.adds ?? kind.adds);
};

/** A sum in the unit and the format of its column. */
function sumText(sum: number, column: ListColumn, view: ListView): string {
  if (column.column === "cost") return formatCents(Math.round(sum * 100));
  const writes = columnOf(column, view).writes;
  if (writes?.kind === "length") return formatLength(sum, writes.style, LENGTH_TOLERANCE_MM);
  return writes?.kind === "decimal" ? formatDecimal(sum, writes.places) : short(sum);
}

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

/** The sum of a column over some lines: what is of each piece counts as often as there are pieces. */
function columnSum(lines: readonly PieceLine[], column: ListColumn, view: ListView): Cell {
  const ofEach = view.kind(column.column)?.sumOf === "piece";
  const cells = lines.map((line): Cell => {
    const cell = view.cell(line, column);
    return ofEach && cell.value !== null ? { ...cell, value: cell.value * line.count } : cell;
  });
  const sum = sumOf(cells);
  return sumCell(sum, sumText(sum.of, column, view));
}

/** The sums of the columns that add up, in words; lengths and areas are never added to one another. */
function sumWords(lines: readonly PieceLine[], view: ListView): string {
  const words = view.setup.columns.flatMap((column) => {
    if (!addsUp(column, view)) return [];
    if (column.column === "net") return netWords(lines, column, view);
    const { text, value } = columnSum(lines, column, view);
    if (column.column === "cost") return [`${text} ${view.ground.quantities.currency}`];
    if (column.column === "count" && value !== null) return [counted(value, "piece")];
    if (column.column === "mass") return [`${text} kg`];
    const { heading, writes } = columnOf(column, view);
    const name = heading.toLowerCase();
    return [writes?.kind === "length" ? `${name} ${text} ${writes.style.unit}` : `${text} ${name}`];
  });
  if (words.length > 0) return words.join(" · ");
  const count = lines.reduce((sum, line) => sum + line.count, 0);
  return `${counted(count, "piece")}`;
}

function netWords(lines: readonly PieceLine[], column: ListColumn, view: ListView): readonly string[] {
  return (["m", "m²", "each"] as const).flatMap((measure) => {
    const own = lines.filter((line) => line.quantity.measure === measure);
    if (own.length === 0) return [];
    const sum = columnSum(own, column, view);
    const { name } = shopUnit(measure, view.ground.job.info.job.unit);
    return measure === "each" ? [`${(sum.value ?? 0).toFixed(0)} each`] : [`${sum.text} ${name}`];
  });
}

/** The total; or the sum, edging, the waste of what is measured, and the total of all: as it is bought. */
function footLines(lines: readonly PieceLine[], view: ListView): readonly FootLine[] {
  const cost = view.setup.columns.find(({ column }) => column === "cost");
  if (!view.setup.wasteAtFoot || !cost) return [footLine("Total", lines, view)];
  const percent = view.ground.job.info.job.wastePercent;
  const money = (one: Sum) =>
    sumCell(one, `${formatCents(Math.round(one.of * 100))} ${view.ground.quantities.currency}`);
  const { edging, waste } = costBeside(lines, view);
  const sum = sumOf(lines.map((line) => view.cell(line, cost)));
  const total: Sum = {
    of: sum.of + edging.of + waste.of,
    whole: sum.whole && edging.whole && waste.whole,
  };
  return [
    footLine("Sum", lines, view),
    ...(edging.of !== 0 || !edging.whole ? [{ label: "Edging", cells: { cost: money(edging) } }] : []),
    { label: `Waste, ${percent} %`, cells: { cost: money(waste) } },
    { label: "Total", cells: { cost: money(total) } },
  ];
}

/** What the pieces of some lines cost beside what the rows say: their edging, and the waste of both. */
function costBeside(
  lines: readonly PieceLine[],
  { ground }: ListView,
): { readonly edging: Sum; readonly waste: Sum } {
  const { edgingCosts } = ground.quantities;
  let [edging, waste, edgingWhole, wasteWhole] = [0, 0, true, true];
  for (const line of lines) {
    const own = edgingCosts.get(line.row.id);
    const parts = [line.quantity.cost.waste, ...(own ? [own.waste] : [])];
    edging += partOfCost(line, own?.net ?? 0) ?? 0;
    waste += parts.reduce<number>((sum, cents) => sum + (partOfCost(line, cents) ?? 0), 0);
    edgingWhole &&= own?.net !== null;
    wasteWhole &&= parts.every((cents) => cents !== null);
  }
  return { edging: { of: edging / 100, whole: edgingWhole }, waste: { of: waste / 100, whole: wasteWhole } };
}

/** What a list with costs leaves out of what the job costs, so that two totals are never taken for one another. */
function leftOutOfCost(lines: readonly PieceLine[], view: ListView): readonly string[] {
  const { setup, ground } = view;
  if (!setup.columns.some(({ column }) => column === "cost")) return [];
  const { byRule, currency } = ground.quantities;
  const beside = costBeside(lines, view);
  const rows = lines.reduce((sum, line) => sum + (partOfCost(line, line.quantity.cost.net) ?? 0), 0);
  const atFoot = setup.totals && setup.wasteAtFoot ? 100 * (beside.edging.of + beside.waste.of) : 0;
  const out = byRule.cents - Math.round(rows + atFoot);
  const parts = [
    ...(atFoot === 0 && beside.edging.of > 0 ? ["edging"] : []),
    ...(atFoot === 0 && beside.waste.of > 0 ? ["waste"] : []),
    ...missingRows(lines, ground),
  ];
  if (out === 0 && parts.length === 0) return [];
  const what = parts.length > 0 ? parts.join(", ") : "parts of rows";
  return [
    `This list leaves out ${formatCents(out)} ${currency} of the ${formatCents(byRule.cents)} ${currency} that the job costs: ${what}.`,
  ];
}

/** "3 rows" that a list does not show, or shows in part. */
function missingRows(lines: readonly PieceLine[], { tally, quantities }: ListGround): readonly string[] {
  const shown = new Map<string, number>();
  for (const { row, count } of lines) shown.set(row.id, (shown.get(row.id) ?? 0) + count);
  const missing = tally.rows.filter(
    (row) => quantities.rowCosts.has(row.id) && (shown.get(row.id) ?? 0) < row.count,
  );
  return missing.length === 0 ? [] : [`${counted(missing.length, "row")} not in it`];
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
