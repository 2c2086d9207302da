/**
 * The shop papers: cut list with silhouettes, bar and sheet diagrams to a stated scale, buying list, on
 * pages of one size with a head that names the job, its revision and the page.
 */
import type { Vec2 } from "../geometry";
import type { JobInfo } from "../job";
import { at } from "../kernel";
import { type KeptLayout, keptFor, type LayoutTask } from "../layout";
import { type ListTable, styleOf } from "../lists";
import type { LengthStyle } from "../measure";
import type { Tally } from "../tally";
import { barDrawing } from "./bar-drawing";
import { type DrawItem, type Drawing, movedBy, type TextMeasure } from "./display";
import { sheetDrawing } from "./sheet-drawing";
import { silhouette, silhouetteLength } from "./silhouette";
import { tableRows } from "./table-drawing";

export const PAGE_SIZES = {
  a4: { name: "A4", width: 210, height: 297 },
  letter: { name: "Letter", width: 215.9, height: 279.4 },
} as const;
export type PageSize = keyof typeof PAGE_SIZES;

export type PrintInput = {
  readonly info: JobInfo;
  readonly revision: number;
  /** As it is to stand in the head. */
  readonly date: string;
  readonly variantName: string | null;
  readonly shop: string;
  readonly results: {
    readonly tally: Tally;
    readonly tasks: readonly LayoutTask[];
    readonly cutList: ListTable;
    readonly buyingList: ListTable;
  };
  readonly kept: readonly KeptLayout[];
};

const MARGIN = 14;
const HEAD = 20;
const FOOT = 10;

/** A4 and letter pages of a job, in millimetres. */
export function shopPapers(input: PrintInput, page: PageSize, measure: TextMeasure): readonly Drawing[] {
  const flow = new Flow(PAGE_SIZES[page], measure);
  const { results } = input;
  listSection(flow, results.cutList, results.tally, measure, true);
  for (const kind of ["bars", "sheets"] as const) {
    const tasks = results.tasks.filter((task) => task.kind === kind);
    if (tasks.length > 0)
      layoutSection(flow, kind === "bars" ? "Bar layouts" : "Sheet layouts", tasks, input, measure);
  }
  listSection(flow, results.buyingList, results.tally, measure, false);
  return flow.pages(input);
}

/** Puts blocks under one another and opens a new page when the next one has no room. */
class Flow {
  readonly width: number;
  private readonly page: { readonly width: number; readonly height: number; readonly name: string };
  private readonly measure: TextMeasure;
  private readonly done: DrawItem[][] = [[]];
  private y = MARGIN + HEAD;

  constructor(page: Flow["page"], measure: TextMeasure) {
    this.page = page;
    this.measure = measure;
    this.width = page.width - 2 * MARGIN;
  }

  get room(): number {
    return this.page.height - MARGIN - FOOT - this.y;
  }

  get fullRoom(): number {
    return this.page.height - 2 * MARGIN - HEAD - FOOT;
  }

  /** Adds items that take `height`; gives whether a new page was opened for them. */
  add(height: number, items: readonly DrawItem[]): boolean {
    const opens = height > this.room && this.y > MARGIN + HEAD;
    if (opens) this.newPage();
    at(this.done, this.done.length - 1).push(...movedBy(items, [MARGIN, this.y]));
    this.y += height;
    return opens;
  }

  newPage(): void {
    this.done.push([]);
    this.y = MARGIN + HEAD;
  }

  isFresh(): boolean {
    return this.y === MARGIN + HEAD;
  }

  pages(input: PrintInput): readonly Drawing[] {
    const { width, height } = this.page;
    return this.done.map((items, i) => ({
      width,
      height,
      items: [
        ...headItems(input, width, this.measure),
        ...items,
        ...footItems(input, this.page, i + 1, this.done.length),
      ],
    }));
  }
}

