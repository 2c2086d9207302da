/** Drawing pages of the demo jobs: a general view with balloons and list, views in line, and an assembly or a piece. */
import { newBalloons } from "@/core/drawing";
import {
  type Edit,
  type Job,
  NO_ASSETS,
  type Page,
  type PageItem,
  pageStyle,
  plainPage,
  plainView,
  type ViewItem,
  withEdit,
} from "@/core/job";
import { at, sentence } from "@/core/kernel";
import { asksOfPages, catchGrounds, createPageDrawing } from "@/core/paper-set";
import { createPipeline } from "@/core/pipeline";
import { itemsOfSizes } from "@/core/placing";
import { createPlacings } from "@/core/placings";
import type { Stockroom } from "@/core/stockroom";
import { createViews } from "@/core/views";

type ViewPlan = Partial<Pick<ViewItem, "at" | "of" | "from" | "scale" | "look" | "hidden" | "cut">> & {
  readonly caption?: string;
};
type PagePlan = Partial<Page> & {
  readonly heading: string;
  readonly scale: number;
  /** By their names; a balloon for each row that is seen in the first one, if wished. */
  readonly views: Readonly<Record<string, ViewPlan>>;
  readonly balloons?: boolean;
  /** With the sizes that it needs. */
  readonly sizes?: boolean;
  readonly items?: readonly Item[];
};
type Item = PageItem extends infer I ? (I extends PageItem ? Omit<I, "id" | "page"> : never) : never;

const cutList = (place: readonly [number, number], width: number): Item => ({
  kind: "list",
  at: [...place],
  list: { kind: "cut" },
  corner: "bottomRight",
  width,
  height: null,
  columns: null,
  silhouettes: false,
  columnWidths: {},
  rowHeight: null,
});
const note = (place: readonly [number, number], text: string): Item => ({
  kind: "note",
  at: [...place],
  text,
  letters: 3.5,
  width: null,
  strong: false,
});
const beside = (of: string, side: "left" | "right" | "above" | "below", gap = 30): ViewItem["from"] => ({
  kind: "follower",
  of,
  side,
  gap,
});
/** What carries the shelf of the bench, and its slats. */
const SHELF = [
  ...["lowFront", "lowBack", "lowLeft", "lowRight", "shelfLeft", "shelfRight"],
  ...["slat1", "slat2", "slat3", "slat4", "slat5"],
];
/** A size of the lug of a bracket, in its view from the front. */
const ofLug = (measure: "radius" | "diameter", place: string): Item => ({
  kind: "size",
  view: "item-1-front",
  measure,
  from: { record: "lug", way: null, place: `${place}, middle on the other face` },
  to: null,
  between: [],
  side: "own",
  out: 8,
  typed: null,
  brackets: false,
});
const isometric = { kind: "named", side: "frontLeft" } as const;
const front = { kind: "named", side: "front" } as const;

const PLANS: Readonly<Record<string, readonly PagePlan[]>> = {
  "HL-204": [
    {
      heading: "General view",
      scale: 0.1,
      views: {
        whole: { at: [125, 130], from: isometric, look: "tints", caption: "Potting bench" },
        drawer: {
          at: [185, 251],
          of: { kind: "assembly", assembly: "drawer" as never },
          from: { kind: "typed", towards: [-1, -1, -1] },
          caption: "Drawer, from below",
        },
      },
      balloons: true,
      items: [cutList([410, 248], 172), note([26, 272], "All welds 3 mm fillet, ground flush where seen.")],
    },
    {
      heading: "Frame, three views",
      paper: "a2",
      scale: 0.1,
      views: {
        front: { at: [180, 135], from: front, look: "hidden", caption: "Front" },
        side: { from: beside("front", "right", 90) },
        plan: { from: beside("front", "below", 80), caption: "From above" },
        drawer: {
          at: [480, 130],
          of: { kind: "assembly", assembly: "drawer" as never },
          from: front,
          scale: 0.2,
          caption: "Drawer, front",
        },
        shelf: {
          at: [500, 275],
          of: { kind: "pieces", records: SHELF },
          from: { kind: "named", side: "top" },
          caption: "Shelf, from above",
        },
      },
      sizes: true,
      items: [note([400, 330], "Hidden edges are dashed.\nLengths and end angles: see the cut list.")],
    },
  ],
  "HL-207": [
    {
      heading: "General view",
      scale: 0.1,
      views: {
        whole: {
          at: [120, 140],
          from: { kind: "named", side: "frontRight" },
          look: "tints",
          caption: "Seed-packet cabinet",
        },
        behind: {
          at: [190, 248],
          from: { kind: "named", side: "backLeft" },
          scale: 0.05,
          caption: "From behind",
        },
        drawer: {
          at: [70, 262],
          of: { kind: "assembly", assembly: "drawer" as never },
          from: isometric,
          scale: 0.1,
          caption: "Drawer",
        },
      },
      balloons: true,
      items: [cutList([410, 248], 176)],
    },
    {
      heading: "Cabinet, three views",
      paper: "a2",
      scale: 0.1,
      views: {
        front: { at: [150, 130], from: front, look: "hidden", caption: "Front" },
        side: {
          from: beside("front", "right", 80),
          cut: { axis: "width", at: "width / 2", letter: "A" },
          caption: "cut in the middle",
        },
        plan: { from: beside("front", "below", 80), caption: "From above" },
        row: {
          at: [170, 352],
          of: { kind: "assembly", assembly: "row" as never },
          from: front,
          scale: 0.2,
          caption: "Row of drawers, front",
        },
        rowSide: {
          of: { kind: "assembly", assembly: "row" as never },
          from: beside("row", "right", 50),
        },
        door: {
          at: [430, 110],
          of: { kind: "assembly", assembly: "door" as never },
          from: front,
          scale: 0.1,
          caption: "Door, front",
        },
        drawer: {
          at: [520, 110],
          of: { kind: "assembly", assembly: "drawer" as never },
          from: front,
          scale: 0.2,
          caption: "Drawer, front",
        },
        drawerWhole: {
          at: [500, 230],
          of: { kind: "assembly", assembly: "drawer" as never },
          from: isometric,
          scale: 0.2,
          caption: "Drawer",
        },
      },
      sizes: true,
    },
  ],
  "HL-211": [
    {
      heading: "General view",
      paper: "tabloid",
      projection: "third",
      scale: 1 / 16,
      views: { whole: { at: [125, 135], from: isometric, look: "tints", caption: "Notice board" } },
      balloons: true,
      items: [cutList([421, 232], 178)],
    },
    {
      heading: "Board, three views",
      paper: "tabloid",
      projection: "third",
      scale: 1 / 24,
      views: {
        front: { at: [130, 165], from: front, look: "hidden", caption: "Front" },
        side: { from: beside("front", "right", 60), look: "hidden" },
        plan: { from: beside("front", "above", 52), caption: "From above" },
      },
      sizes: true,
    },
  ],
  "HL-214": [
    {
      heading: "Bracket",
      scale: 0.2,
      views: {
        whole: { at: [85, 92], from: isometric, caption: "Bracket" },
        front: { at: [255, 92], from: front, look: "hidden", caption: "Front" },
        side: { from: beside("front", "left", 50) },
      },
      sizes: true,
      balloons: true,
      items: [cutList([410, 248], 178), ofLug("radius", "rounding c3"), ofLug("diameter", "hole lug-hole")],
    },
  ],
};

