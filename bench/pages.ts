/** Drawing pages: placing balloons, drawing a page again, finding a view unchanged; beside the lines of the same view. */
import { pulledApart } from "@/core/apart";
import {
  balloonPlaces,
  type DrawnView,
  newBalloons,
  type RingGround,
  type ToPlace,
  viewFrom,
} from "@/core/drawing";
import type { Vec2 } from "@/core/geometry";
import {
  type Edit,
  type Job,
  NO_ASSETS,
  type Page,
  type PageItem,
  pagesInOrder,
  plainPage,
  plainView,
  type ViewItem,
  withEdit,
} from "@/core/job";
import { seededRandom } from "@/core/kernel";
import { asksOfPages, createPageDrawing, pagesForFile } from "@/core/paper-set";
import { createPipeline } from "@/core/pipeline";
import { changedShapes, placingOf, toldByDesign, verifyPlacing } from "@/core/placing";
import { shapeJob } from "@/core/shape";
import type { Stockroom } from "@/core/stockroom";
import { createViews } from "@/core/views";
import { createSetDrawing, withSet } from "@/core/whole-set";
import { pottingBench } from "../demo/potting-bench";
import { generatedJob, joinedJob } from "./generated";

type Run = (work: () => void) => number;

const PAGE: Page = plainPage({
  id: "p" as Page["id"],
  heading: "Bench",
  paper: "a1",
  scale: 1 / 50,
});
const VIEW: ViewItem = plainView({
  id: "v" as PageItem["id"],
  page: "p",
  at: [420, 280],
  from: { kind: "named", side: "frontLeft" },
  caption: "All",
});

/** As a view of 600 by 300 on paper, with lines in three directions and two things beside it. */
const MANY: RingGround = {
  box: { x0: -300, y0: -150, x1: 300, y1: 150 },
  edges: [0.5, Math.PI / 2, 2.6],
  blocked: [
    { x0: -450, y0: 180, x1: -320, y1: 260 },
    { x0: 330, y0: 170, x1: 480, y1: 260 },
  ],
  isFree: () => true,
};

function manyBalloons(count: number): readonly ToPlace[] {
  const random = seededRandom(7);
  const place = (): Vec2 => [600 * random.next() - 300, 300 * random.next() - 150];
  return Array.from({ length: count }, () => ({ stands: null, tips: Array.from({ length: 12 }, place) }));
}

export function pageTable(
  stockroom: Stockroom,
  timed: Run,
  median: (values: readonly number[]) => number,
): void {
  console.log("Drawing pages (median of 5); × the time for the lines of the view");
  const done = (job: Job, edit: Edit): Job => {
    const next = withEdit(job, edit);
    if (!next.ok) throw new Error("the edit is good");
    return next.value;
  };
  const start = done(generatedJob(300), { kind: "setPages", pages: [PAGE] });
  const job = done(start, { kind: "setPageItems", items: [VIEW] });
  const results = createPipeline()(job, null, stockroom, []);
  const head = { info: job.info.job, revision: 1, date: "", variantName: null, shop: "" };
  const inputs = { job, stockroom, assets: NO_ASSETS };
  const [asked] = asksOfPages(job, [PAGE], null, true);
  if (!asked) throw new Error("the view asks for lines");
  const five = (work: () => void) => median(Array.from({ length: 5 }, () => timed(work)));
  const plain = { ...asked, parts: false };
  const lines = five(() => void createViews()(inputs, plain));
  const row = (what: string, ms: number, aim: string) =>
    console.log(
      `  ${what.padEnd(52)}${ms.toFixed(1).padStart(8)} ms ${(ms / lines).toFixed(3).padStart(7)} ×   ${aim}`,
    );
  row("lines of an isometric view of 300, shape and all", lines, "");
  row(
    "with the places that leaders may point at",
    five(() => void createViews()(inputs, asked)),
    "",
  );
  const views = createViews();
  const view = views(inputs, asked);
  row(
    "the same view asked for again",
    five(() => void views(inputs, asked)),
    "",
  );
  const draw = createPageDrawing();
  const shown = (of: Job) =>
    draw(PAGE, {
      job: of,
      results,
      stockroom,
      views: new Map<string, DrawnView>([["v", view]]),
      layouts: [],
      assets: NO_ASSETS,
      head,
    });
  const ring = shown(job).rings.get("v");
  if (!ring) throw new Error("the view is there");
  const rows = results.tally.rows.slice(0, 100);
  let count = 0;
  const place = () =>
    newBalloons({ page: "p", view: "v" }, rows, [], ring, () => `b${count++}` as PageItem["id"]);
  const balloons = place();
  row(`${balloons.length} balloons placed`, five(place), "");
  const hundred = manyBalloons(100);
  row(
    "100 balloons with 12 places each placed",
    five(() => void balloonPlaces(hundred, MANY)),
    "(aim: 20 ms)",
  );
  const full = done(job, { kind: "setPageItems", items: [...balloons] });
  shown(full);
  let x = 400;
  const moved = () => done(full, { kind: "setPageItems", items: [{ ...VIEW, at: [x++, 280] }] });
  row(
    "the page drawn again after its view was moved",
    five(() => void shown(moved())),
    "(aim: 16 ms)",
  );
  const { shape } = results;
  const others = changedShapes({ job, variant: null, shape }, stockroom, () => shapeJob);
  const told = toldByDesign(job, shape, others, NO_ASSETS);
  const placing = () => placingOf(told, job, shape, null, NO_ASSETS);
  row(
    `relations of ${told[0]?.bodies.length} bodies read, at ${others.length + 1} sets of key sizes`,
    five(() => void toldByDesign(job, shape, others, NO_ASSETS)),
    "",
  );
  row(
    "which of them are placed",
    five(() => void placing()),
    "(aim: 50 ms)",
  );
  const homes = placing().homes;
  row(
    "the same solved a second way",
    five(() => {
      for (const home of homes) verifyPlacing(home);
    }),
    "",
  );
  for (const [size, aim] of [
    [300, "(aim: 1 s)"],
    [1_000, "(aim: 5 s)"],
  ] as const) {
    for (const [how, job] of [
      ["", generatedJob(size)],
      [" that are joined to one block", joinedJob(size)],
    ] as const) {
      const { shape: large } = createPipeline()(job, null, stockroom, []);
      row(
        `${size} pieces${how} pulled apart`,
        timed(() => void pulledApart(large, null, NO_ASSETS, viewFrom([-1, -1, 1]))),
        aim,
      );
    }
  }
  const bench = pottingBench();
  let made = 0;
  const ids = {
    page: () => `page${made++}` as Page["id"],
    item: () => `item${made++}` as PageItem["id"],
  };
  const all = { job: bench, stockroom, assets: NO_ASSETS, variant: null, layouts: [] };
  row(
    "the whole set of the demo bench drawn up and drawn",
    timed(() => {
      const drawn = createSetDrawing()(all, stockroom.setRecipe, ids);
      const set = drawn.ok ? withSet(bench, drawn.value) : drawn;
      if (!set.ok) throw new Error("the set is good");
      const results = createPipeline()(set.value, null, stockroom, []);
      pagesForFile(pagesInOrder(set.value), { ...all, job: set.value, results, head });
    }),
    "(aim: 10 s)",
  );
  console.log(`  memory of this process after it: ${Math.round(process.memoryUsage().rss / 1e6)} MB`);
}
