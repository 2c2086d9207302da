/**
 * The shop papers: cut list with silhouettes, bar and sheet diagrams to a stated scale, buying list, on
 * pages of one size with a head that names the job, its revision and the page.
 */

import type { Vec2 } from "../geometry";
import { at, counted, forKind, timesWords } from "../kernel";
import {
  type LayoutKind,
  type LayoutTask,
  layoutKind,
  outdatedWords,
  piecesWithoutPlace,
  type RowFinder,
  rowFinder,
  type SavedBars,
  type SavedLayout,
  type SavedNesting,
  type SavedOf,
  type SavedSheets,
  savedFor,
} from "../layout";
import type { NestingProblem } from "../layout/nesting";
import type { SheetProblem } from "../layout/sheets";
import { barOrderTable, type ListTable, shapePiecesTable, sheetOrderTable, styleOf } from "../lists";
import type { LengthStyle } from "../measure";
import { sayLength, saySizes } from "../measure";
import { isMetal, type SawEntry } from "../stockroom";
import type { Tally } from "../tally";
import { barDrawing } from "./bar-drawing";
import { type DrawItem, type Drawing, movedBy, type Tint } from "./display";
import { Flow, PAGE_SIZES, type PageHead, type PageSize, title } from "./flow";
import { listSection } from "./list-pages";
import { lyingPiece } from "./lying-piece";
import { nestingDrawing } from "./nesting-drawing";
import { type SheetDrawingSize, sheetDrawing } from "./sheet-drawing";
import { type DrawPiece, tableRows } from "./table-drawing";