const item = (n: string) => `item-${n}` as PageItem["id"];

/** A demo job with its pages; a job that has no plan as it is. */
export function withPages(start: Job, stockroom: Stockroom): Job {
  let job = start;
  const memory = withMemory();
  const edit = (one: Edit) => {
    const next = withEdit(job, one);
    if (!next.ok) throw new Error(sentence(next.problem));
    job = next.value;
  };
  for (const [number, plan] of (PLANS[job.info.job.code] ?? []).entries()) {
    const { views, balloons, sizes, items = [], ...more } = plan;
    const page = plainPage({ id: `page-${number + 1}` as Page["id"], position: number, ...more });
    const idOf = (name: string) => item(`${number + 1}-${name}`);
    edit({ kind: "setPages", pages: [page] });
    edit({
      kind: "setPageItems",
      items: [
        ...Object.entries(views).map(
          ([name, { from = front, caption, ...view }]): PageItem =>
            plainView({
              id: idOf(name),
              page: page.id,
              caption: caption ?? null,
              ...view,
              from: from.kind === "follower" ? { ...from, of: idOf(from.of) } : from,
            }),
        ),
        ...items.map((one, i): PageItem => ({ ...one, id: idOf(`item-${i + 1}`), page: page.id })),
      ],
    });
    if (sizes) edit({ kind: "setPageItems", items: sizesOf(job, stockroom, page, memory) });
    if (balloons) edit({ kind: "setPageItems", items: balloonsOf(job, stockroom, page, memory) });
  }
  return job;
}

/** What draws and computes with a memory: what stands as it did is not made anew. */
const withMemory = () => ({ compute: createPipeline(), draw: createViews(), placings: createPlacings() });
type Memory = ReturnType<typeof withMemory>;

/** What a page shows now, so that what is placed by it finds its place. */
function drawnPage(job: Job, stockroom: Stockroom, page: Page, memory: Memory) {
  const { compute, draw } = memory;
  const results = compute(job, null, stockroom, []);
  const asked = asksOfPages(job, [page], null, true);
  const views = new Map(asked.map((one) => [one.id, draw({ job, stockroom, assets: NO_ASSETS }, one)]));
  const head = { info: job.info.job, revision: 1, date: "", variantName: null, shop: "" };
  const drawn = createPageDrawing()(page, {
    job,
    results,
    stockroom,
    views,
    layouts: [],
    assets: NO_ASSETS,
    head,
  });
  return { results, asked, drawn };
}

/** The sizes that a page needs. */
function sizesOf(job: Job, stockroom: Stockroom, page: Page, memory: Memory): PageItem[] {
  const { results, drawn } = drawnPage(job, stockroom, page, memory);
  const inputs = { job, results, stockroom, assets: NO_ASSETS, variant: null };
  const proposed = memory.placings.propose(inputs, page.id, null);
  let count = 0;
  const newId = () => item(`${page.id}-size-${++count}`);
  return [...itemsOfSizes(proposed, drawn, catchGrounds(drawn, inputs), pageStyle(page, job), newId)];
}

/** A balloon for each row, in the first view in which it is seen. */
function balloonsOf(job: Job, stockroom: Stockroom, page: Page, memory: Memory): PageItem[] {
  const { results, asked, drawn } = drawnPage(job, stockroom, page, memory);
  let rows = results.tally.rows.filter(({ mark }) => mark !== "");
  let count = 0;
  return asked.flatMap(({ id }) => {
    const ring = drawn.rings.get(id);
    if (!ring) return [];
    const made = newBalloons({ page: page.id, view: id }, rows, [], ring, () =>
      item(`${page.id}-balloon-${++count}`),
    );
    const named = new Set(made.map(({ pieces }) => results.tally.rowOfPiece.get(at(pieces, 0).record)?.id));
    rows = rows.filter(({ id: row }) => !named.has(row));
    return [...made];
  });
}