function headItems(
  { info, revision, date, variantName, shop }: PrintInput,
  width: number,
  measure: TextMeasure,
): readonly DrawItem[] {
  const y = MARGIN + 5;
  const codeWidth = measure(`${info.code}  `, 5.6, "slab");
  const facts = [
    `Revision ${revision}`,
    date,
    ...(info.batch > 1 ? [`batch of ${info.batch}`] : []),
    ...(variantName ? [variantName] : []),
  ].join(" · ");
  return [
    { kind: "text", at: [MARGIN, y], text: info.code, size: 5.6, face: "slab", align: "left", ink: "ink" },
    {
      kind: "text",
      at: [MARGIN + codeWidth, y],
      text: info.title,
      size: 5.6,
      face: "slab",
      align: "left",
      ink: "ink",
    },
    {
      kind: "text",
      at: [width - MARGIN, y - 1.6],
      text: shop,
      size: 3.2,
      face: "text",
      align: "right",
      ink: "soft",
    },
    {
      kind: "text",
      at: [width - MARGIN, y + 2.6],
      text: facts,
      size: 3.2,
      face: "text",
      align: "right",
      ink: "soft",
    },
    {
      kind: "line",
      from: [MARGIN, y + 6.5],
      to: [width - MARGIN, y + 6.5],
      stroke: { ink: "ink", width: 0.5 },
    },
  ];
}

function footItems(
  { info, revision }: PrintInput,
  page: { width: number; height: number; name: string },
  number: number,
  count: number,
): readonly DrawItem[] {
  const y = page.height - MARGIN + 2;
  const foot = (x: number, text: string, align: "left" | "right"): DrawItem => ({
    kind: "text",
    at: [x, y],
    text,
    size: 2.8,
    face: "text",
    align,
    ink: "soft",
  });
  return [
    foot(MARGIN, `${info.code} revision ${revision} · drawn from the design by Rustic Tally`, "left"),
    foot(page.width - MARGIN, `${page.name} · page ${number} of ${count}`, "right"),
  ];
}

const title = (text: string): readonly DrawItem[] => [
  { kind: "text", at: [0, 4], text, size: 4.6, face: "slab", align: "left", ink: "ink" },
];

function listSection(
  flow: Flow,
  table: ListTable,
  tally: Tally,
  measure: TextMeasure,
  silhouettes: boolean,
): void {
  if (!flow.isFresh()) flow.newPage();
  flow.add(9, title(table.title));
  const drawn = tableRows(table, flow.width, measure, silhouettes ? silhouetteColumn(tally) : null);
  flow.add(drawn.heading.height, drawn.heading.items);
  for (const row of drawn.rows) {
    if (row.height + (row.keepWithNext ?? 0) > flow.room && !flow.isFresh()) {
      flow.newPage();
      flow.add(drawn.heading.height, drawn.heading.items);
    }
    flow.add(row.height, row.items);
  }
}