/** What diagrams are made from. */
export type DiagramInput = PageHead & {
  readonly results: { readonly tasks: readonly LayoutTask[] };
  readonly saved: readonly SavedLayout[];
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
export function shopPapers(input: PrintInput, page: PageSize): readonly Drawing[] {
  const flow = new Flow(PAGE_SIZES[page]);
  const { results } = input;
  listSection(flow, results.cutList, results.tally);
  for (const [noun, heading] of [
    ["bar", "Bar layouts"],
    ["sheet", "Sheet layouts"],
  ] as const) {
    const tasks = results.tasks.filter((task) => layoutKind(task).noun === noun);
    if (tasks.length > 0) layoutSection(flow, heading, tasks, input);
  }
  listSection(flow, results.buyingList, results.tally);
  return flow.pages(input);
}

function layoutSection(flow: Flow, heading: string, tasks: readonly LayoutTask[], input: PrintInput): void {
  if (!flow.isFresh()) flow.newPage();
  flow.add(9, title(heading));
  for (const task of tasks) layoutBlock(flow, task, input);
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
export function layoutBlock(flow: Flow, task: LayoutTask, input: DiagramInput): void {
  const name = task.material ? `${task.name}, ${task.material}` : task.name;
  const found = savedFor(task, input.saved);
  if (!found) {
    flow.add(14, [
      line(name, 3, "strong", "ink"),
      line("No layout yet. Lay it out in the Layout stage.", 8, "text", "oxide"),
    ]);
    return;
  }
  const { saved, outdated } = found;
  const head: DrawItem[] = [line(name, 3, "strong", "ink"), line(layoutFacts(saved), 7.6)];
  if (outdated)
    head.push(
      line(
        `OUTDATED (made from revision ${saved.revision}): ${outdatedWords(outdated)}. Do not cut from it.`,
        12,
        "strong",
        "oxide",
      ),
    );
  const style = styleOf(input.info);
  const rowOf = rowFinder(input.results.tasks, saved.taskId);
  const ground = { flow, rowOf, style, tint: tintOfTask(task), saws: input.saws };
  const first = blocksOf(saved, ground);
  const headHeight = outdated ? 16 : 12;
  if (headHeight + (first[0]?.height ?? 0) > flow.room && !flow.isFresh()) flow.newPage();
  flow.add(headHeight, head);
  for (const block of first) flow.add(block.height, block.items);
  for (const order of ordersOf(saved, ground)) orderBlock(flow, order.table, order.draw);
  for (const { index, qty, why, advice } of piecesWithoutPlace(saved)) {
    flow.add(5, [
      line(`Not placed: ${qty} × ${saved.pieces[index]?.mark ?? ""}: ${why}. ${advice}.`, 3, "text", "oxide"),
    ]);
  }
  flow.add(4, []);
}

type LayoutGround = {
  readonly flow: Flow;
  readonly rowOf: RowFinder;
  readonly style: LengthStyle;
  readonly tint: Tint;
  readonly saws: readonly SawEntry[];
};
type Order = { readonly table: ListTable; readonly draw: DrawPiece };

/** How the paper draws each kind of layout, and in which order its pieces are cut. */
type OnPaper<K extends LayoutKind> = {
  readonly blocks: (saved: SavedOf<K>, ground: LayoutGround) => readonly Block[];
  readonly orders: (saved: SavedOf<K>, ground: LayoutGround) => readonly Order[];
};
const NO_PICTURE: DrawPiece = () => [];

const ON_PAPER: { readonly [K in LayoutKind]: OnPaper<K> } = {
  bars: {
    blocks: barBlocks,
    orders: (saved, { rowOf, style, saws }) => [
      {
        table: barOrderTable(saved, rowOf, style, saws),
        draw: (row, width) => lyingPiece(saved, row.id, rowOf, { width: width - 2, depth: 3.4, line: 0.2 }),
      },
    ],
  },
  sheets: {
    blocks: (saved, ground) =>
      sheetBlocks(saved, ground, true, (i, size) =>
        sheetDrawing(
          {
            sheet: at(saved.layout.sheets, i),
            problem: saved.problem,
            pieces: saved.pieces,
            style: ground.style,
          },
          size,
        ),
      ),
    orders: (saved, { rowOf, style }) =>
      saved.layout.sheets.map((_, i) => ({
        table: sheetOrderTable(saved, i, style, rowOf),
        draw: NO_PICTURE,
      })),
  },
  shapes: {
    blocks: (saved, ground) => {
      const { problem, pieces } = saved;
      const { style, tint } = ground;
      const showsGrain = problem.shapes.some(({ grain }) => grain);
      return sheetBlocks(saved, ground, showsGrain, (i, size) =>
        nestingDrawing({ sheet: at(saved.layout.sheets, i), problem, pieces, style, tint }, size),
      );
    },
    orders: (saved, { style }) =>
      saved.layout.sheets.map((_, i) => ({ table: shapePiecesTable(saved, i, style), draw: NO_PICTURE })),
  },
};

const onPaper = (saved: SavedLayout) => forKind<OnPaper<LayoutKind>>(ON_PAPER, saved);
const blocksOf = (saved: SavedLayout, ground: LayoutGround) => onPaper(saved).blocks(saved, ground);
const ordersOf = (saved: SavedLayout, ground: LayoutGround) => onPaper(saved).orders(saved, ground);

/** The cutting order under the diagrams that it belongs to. */
function orderBlock(flow: Flow, table: ListTable, draw: DrawPiece): void {
  const drawn = tableRows(table, flow.width, draw);
  flow.add(6 + drawn.heading.height, [
    line(table.title, 3, "strong", "ink"),
    ...movedBy(drawn.heading.items, [0, 6]),
  ]);
  for (const row of drawn.rows) flow.add(row.height, row.items);
}

/** Number, proof and settings of a layout in one line. */
function layoutFacts(saved: SavedLayout): string {
  const { count, proven, lowerBound, lowerBoundOf } = saved.layout;
  const kind = layoutKind(saved);
  const bound =
    lowerBoundOf === "cost" ? `cost at least ${lowerBound.toFixed(2)}` : `at least ${lowerBound} to buy`;
  const proof = proven ? "proven best" : `not proven: ${bound}`;
  return `${counted(count, kind.noun)}, ${proof} · ${kind.settingWords(saved.problem).join(", ")}`;
}

type Block = { readonly height: number; readonly items: readonly DrawItem[] };

/** Scales of diagrams: the preferred ones of ISO 5455 and steps between them, as 1 to n. */
const SCALES = [1, 2, 5, 10, 15, 20, 25, 30, 40, 50, 75, 100, 150, 200, 500, 1000];

function scaleToFit(real: number, room: number): number {
  return SCALES.find((n) => real / n <= room) ?? real / room;
}

function barBlocks(saved: SavedBars, { flow, rowOf, style }: LayoutGround): readonly Block[] {
  const { problem, layout, pieces } = saved;
  const longest = Math.max(1, ...layout.bars.map((bar) => at(problem.stock, bar.stock).length));
  const ratio = scaleToFit(longest, flow.width);
  return layout.bars.map((bar, i) => {
    const stock = at(problem.stock, bar.stock);
    const items = barDrawing(
      { bar, problem, pieces, style, shownOf: (piece) => rowOf(piece)?.shown ?? null },
      { scale: 1 / ratio, depth: 6, line: 0.25, text: 3 },
    );
    const _times = timesWords(bar.times);
    const words = `Pattern ${i + 1}: ${bar.times} × bar ${sayLength(stock.length, style)} · lengths at scale 1:${ratio}`;
    return { height: 15, items: [line(words, 2.6), ...movedBy(items, [0, 5.5])] };
  });
}

const tintOfTask = ({ kind, entry }: LayoutTask): Tint =>
  kind === "shapes" && isMetal(entry) ? "steel" : "board";

type DrawSheet = (index: number, size: SheetDrawingSize) => readonly DrawItem[];

function sheetBlocks(
  { problem, layout }: SavedSheets | SavedNesting,
  { flow, style }: LayoutGround,
  showsGrain: boolean,
  draw: DrawSheet,
): readonly Block[] {
  return layout.sheets.map((sheet, i) => {
    const stock = at<NestingProblem["stock"][number] | SheetProblem["stock"][number]>(
      problem.stock,
      sheet.stock,
    );
    const ratio = Math.max(scaleToFit(stock.length, flow.width), scaleToFit(stock.width, flow.fullRoom - 30));
    const items = draw(i, { scale: 1 / ratio, line: 0.25, text: 3.2 });
    const grain = showsGrain && stock.grain ? `, grain along the ${stock.grain}` : "";
    const words = `Sheet ${i + 1}, ${saySizes([stock.length, stock.width], style)}${grain} · scale 1:${ratio}`;
    return {
      height: stock.width / ratio + 11,
      items: [line(words, 2.6), ...movedBy(items, [0, 5.5] satisfies Vec2)],
    };
  });
}
