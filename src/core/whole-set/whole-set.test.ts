/** The whole set of the demo jobs: nothing is missing, nothing stands outside its page, and what is there stays. */
import { describe, expect, it } from "vitest";
import { noticeBoard } from "../../../demo/notice-board";
import { pottingBench } from "../../../demo/potting-bench";
import { seedPacketCabinet } from "../../../demo/seed-packet-cabinet";
import { shelfBrackets } from "../../../demo/shelf-brackets";
import { demoStockroom } from "../../../demo/stockroom";
import { balloonRows, borderOf, type DrawnPage } from "../drawing";
import { type Job, NO_ASSETS, type PageItem, pagesInOrder, withEdit } from "../job";
import { at, sentence } from "../kernel";
import { asksOfPages, createPageDrawing } from "../paper-set";
import { createPipeline } from "../pipeline";
import { createPlacings } from "../placings";
import { type SetRecipe, stockroomOf, USUAL_SET } from "../stockroom";
import { createViews } from "../views";
import { createSetDrawing, type WholeSet, withSet } from ".";

const stockroom = stockroomOf(demoStockroom);
const JOBS: readonly (readonly [string, Job])[] = [
  ["potting bench", pottingBench()],
  ["notice board", noticeBoard()],
  ["shelf brackets", shelfBrackets()],
  ["seed-packet cabinet", seedPacketCabinet()],
];
const drawUp = createSetDrawing();

let next = 0;
function made(job: Job, recipe: SetRecipe = USUAL_SET): WholeSet {
  const ids = { page: () => `page${next++}` as never, item: () => `item${next++}` as never };
  return drawUp({ job, stockroom, assets: NO_ASSETS, variant: null, layouts: [] }, recipe, ids);
}

function fitted(job: Job, set: WholeSet): Job {
  const now = withSet(job, set);
  if (!now.ok) throw new Error(sentence(now.problem));
  return now.value;
}

function drawnPages(job: Job): readonly DrawnPage[] {
  const results = createPipeline()(job, null, stockroom, []);
  const [draw, drawView] = [createPageDrawing(), createViews()];
  const head = { info: job.info.job, revision: 1, date: "", variantName: null, shop: "" };
  return pagesInOrder(job).map((page) => {
    const views = new Map(
      asksOfPages(job, [page], null).map((asked) => [
        asked.id,
        drawView({ job, stockroom, assets: NO_ASSETS }, asked),
      ]),
    );
    return draw(page, { job, results, stockroom, views, layouts: [], assets: NO_ASSETS, head });
  });
}

describe.each(JOBS)("the whole set of the %s", (_, bare) => {
  const set = made(bare);
  const job = fitted(bare, set);
  const results = createPipeline()(job, null, stockroom, []);
  const pages = drawnPages(job);

  it("has a balloon for every row, and a card for every one that is made", () => {
    // What is inside of something is seen on the page of its assembly, or named nowhere: as many as a person would look for.
    const { all, without } = balloonRows(job, results);
    expect(without.length).toBeLessThanOrEqual(all.length / 4);
    const cards = set.items.flatMap((item) => (item.kind === "card" ? [item.record] : []));
    const carded = cards.map((record) => results.tally.rowOfPiece.get(record)?.id);
    const rows = results.tally.rows.filter(({ shown }) => shown.form.kind !== "none");
    expect([...carded].sort()).toEqual(rows.map(({ id }) => id).sort());
  });

  it("places every piece that a size on its pages could place", () => {
    const placings = createPlacings();
    const inputs = { job, stockroom, assets: NO_ASSETS, variant: null };
    const { count, confirmed } = placings.check(inputs);
    expect(count).toBeGreaterThan(0);
    expect(confirmed).toBe(true);
    for (const page of pagesInOrder(job)) expect(placings.propose(inputs, page.id, null)).toEqual([]);
  });

  it("says nothing in red, and keeps within the border of each page", () => {
    for (const { page, placed } of pages) {
      const border = borderOf(page);
      for (const {
        item,
        at: [x, y],
        box,
        fault,
      } of placed) {
        expect(fault, `${page.heading}: ${fault}`).toBeNull();
        const inside =
          x + box.x0 >= border.x0 - 1 &&
          x + box.x1 <= border.x1 + 1 &&
          y + box.y0 >= border.y0 - 1 &&
          y + box.y1 <= border.y1 + 1;
        expect(inside, `${page.heading}: ${item.kind} ${item.id}`).toBe(true);
      }
    }
  });

  it("asked again adds nothing; what was taken away comes again, and it alone", () => {
    const again = made(job);
    expect([again.pages.length, again.items.length]).toEqual([0, 0]);
    const card = at(
      set.items.filter((item) => item.kind === "card"),
      0,
    );
    const without = withEdit(job, { kind: "removePageItems", ids: [card.id] });
    if (!without.ok) throw new Error(sentence(without.problem));
    const more = made(without.value);
    expect(more.items.map(({ kind }) => kind)).toEqual(["card"]);
    expect(more.pages).toHaveLength(1);
  });
});

describe("the recipe of a shop", () => {
  it("says what belongs to the set", () => {
    const nothing = {
      ...USUAL_SET,
      cover: false,
      views: false,
      apart: false,
      steps: false,
      cards: false,
      templates: false,
    };
    const lists = made(pottingBench(), { ...nothing, layouts: false });
    expect(lists.items.map((item: PageItem) => (item.kind === "list" ? item.list.kind : item.kind))).toEqual([
      "cut",
      "buying",
    ]);
    const cards = made(pottingBench(), { ...nothing, cards: true, cutList: false, buyingList: false });
    expect(new Set(cards.items.map(({ kind }) => kind))).toEqual(new Set(["card"]));
    // On small paper there are more of them.
    const small = made(pottingBench(), {
      ...nothing,
      cards: true,
      cutList: false,
      buyingList: false,
      paper: "small",
    });
    expect(small.pages.length).toBeGreaterThan(cards.pages.length);
    expect(new Set(small.pages.map(({ paper }) => paper))).toEqual(new Set(["a4"]));
  });
});
