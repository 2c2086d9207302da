/** Balloons of the demo pages over small edits of the design: only those move that must. */
import { expect, it } from "vitest";
import type { DrawnView } from "@/core/drawing";
import { itemsOfPage, type Job, NO_ASSETS, type Page, pagesInOrder, withEdit } from "@/core/job";
import { asksOfPages, createPageDrawing } from "@/core/paper-set";
import { createPipeline } from "@/core/pipeline";
import { createViews } from "@/core/views";
import { drawnJob, STOCKROOM } from "./drawn-jobs.fixture";
import { noticeBoard } from "./notice-board";
import { pottingBench } from "./potting-bench";
import { seedPacketCabinet } from "./seed-packet-cabinet";
import { shelfBrackets } from "./shelf-brackets";

const compute = createPipeline();
const draw = createViews();

/** Where the balloons of a page come to stand, by their ids; faults are not looked at. */
function standing(job: Job, page: Page): ReadonlyMap<string, string> {
  const results = compute(job, null, STOCKROOM, []);
  const views = new Map<string, DrawnView>(
    asksOfPages(job, [page], null).map((asked) => [
      asked.id,
      draw({ job, stockroom: STOCKROOM, assets: NO_ASSETS }, { ...asked, tints: "none" }),
    ]),
  );
  const head = { info: job.info.job, revision: 1, date: "", variantName: null, shop: "" };
  const inputs = { job, results, stockroom: STOCKROOM, views, layouts: [], assets: NO_ASSETS, head };
  const { placed } = createPageDrawing()(page, inputs);
  return new Map(placed.flatMap(({ item, stands }) => (stands ? [[item.id, JSON.stringify(stands)]] : [])));
}

it("at most 3 of 100 move when a key size changes by one or by three per cent", () => {
  let [balloons, moved, edits] = [0, 0, 0];
  for (const start of [pottingBench(), seedPacketCabinet(), noticeBoard(), shelfBrackets()]) {
    const job = drawnJob(start);
    const page = pagesInOrder(job).find(({ id }) =>
      itemsOfPage(job, id).some(({ kind }) => kind === "balloon"),
    );
    if (!page) continue;
    const before = standing(job, page);
    // Those that follow from others move with them.
    const typed = Object.values(job.keySizes).filter(
      ({ measure, formula }) => measure === "length" && /^[\d.]+$/.test(formula),
    );
    for (const { id, formula } of typed.slice(0, 4)) {
      // One larger, the next one smaller.
      const by = edits % 2 === 0 ? 1.01 : 0.97;
      const next = withEdit(job, {
        kind: "setKeySize",
        id,
        formula: String(Math.round(Number(formula) * by)),
        variant: null,
      });
      if (!next.ok) continue;
      edits++;
      for (const [balloon, stands] of standing(next.value, page)) {
        balloons++;
        if (stands !== before.get(balloon)) moved++;
      }
    }
  }
  expect(edits).toBeGreaterThan(10);
  expect(balloons).toBeGreaterThan(100);
  expect(moved / balloons).toBeLessThanOrEqual(0.03);
});