/** The drawing of a row's piece for the cut list, to one scale for the whole list. */
function silhouetteColumn(tally: Tally): {
  readonly width: number;
  readonly draw: (id: string) => readonly DrawItem[];
} {
  const width = 30;
  const longest = Math.max(1, ...tally.rows.map((row) => silhouetteLength(row.shown)));
  const scale = (width - 2) / longest;
  const byId = new Map(tally.rows.map((row) => [row.id, row]));
  return {
    width,
    draw: (id) => {
      const row = byId.get(id);
      return row ? silhouette(row.shown, { scale, depth: 4, line: 0.2 }) : [];
    },
  };
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

function layoutBlock(flow: Flow, task: LayoutTask, input: PrintInput, measure: TextMeasure): void {
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
  const head: DrawItem[] = [line(name, 3, "strong", "ink"), line(layoutFacts(kept), 7.6)];
  if (stale)
    head.push(
      line(
        `STALE: made from revision ${kept.revision}; the design or its settings changed since. Do not cut from it.`,
        12,
        "strong",
        "oxide",
      ),
    );
  const style = styleOf(input.info);
  const first =
    kept.kind === "bars"
      ? barBlocks(flow, kept, input.results.tally, style, measure)
      : sheetBlocks(flow, kept, style, measure);
  const headHeight = stale ? 16 : 12;
  if (headHeight + (first[0]?.height ?? 0) > flow.room && !flow.isFresh()) flow.newPage();
  flow.add(headHeight, head);
  for (const block of first) flow.add(block.height, block.items);
  for (const one of kept.layout.unplaced) {
    const index = "piece" in one ? one.piece : one.panel;
    flow.add(5, [
      line(`Not placed: ${one.qty} × ${kept.pieces[index]?.mark ?? ""}: ${one.why}.`, 3, "text", "oxide"),
    ]);
  }
  flow.add(4, []);
}

/** Number, proof and settings of a layout in one line. */
export function layoutFacts(kept: KeptLayout): string {
  const { count, proven, lowerBound, lowerBoundOf } = kept.layout;
  const noun = kept.kind === "bars" ? (count === 1 ? "bar" : "bars") : count === 1 ? "sheet" : "sheets";
  const bound = lowerBoundOf === "cost" ? `cost at least ${lowerBound.toFixed(2)}` : `at least ${lowerBound}`;
  const proof = proven ? "proven best" : `not proven: ${bound}`;
  const settings =
    kept.kind === "bars"
      ? barSettings(kept.problem.trim)
      : `trim ${kept.problem.trim}, ${kept.problem.stages === null ? "any number of stages" : `${kept.problem.stages} stages`}`;
  return `${count} ${noun}, ${proof} · kerf ${kept.problem.kerf}, ${settings} (mm)`;
}

function barSettings(trim: number | { readonly start: number; readonly end: number }): string {
  const { start, end } = typeof trim === "number" ? { start: trim, end: trim } : trim;
  return start === end ? `trim ${start} each end` : `trim ${start} and ${end}`;
}

type Block = { readonly height: number; readonly items: readonly DrawItem[] };

/** Scales of diagrams: the preferred ones of ISO 5455 and steps between them, as 1 to n. */
const SCALES = [1, 2, 5, 10, 15, 20, 25, 30, 40, 50, 75, 100, 150, 200, 500, 1000];

export function scaleToFit(real: number, room: number): number {
  return SCALES.find((n) => real / n <= room) ?? real / room;
}

function barBlocks(
  flow: Flow,
  kept: Extract<KeptLayout, { kind: "bars" }>,
  tally: Tally,
  style: LengthStyle,
  measure: TextMeasure,
): readonly Block[] {
  const { problem, layout, pieces } = kept;
  const longest = Math.max(1, ...layout.bars.map((bar) => at(problem.stock, bar.stock).length));
  const ratio = scaleToFit(longest, flow.width);
  const byMark = new Map(tally.rows.map((row) => [row.mark, row.shown]));
  return layout.bars.map((bar, i) => {
    const stock = at(problem.stock, bar.stock);
    const items = barDrawing(
      { bar, problem, pieces, style, shownOf: (mark) => byMark.get(mark) ?? null },
      { scale: 1 / ratio, depth: 6, line: 0.25, text: 3, measure },
    );
    const times = bar.times === 1 ? "once" : `${bar.times} times`;
    const words = `Pattern ${i + 1}, ${times}, from ${stock.length} mm · lengths at scale 1:${ratio}`;
    return { height: 15, items: [line(words, 2.6), ...movedBy(items, [0, 5.5])] };
  });
}

function sheetBlocks(
  flow: Flow,
  kept: Extract<KeptLayout, { kind: "sheets" }>,
  style: LengthStyle,
  measure: TextMeasure,
): readonly Block[] {
  const { problem, layout, pieces } = kept;
  return layout.sheets.map((sheet, i) => {
    const stock = at(problem.stock, sheet.stock);
    const ratio = Math.max(scaleToFit(stock.length, flow.width), scaleToFit(stock.width, flow.fullRoom - 30));
    const items = sheetDrawing(
      { sheet, problem, pieces, style },
      { scale: 1 / ratio, line: 0.25, text: 3.2, measure },
    );
    const words = `Sheet ${i + 1}, ${stock.length} × ${stock.width} mm${stock.grain ? `, grain along the ${stock.grain}` : ""} · scale 1:${ratio}`;
    return {
      height: stock.width / ratio + 11,
      items: [line(words, 2.6), ...movedBy(items, [0, 5.5] satisfies Vec2)],
    };
  });
}
