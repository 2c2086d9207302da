/**
 * The shop papers: cut list with silhouettes, bar and sheet diagrams to a stated scale, buying list, on
 * pages of one size with a head that names the job, its revision and the page.
 */

import type { Vec2 } from "../geometry";
import { agreeing, at, timesWords } from "../kernel";
import {
  type KeptLayout,
  type KeptShapes,
  type KeptSheets,
  keptFor,
  type LayoutTask,
  piecesWithoutPlace,
  type RowFinder,
  rowFinder,
} from "../layout";
import type { ShapeProblem } from "../layout/shapes";
import type { SheetProblem } from "../layout/sheets";
import { barOrderTable, type ListTable, shapePiecesTable, sheetOrderTable, styleOf } from "../lists";
import type { LengthStyle } from "../measure";
import { sayLength, saySizes } from "../measure";
import { isMetal, type SawEntry } from "../stockroom";
import type { Tally } from "../tally";
import { barDrawing } from "./bar-drawing";
import { type DrawItem, type Drawing, movedBy, type TextMeasure, type Tint } from "./display";
import { Flow, PAGE_SIZES, type PageHead, type PageSize, title } from "./flow";
import { listSection, withSilhouettes } from "./list-pages";
import { lyingPiece } from "./lying-piece";
import { shapeDrawing } from "./shape-drawing";
import { type SheetDrawingSize, sheetDrawing } from "./sheet-drawing";
import { type DrawPiece, tableRows } from "./table-drawing";

/** What diagrams are made from. */
export type DiagramInput = PageHead & {
  readonly results: { readonly tasks: readonly LayoutTask[] };
  readonly kept: readonly KeptLayout[];
  readonly saws: readonly SawEntry[];
};

export type PrintInput = DiagramInput & {
  readonly results: {
    readonly tally: Tally;
    readonly tasks: readonly LayoutTask[];
    readonly cutList: ListTable;
    readonly buyingList: ListTable;
  };
};

/** A4 and letter pages of a job, in millimetres. */
export function shopPapers(input: PrintInput, page: PageSize, measure: TextMeasure): readonly Drawing[] {
  const flow = new Flow(PAGE_SIZES[page], measure);
  const { results } = input;
  listSection(flow, withSilhouettes(results.cutList), results.tally, measure);
  for (const heading of ["Bar layouts", "Sheet layouts"]) {
    const tasks = results.tasks.filter((task) => (task.kind === "bars") === (heading === "Bar layouts"));
    if (tasks.length > 0) layoutSection(flow, heading, tasks, input, measure);
  }
  listSection(flow, results.buyingList, results.tally, measure);
  return flow.pages(input);
}

function layoutSection(
  flow: Flow,
  heading: string,
  tasks: readonly LayoutTask[],
  input: PrintInput,
  measure: TextMeasure,
): void {
  if (!flow.isFresh()) flow.newPage();
  flow.add(9, title(heading));
  for (const task of tasks) layoutBlock(flow, task, input, measure);
}

const line = (
  text: string,
  y: number,
  face: "text" | "strong" = "text",
  ink: "ink" | "soft" | "oxide" | "moss" = "soft",
): DrawItem => ({
  kind: "text",
  at: [0, y],
  text,
  size: 3.1,
  face,
  align: "left",
  ink,
});

