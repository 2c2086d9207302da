/**
 * The whole set of pages of a job in one action: what its recipe asks for and no page has yet. They are ordinary pages; asked
 * again, what is there is left as it is and only what is missing comes.
 */
import { balloonRows, type DrawnPage, type DrawnView } from "../drawing";
import { type Job, type Page, type PageItem, pageStyle } from "../job";
import { type Problem, type Result, sentence } from "../kernel";
import type { SavedLayout } from "../layout";
import { asksOfPages, catchGrounds, createPageDrawing } from "../paper-set";
import { createPipeline, type Results } from "../pipeline";
import { itemsOfSizes, type ProposedSize } from "../placing";
import { createPlacings, type PlacingInputs } from "../placings";
import { createDocumentReceiver, type DocumentMessage } from "../sent-document";
import type { SetRecipe } from "../stockroom";
import type { TallyRow } from "../tally";
import { createViews } from "../views";
import { apartPage } from "./apart-page";
import { cover } from "./cover";
import { Drafts, editsOfSet, type Ids, orTooMany, type WholeSet, withSet } from "./drafts";
import { furtherContents, layoutPages, listPages, ownListPages } from "./list-pages";
import { cardPages, templatePages } from "./row-pages";
import { stepPages } from "./step-pages";
import { balloonsIn, seenRows, subjectsToDraw, viewPage } from "./view-pages";

export { editsOfSet, type WholeSet, withSet };

export type SetInputs = PlacingInputs & { readonly layouts: readonly SavedLayout[] };

/** With more a page cannot be read: what is not placed yet is told beside the pages. The sizes over all come first. */
const MOST_SIZES = 120;

/** Draws up what is missing of the set of a job; with a memory of its own. */
export function createSetDrawing(): (
  inputs: SetInputs,
  recipe: SetRecipe,
  ids: Ids,
  /** Hears how many pages there are, as they come. */
  tell?: (pages: number) => void,
) => Result<WholeSet, Problem> {
  const compute = createPipeline();
  const drawView = createViews();
  const drawPage = createPageDrawing();
  const placings = createPlacings();
  type Draw = ReturnType<typeof createSetDrawing>;
  const drawUp = (...[inputs, recipe, ids, tell]: Parameters<Draw>): WholeSet => {
    const { job, stockroom, assets, variant, layouts } = inputs;
    const results = compute(job, variant, stockroom, []);
    const head = { info: job.info.job, revision: 1, date: "", variantName: null, shop: "" };
    const set = new Drafts(job, results, recipe, ids, tell);
    const drawn = (page: Page, now: Job = set.job): DrawnPage => {
      const views = new Map<string, DrawnView>(
        asksOfPages(now, [page], variant, true).map((asked) => [
          asked.id,
          // Where things stand hangs on no tint.
          drawView({ job, stockroom, assets }, { ...asked, tints: "none" }),
        ]),
      );
      return drawPage(page, { job: now, results, stockroom, views, layouts, assets, head });
    };
    if (recipe.cover) cover(set, inputs);
    if (recipe.views)
      for (const subject of subjectsToDraw(set, job)) {
        // The same at every scale that is tried.
        let proposed: readonly ProposedSize[] | null = null;
        const made = viewPage(set, subject, inputs, (now, page, views) => {
          const start = drawn(page, now);
          const rows = seenRows(results, start, views.picture.id);
          const { without } = balloonRows(now, results);
          const balloons = !recipe.balloons
            ? []
            : [
                ...balloonsIn(start, views.picture.id, rows, ids),
                ...balloonsIn(
                  start,
                  views.main.id,
                  without.filter((row) => !rows.includes(row)),
                  ids,
                ),
              ];
          if (!recipe.sizes) return { items: balloons, draw: (then) => drawn(page, then) };
          proposed ??= placings.propose({ ...inputs, job: now }, page.id, null).slice(0, MOST_SIZES);
          const grounds = catchGrounds(start, { job: now, results, assets, variant });
          const sizes = itemsOfSizes(proposed, start, grounds, pageStyle(page, job), ids.item as () => never);
          return { items: [...balloons, ...sizes], draw: (then) => drawn(page, then) };
        });
        if (made) set.add([made.page], made.items);
      }
    if (recipe.apart) {
      const made = apartPage(set, inputs);
      if (made) {
        const now = drawn(made.page);
        const rows = seenRows(results, now, made.apart.id);
        set.add([], balloonsIn(now, made.apart.id, rows, ids));
      }
    }
    if (recipe.steps) stepPages(set, inputs, drawn);
    if (recipe.cards) cardPages(set, inputs);
    if (recipe.cutList) listPages(set, "cut", drawn);
    if (recipe.buyingList) listPages(set, "buying", drawn);
    ownListPages(set, drawn);
    if (recipe.layouts) layoutPages(set, layouts, drawn);
    if (recipe.templates) templatePages(set, inputs);
    if (recipe.cover) furtherContents(set, drawn);
    return set.made();
  };
  return (...asked) => orTooMany(() => drawUp(...asked));
}

/** Asks another thread for the set; ids begin with `prefix`, which nothing else begins with. */
export type WholeSetMessage = DocumentMessage &
  Pick<SetInputs, "variant" | "layouts"> & { readonly recipe: SetRecipe; readonly prefix: string };

/** What another thread says meanwhile, and at the end. */
export type WholeSetAnswer =
  | { readonly kind: "pages"; readonly count: number }
  | { readonly kind: "set"; readonly set: WholeSet }
  | { readonly kind: "refused"; readonly why: string };

/** Answers messages one after the other. Throws where the first does not say all. */
export function createSetAnswering(): (
  message: WholeSetMessage,
  say: (answer: WholeSetAnswer) => void,
) => void {
  const receive = createDocumentReceiver();
  const draw = createSetDrawing();
  return ({ variant, layouts, recipe, prefix, ...document }, say) => {
    let made = 0;
    const fresh = () => `${prefix}-${++made}`;
    const ids: Ids = { page: () => fresh() as Page["id"], item: () => fresh() as PageItem["id"] };
    const inputs = { ...receive(document), variant, layouts };
    const set = draw(inputs, recipe, ids, (count) => say({ kind: "pages", count }));
    say(set.ok ? { kind: "set", set: set.value } : { kind: "refused", why: sentence(set.problem) });
  };
}

/** Pages with cards of some rows that have none. */
export function cardsOfRows(
  inputs: Pick<SetInputs, "job" | "stockroom"> & { readonly results: Results },
  ids: Ids,
  isWanted: (row: TallyRow) => boolean,
): Result<WholeSet, Problem> {
  const { job, results, stockroom } = inputs;
  return orTooMany(() => {
    const set = new Drafts(job, results, stockroom.setRecipe, ids);
    cardPages(set, inputs, isWanted);
    return set.made();
  });
}
