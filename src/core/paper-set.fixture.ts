/** A page of a small frame, and what stands on it, for tests of pages. */
import { type DrawnView, flatPage, newBalloons } from "./drawing";
import {
  type Assets,
  type Edit,
  itemsOfPage,
  type Job,
  NO_ASSETS,
  type Page,
  type PageItem,
  pagesInOrder,
  plainList,
  plainPage,
  plainView,
  withEdit,
} from "./job";
import { at, sentence } from "./kernel";
import type { SavedLayout } from "./layout";
import { asksOfPages, createPageDrawing } from "./paper-set";
import { resultsOf, STOCK, smallFrame } from "./pipeline.fixture";
import { createViews } from "./views";

export const PAGE: Page = plainPage({
  id: "p" as Page["id"],
  heading: "Frame",
  scale: 0.2,
});
export type Kind<K extends PageItem["kind"]> = Extract<PageItem, { kind: K }>;
export const view = (id: string, more: Partial<Kind<"view">> = {}): Kind<"view"> =>
  plainView({
    id: id as PageItem["id"],
    page: "p",
    at: [120, 90],
    from: { kind: "named", side: "frontLeft" },
    ...more,
  });
export const list = (more: Partial<Kind<"list">> = {}): Kind<"list"> =>
  plainList({
    id: "list" as PageItem["id"],
    page: "p",
    at: [410, 250],
    corner: "bottomRight",
    ...more,
  });
export const callout = (pattern: string): Kind<"callout"> => ({
  id: "call" as PageItem["id"],
  page: "p",
  kind: "callout",
  view: "v",
  piece: { record: "front", way: null, spot: null },
  pattern,
  at: [60, -50],
  letters: 3.5,
});

export function done(job: Job, ...edits: Edit[]): Job {
  return edits.reduce<Job>((one, edit) => {
    const next = withEdit(one, edit);
    if (!next.ok) throw new Error(sentence(next.problem));
    return next.value;
  }, job);
}
export const withItems = (job: Job, ...items: PageItem[]) => done(job, { kind: "setPageItems", items });
export const start = done(smallFrame(), { kind: "setPages", pages: [PAGE] });

export function drawn(
  job: Job,
  layouts: readonly SavedLayout[] = [],
  assets: Assets = NO_ASSETS,
  allParts = false,
  sheet: Page = at(pagesInOrder(job), 0),
) {
  const results = resultsOf(job);
  const draw = createViews();
  const views = new Map<string, DrawnView>(
    asksOfPages(job, [sheet], null, allParts).map((asked) => [
      asked.id,
      draw({ job, stockroom: STOCK, assets: NO_ASSETS }, asked),
    ]),
  );
  const head = {
    info: job.info.job,
    revision: 7,
    date: "2026-11-27",
    variantName: null,
    shop: "Hollow Lane Works",
  };
  const page = createPageDrawing()(sheet, {
    job,
    results,
    stockroom: STOCK,
    views,
    layouts,
    assets,
    head,
  });
  return { page, results };
}
export const placed = (job: Job, id: string) => {
  const found = drawn(job).page.placed.find(({ item }) => item.id === id);
  if (!found) throw new Error(`${id} is on the page`);
  return found;
};
export const textsOf = (job: Job) =>
  flatPage(drawn(job).page).items.flatMap((item) => (item.kind === "text" ? [item.text] : []));
export const faultOf = (job: Job, id: string) => placed(job, id).fault;

export function withBalloons(job: Job): Job {
  const { page, results } = drawn(job, [], NO_ASSETS, true);
  const ring = page.rings.get("v");
  if (!ring) throw new Error("the view is there");
  let count = 0;
  const there = itemsOfPage(job, "p").flatMap((item) => (item.kind === "balloon" ? [item] : []));
  const items = newBalloons(
    { page: "p", view: "v" },
    results.tally.rows,
    there,
    ring,
    () => `b${count++}` as never,
  );
  return withItems(job, ...items);
}

export const at3 = (record: string, place: string) => ({ record, way: null, place });