/** The layout of one task with its cutting order. */
export function layoutBlock(flow: Flow, task: LayoutTask, input: DiagramInput, measure: TextMeasure): void {
  const name = task.material ? `${task.name}, ${task.material}` : task.name;
  const found = keptFor(task, input.kept);
  if (!found) {
    flow.add(14, [
      line(name, 3, "strong", "ink"),
      line("Not laid out yet: lay it out in the Layout stage.", 8, "text", "oxide"),
    ]);
    return;
  }
  const { kept, stale } = found;
  const head: DrawItem[] = [
    line(name, 3, "strong", "ink"),
    line(layoutFacts(kept, styleOf(input.info)), 7.6),
  ];
  if (stale)
    head.push(
      line(
        `STALE: made from revision ${kept.revision}; ${stale} since. Do not cut from it.`,
        12,
        "strong",
        "oxide",
      ),
    );
  const style = styleOf(input.info);
  const rowOf = rowFinder(input.results.tasks, kept.taskId);
  const first =
    kept.kind === "bars"
      ? barBlocks(flow, kept, rowOf, style, measure)
      : sheetBlocks(flow, kept, sheetDrawer(kept, tintOfTask(task), style, measure));
  const headHeight = stale ? 16 : 12;
  if (headHeight + (first[0]?.height ?? 0) > flow.room && !flow.isFresh()) flow.newPage();
  flow.add(headHeight, head);
  for (const block of first) flow.add(block.height, block.items);
  for (const order of orderTables(kept, rowOf, input.saws, style))
    orderBlock(flow, order, measure, (row, width) =>
      kept.kind === "bars"
        ? lyingPiece(kept, row.id, rowOf, { width: width - 2, depth: 3.4, line: 0.2 })
        : [],
    );
  for (const { index, qty, why, advice } of piecesWithoutPlace(kept)) {
    flow.add(5, [
      line(`Not placed: ${qty} × ${kept.pieces[index]?.mark ?? ""}: ${why}. ${advice}.`, 3, "text", "oxide"),
    ]);
  }
  flow.add(4, []);
}

function orderTables(
  kept: KeptLayout,
  rowOf: RowFinder,
  saws: readonly SawEntry[],
  style: LengthStyle,
): readonly ListTable[] {
  if (kept.kind === "bars") return [barOrderTable(kept, rowOf, style, saws)];
  return kept.kind === "sheets"
    ? kept.layout.sheets.map((_, i) => sheetOrderTable(kept, i, style, rowOf))
    : kept.layout.sheets.map((_, i) => shapePiecesTable(kept, i, style));
}

/** The cutting order under the diagrams that it belongs to. */
function orderBlock(flow: Flow, table: ListTable, measure: TextMeasure, draw: DrawPiece): void {
  const drawn = tableRows(table, flow.width, measure, draw);
  flow.add(6 + drawn.heading.height, [
    line(table.title, 3, "strong", "ink"),
    ...movedBy(drawn.heading.items, [0, 6]),
  ]);
  for (const row of drawn.rows) flow.add(row.height, row.items);
}

/** Number, proof and settings of a layout in one line. */
function layoutFacts(kept: KeptLayout, style: LengthStyle): string {
  const { count, proven, lowerBound, lowerBoundOf } = kept.layout;
  const noun = agreeing(count, kept.kind === "bars" ? "bar" : "sheet");
  const bound =
    lowerBoundOf === "cost" ? `cost at least ${lowerBound.toFixed(2)}` : `at least ${lowerBound} to buy`;
  const proof = proven ? "proven best" : `not proven: ${bound}`;
  return `${count} ${noun}, ${proof} · ${settingsWords(kept, style)}`;
}

function settingsWords(kept: KeptLayout, style: LengthStyle): string {
  const say = (mm: number) => sayLength(mm, style);
  if (kept.kind === "bars") return `kerf ${say(kept.problem.kerf)}, ${barSettings(kept.problem.trim, say)}`;
  if (kept.kind === "shapes") {
    const { gap, margin, step } = kept.problem;
    return `gap ${say(gap)}, margin ${say(margin)}, ${step === 0 ? "as drawn" : `turned in steps of ${step}°`}`;
  }
  const { kerf, trim, stages } = kept.problem;
  return `kerf ${say(kerf)}, trim ${say(trim)}, ${stages === null ? "any number of stages" : `${stages} stages`}`;
}

function barSettings(
  trim: number | { readonly start: number; readonly end: number },
  say: (mm: number) => string,
): string {
  const { start, end } = typeof trim === "number" ? { start: trim, end: trim } : trim;
  return start === end ? `trim ${say(start)} each end` : `trim ${say(start)} and ${say(end)}`;
}

