/** The drawing pages of a job, drawn from its results: for the screen, for files and for the command line alike. */

import {
  type CatchGround,
  type Drawing,
  type DrawnPage,
  type DrawnView,
  drawPage,
  flatPage,
  type PageHead,
  SHEETS,
  scaleWords,
  type TabledList,
  viewsAsked,
} from "./drawing";
import {
  type Assets,
  itemsOfPage,
  type Job,
  type Page,
  type PageItem,
  pagesInOrder,
  type VariantId,
} from "./job";
import { addTo, remembersEach } from "./kernel";
import type { SavedLayout } from "./layout";
import { contentsTable, createLister, type Lists, type ListTable } from "./lists";
import { createPipeline, type Results } from "./pipeline";
import { findSteps, standingSteps } from "./steps";
import type { Stockroom } from "./stockroom";
import { createViews } from "./views";

export type PageInputs = {
  readonly job: Job;
  readonly results: Results;
  readonly stockroom: Stockroom;
  readonly views: ReadonlyMap<string, DrawnView>;
  readonly layouts: readonly SavedLayout[];
  readonly assets: Assets;
  readonly head: PageHead;
};

/** Draws pages with a memory of its own: lists whose design did not change are the same objects. */
export function createPageDrawing(): (page: Page, inputs: PageInputs) => DrawnPage {
  const listers = new Map<string, ReturnType<typeof createLister>>();
  const itemsByPage = remembersEach<Job["pageItems"], ReadonlyMap<string, readonly PageItem[]>>();
  /** Of views that are bound to a variant; each remembers what it computed last. */
  const contents = remembersEach<Job["pages"], ListTable>();
  const computing = new Map<string, ReturnType<typeof createPipeline>>();
  return (page, { job, results, stockroom, views, layouts, assets, head }) => {
    const inVariant = (variant: string) => {
      const compute = computing.get(variant) ?? createPipeline();
      computing.set(variant, compute);
      const bound = compute(job, variant as VariantId, stockroom, []);
      return { tally: bound.tally, lists: { job, stockroom, ...bound } };
    };
    const all = pagesInOrder(job);
    const { unit } = job.info.job;
    const items = itemsByPage(job.pageItems, [], () => grouped(Object.values(job.pageItems)));
    const lists: Lists = { job, stockroom, ...results };
    const tableOf = (list: TabledList): ListTable | null => {
      if (list.kind === "cut") return results.cutList;
      if (list.kind === "buying") return results.buyingList;
      if (list.kind === "pages")
        return contents(job.pages, [unit], () =>
          contentsTable(
            all.map(({ id, heading, paper, scale }) => ({
              id,
              heading,
              paper: SHEETS[paper].name,
              scale: scaleWords(scale, unit),
            })),
          ),
        );
      const setup = job.lists[list.list];
      if (!setup) return null;
      const lister = listers.get(setup.id) ?? createLister();
      listers.set(setup.id, lister);
      return lister(setup, lists);
    };
    return drawPage(page, {
      job,
      items: items.get(page.id) ?? [],
      views,
      tally: results.tally,
      lists,
      inVariant,
      tableOf,
      layouts: { results, saved: layouts, saws: stockroom.saws },
      assets,
      steps: standingSteps(job, results.shape),
      head,
      sheet: all.findIndex(({ id }) => id === page.id) + 1,
      sheets: all.length,
    });
  };
}

function grouped(items: readonly PageItem[]): ReadonlyMap<string, readonly PageItem[]> {
  const byPage = new Map<string, PageItem[]>();
  for (const item of items) addTo(byPage, item.page, item);
  return byPage;
}

/** What the views of some pages ask for; see `viewsAsked`. */
export function asksOfPages(job: Job, pages: readonly Page[], variant: VariantId | null, allParts = false) {
  const stepOf = findSteps(job);
  return pages.flatMap((page) => viewsAsked(page, itemsOfPage(job, page.id), variant, stepOf, allParts));
}

/** What sizes of the views of a drawn page are picked from, by view; a view of another variant than the one that is shown has none. */
export function catchGrounds(
  drawn: DrawnPage,
  {
    job,
    results: { shape },
    assets,
    variant,
  }: Pick<PageInputs, "job" | "results" | "assets"> & { readonly variant: VariantId | null },
): ReadonlyMap<string, CatchGround> {
  return new Map(
    asksOfPages(job, [drawn.page], variant).flatMap((asked): [string, CatchGround][] => {
      const ring = drawn.rings.get(asked.id);
      return ring && asked.variant === variant
        ? [[asked.id, { shape, asked, assets, drawn: ring.drawn, place: ring.place }]]
        : [];
    }),
  );
}

export type FileInputs = Omit<PageInputs, "views"> & { readonly variant: VariantId | null };

/** Draws pages for files, one after the other, their views here. */
export function createDrawnPages({ variant, ...inputs }: FileInputs): (page: Page) => DrawnPage {
  const { job, stockroom, assets } = inputs;
  const draw = createPageDrawing();
  const drawView = createViews();
  return (page) => {
    const views = new Map(
      asksOfPages(job, [page], variant).map((asked) => [
        asked.id,
        drawView({ job, stockroom, assets }, asked),
      ]),
    );
    return draw(page, { ...inputs, views });
  };
}

/** Draws pages as display lists for files, one after the other. */
function createFilePages(inputs: FileInputs): (page: Page) => Drawing {
  const draw = createDrawnPages(inputs);
  return (page) => flatPage(draw(page));
}

/** Pages as display lists for files, all at once. */
export const pagesForFile = (pages: readonly Page[], inputs: FileInputs): readonly Drawing[] =>
  pages.map(createFilePages(inputs));
