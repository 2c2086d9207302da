/** The whole set of the demo jobs: nothing is missing, nothing stands outside its page, and what is there stays. */
import { describe, expect, it } from "vitest";
import { noticeBoard } from "../../../demo/notice-board";
import { pottingBench } from "../../../demo/potting-bench";
import { seedPacketCabinet } from "../../../demo/seed-packet-cabinet";
import { shelfBrackets } from "../../../demo/shelf-brackets";
import { demoStockroom } from "../../../demo/stockroom";
import { balloonRows, borderOf, type DrawnPage } from "../drawing";
import { type Job, NO_ASSETS, type PageItem, pagesInOrder, plainPage, withEdit } from "../job";
import { at, sentence } from "../kernel";
import { sawFor } from "../layout";
import { LIST_STARTS, startList } from "../lists";
import { asksOfPages, createPageDrawing } from "../paper-set";
import { createPipeline } from "../pipeline";
import { createPlacings } from "../placings";
import { type SetRecipe, STEPS_ALONE, stockroomOf, USUAL_SET } from "../stockroom";
import type { TallyRow } from "../tally";
import { createViews } from "../views";
import {
  cardsOfRows,
  createSetAnswering,
  createSetDrawing,
  type WholeSet,
  type WholeSetAnswer,
  withSet,
} from ".";

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
  const set = drawUp({ job, stockroom, assets: NO_ASSETS, variant: null, layouts: [] }, recipe, ids);
  if (!set.ok) throw new Error(sentence(set.problem));
  return set.value;
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

it("the list of many pages goes on behind the cover, each page in it once, and grows on when pages come", () => {
  const blank = (from: number, count: number) =>
    Array.from({ length: count }, (_, i) =>
      plainPage({ id: `blank${from + i}` as never, heading: `Blank ${from + i}`, position: from + i }),
    );
  const withBlank = (job: Job, from: number, count: number): Job => {
    const after = withEdit(job, { kind: "setPages", pages: blank(from, count) });
    if (!after.ok) throw new Error(sentence(after.problem));
    return after.value;
  };
  const alone: SetRecipe = { ...STEPS_ALONE, steps: false, cover: true };
  const listed = (job: Job) =>
    drawnPages(job).flatMap(({ placed }) =>
      placed.flatMap(({ fault, items }) => {
        expect(fault).toBeNull();
        return items.flatMap((item) => (item.kind === "text" ? [item.text] : []));
      }),
    );
  const expectAll = (job: Job) => {
    const texts = listed(job).filter((text) => text.startsWith("Blank "));
    const headings = Object.values(job.pages).map(({ heading }) => heading);
    expect([...texts].sort()).toEqual(headings.filter((one) => one.startsWith("Blank ")).sort());
  };
  const bare = withBlank(shelfBrackets(), 0, 110);
  const job = fitted(bare, made(bare, alone));
  expect(
    pagesInOrder(job)
      .slice(0, 3)
      .map(({ heading }) => heading),
  ).toEqual(["Cover", "Contents, continued", expect.stringMatching(/^(Contents|Blank)/)]);
  expectAll(job);
  const more = withBlank(job, 1_000, 120);
  const again = made(more, alone);
  expect(again.pages.length).toBeGreaterThan(0);
  expectAll(fitted(more, again));
});

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
        expect(fault, page.heading).toBeNull();
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

const NOTHING: SetRecipe = {
  ...USUAL_SET,
  cover: false,
  views: false,
  apart: false,
  steps: false,
  cards: false,
  templates: false,
  cutList: false,
  buyingList: false,
  layouts: false,
};