type Block = { readonly height: number; readonly items: readonly DrawItem[] };

/** Scales of diagrams: the preferred ones of ISO 5455 and steps between them, as 1 to n. */
const SCALES = [1, 2, 5, 10, 15, 20, 25, 30, 40, 50, 75, 100, 150, 200, 500, 1000];

function scaleToFit(real: number, room: number): number {
  return SCALES.find((n) => real / n <= room) ?? real / room;
}

function barBlocks(
  flow: Flow,
  kept: Extract<KeptLayout, { kind: "bars" }>,
  rowOf: RowFinder,
  style: LengthStyle,
  measure: TextMeasure,
): readonly Block[] {
  const { problem, layout, pieces } = kept;
  const longest = Math.max(1, ...layout.bars.map((bar) => at(problem.stock, bar.stock).length));
  const ratio = scaleToFit(longest, flow.width);
  return layout.bars.map((bar, i) => {
    const stock = at(problem.stock, bar.stock);
    const items = barDrawing(
      { bar, problem, pieces, style, shownOf: (piece) => rowOf(piece)?.shown ?? null },
      { scale: 1 / ratio, depth: 6, line: 0.25, text: 3, measure },
    );
    const times = timesWords(bar.times);
    const words = `Pattern ${i + 1}, ${times}, from ${sayLength(stock.length, style)} · lengths at scale 1:${ratio}`;
    return { height: 15, items: [line(words, 2.6), ...movedBy(items, [0, 5.5])] };
  });
}

const tintOfTask = ({ kind, entry }: LayoutTask): Tint =>
  kind === "shapes" && isMetal(entry) ? "steel" : "board";

type DrawSheet = (index: number, size: SheetDrawingSize) => readonly DrawItem[];

/** Draws a sheet of a layout, whichever way its pieces are cut. */
function sheetDrawer(
  kept: KeptSheets | KeptShapes,
  tint: Tint,
  style: LengthStyle,
  measure: TextMeasure,
): DrawBlocks {
  const { pieces } = kept;
  const draw: DrawSheet =
    kept.kind === "sheets"
      ? (i, size) =>
          sheetDrawing({ sheet: at(kept.layout.sheets, i), problem: kept.problem, pieces, style }, size)
      : (i, size) =>
          shapeDrawing(
            { sheet: at(kept.layout.sheets, i), problem: kept.problem, pieces, style, tint },
            size,
          );
  const showsGrain = kept.kind === "sheets" || kept.problem.shapes.some(({ grain }) => grain);
  return { draw, measure, showsGrain, style };
}
type DrawBlocks = {
  readonly draw: DrawSheet;
  readonly measure: TextMeasure;
  readonly showsGrain: boolean;
  readonly style: LengthStyle;
};

function sheetBlocks(
  flow: Flow,
  { problem, layout }: KeptSheets | KeptShapes,
  { draw, measure, showsGrain, style }: DrawBlocks,
): readonly Block[] {
  return layout.sheets.map((sheet, i) => {
    const stock = at<ShapeProblem["stock"][number] | SheetProblem["stock"][number]>(
      problem.stock,
      sheet.stock,
    );
    const ratio = Math.max(scaleToFit(stock.length, flow.width), scaleToFit(stock.width, flow.fullRoom - 30));
    const items = draw(i, { scale: 1 / ratio, line: 0.25, text: 3.2, measure });
    const grain = showsGrain && stock.grain ? `, grain along the ${stock.grain}` : "";
    const words = `Sheet ${i + 1}, ${saySizes([stock.length, stock.width], style)}${grain} · scale 1:${ratio}`;
    return {
      height: stock.width / ratio + 11,
      items: [line(words, 2.6), ...movedBy(items, [0, 5.5] satisfies Vec2)],
    };
  });
}