describe("the recipe of a shop", () => {
  it("says what belongs to the set", () => {
    const lists = made(pottingBench(), { ...NOTHING, cutList: true, buyingList: true });
    expect(lists.items.map((item: PageItem) => (item.kind === "list" ? item.list.kind : item.kind))).toEqual([
      "cut",
      "buying",
    ]);
    const cards = made(pottingBench(), { ...NOTHING, cards: true });
    expect(new Set(cards.items.map(({ kind }) => kind))).toEqual(new Set(["card"]));
    // On small paper there are more of them.
    const small = made(pottingBench(), { ...NOTHING, cards: true, paper: "small" });
    expect(small.pages.length).toBeGreaterThan(cards.pages.length);
    expect(new Set(small.pages.map(({ paper }) => paper))).toEqual(new Set(["a4"]));
    const large = made(pottingBench(), { ...NOTHING, cards: true, paper: "large" });
    expect(large.pages.length).toBeLessThan(cards.pages.length);
  });

  it("names lists of the job's own; one that the job lacks is told, and the rest is drawn up", () => {
    const [, start] = LIST_STARTS;
    if (!start) throw new Error("there is one");
    const edit = withEdit(pottingBench(), { kind: "setList", list: startList(start, "own", "To buy", 0) });
    if (!edit.ok) throw new Error("the list is fine");
    const set = made(edit.value, { ...NOTHING, lists: ["to BUY", "Glass"] });
    expect(set.lacking).toEqual(["Glass"]);
    expect(set.items.map((item) => item.kind === "list" && item.list)).toEqual([
      { kind: "own", list: "own" },
    ]);
    expect(made(fitted(edit.value, set), { ...NOTHING, lists: ["To buy"] }).items).toEqual([]);
  });

  it("keeps views at or below a scale, and leaves sizes and balloons away where it says so", () => {
    const recipe: SetRecipe = { ...NOTHING, views: true, sizes: false, balloons: false };
    const free = made(shelfBrackets(), recipe);
    expect(new Set(free.items.map(({ kind }) => kind))).toEqual(new Set(["view"]));
    const [page] = free.pages;
    const half = made(shelfBrackets(), { ...recipe, scale: (page?.scale ?? 1) / 2 });
    expect(half.pages[0]?.scale).toBeLessThanOrEqual((page?.scale ?? 1) / 2);
    const withAll = made(shelfBrackets(), { ...NOTHING, views: true });
    expect(new Set(withAll.items.map(({ kind }) => kind))).toEqual(new Set(["view", "balloon", "size"]));
  });
});

it("pages of cards come for some rows alone: those of a saw", () => {
  const job = pottingBench();
  const results = createPipeline()(job, null, stockroom, []);
  const ids = { page: () => `page${next++}` as never, item: () => `item${next++}` as never };
  const [saw] = stockroom.saws;
  if (!saw) throw new Error("the shop has a saw");
  const isOfSaw = ({ shown: { form } }: TallyRow) =>
    form.kind === "member" && sawFor(stockroom.saws, form).saw?.id === saw.id;
  const cards = (now: Job): WholeSet => {
    const made = cardsOfRows({ job: now, stockroom, results }, ids, isOfSaw);
    if (!made.ok) throw new Error(sentence(made.problem));
    return made.value;
  };
  const set = cards(job);
  const rows = set.items.map((item) => item.kind === "card" && results.tally.rowOfPiece.get(item.record));
  expect(rows).toEqual(results.tally.rows.filter(isOfSaw));
  expect(rows.length).toBeGreaterThan(2);
  expect(cards(fitted(job, set)).items).toEqual([]);
});

it("a set that no job has room for is refused whole, with a sentence", () => {
  const pages = Array.from({ length: 1_999 }, (_, i) =>
    plainPage({ id: `blank${i}` as never, heading: `Blank ${i}`, position: i }),
  );
  const full = withEdit(shelfBrackets(), { kind: "setPages", pages });
  if (!full.ok) throw new Error(sentence(full.problem));
  const ids = { page: () => `page${next++}` as never, item: () => `item${next++}` as never };
  const inputs = { job: full.value, stockroom, assets: NO_ASSETS, variant: null, layouts: [] };
  const set = drawUp(inputs, { ...USUAL_SET, views: false, apart: false, steps: false }, ids);
  expect(set.ok ? "" : sentence(set.problem)).toBe("A job has at most 2000 pages; choose less for the set.");
});

it("another thread says how many pages there are, as they come, and then the set", () => {
  const said: WholeSetAnswer[] = [];
  createSetAnswering()(
    {
      job: shelfBrackets(),
      stockroom,
      assets: NO_ASSETS,
      variant: null,
      layouts: [],
      recipe: { ...NOTHING, cards: true, cutList: true, buyingList: true },
      prefix: "set",
    },
    (answer) => said.push(answer),
  );
  const counts = said.flatMap((one) => (one.kind === "pages" ? [one.count] : []));
  const last = said.at(-1);
  expect(counts).toEqual([...counts].sort((a, b) => a - b));
  expect(last?.kind === "set" && last.set.pages.length).toBe(counts.at(-1));
});
