/** A set of pages as it grows. */

import {
  type Job,
  MOST_PAGES,
  type Page,
  type PageEdit,
  type PageItem,
  type Paper,
  pagesInOrder,
  plainPage,
  tooManyPages,
  type ViewItem,
  withEdit,
} from "../job";
import { BrokenInvariant, ok, type Problem, type Result, sentence } from "../kernel";
import type { Results } from "../pipeline";
import type { SetRecipe } from "../stockroom";

/** What comes to a job: all in one step back. */
export type WholeSet = {
  readonly pages: readonly Page[];
  readonly items: readonly PageItem[];
  /** Lists that the recipe names and the job does not have. */
  readonly lacking: readonly string[];
};

export type Ids = { readonly page: () => Page["id"]; readonly item: () => PageItem["id"] };

/** The edits that add what comes to a job. */
export function editsOfSet({ pages, items }: Pick<WholeSet, "pages" | "items">): readonly PageEdit[] {
  const edits: PageEdit[] = [];
  if (pages.length > 0) edits.push({ kind: "setPages", pages: [...pages] });
  if (items.length > 0) edits.push({ kind: "setPageItems", items: [...items] });
  return edits;
}

/** A document with some pages and items more; the problem says why they do not fit. */
export function withSet(job: Job, set: Pick<WholeSet, "pages" | "items">): Result<Job, Problem> {
  let now = job;
  for (const edit of editsOfSet(set)) {
    const next = withEdit(now, edit);
    if (!next.ok) return next;
    now = next.value;
  }
  return ok(now);
}

/** The same with a page that is made here, which fits the laws of the document. */
export function withPage(job: Job, page: Page | null, items: readonly PageItem[]): Job {
  const made = withSet(job, { pages: page ? [page] : [], items });
  if (!made.ok) throw new BrokenInvariant(`the set cannot be drawn up: ${sentence(made.problem)}`);
  return made.value;
}

const PAPERS_OF: Readonly<Record<SetRecipe["paper"], readonly [Paper, Paper]>> = {
  small: ["a4", "letter"],
  medium: ["a3", "tabloid"],
  large: ["a2", "ansiC"],
};

/** Ends the drawing up of a set that no job has room for; see `orTooMany`. */
class TooManyPages extends Error {}

/** What is drawn up, or why it has no room in a job. */
export function orTooMany<T>(work: () => T): Result<T, Problem> {
  try {
    return ok(work());
  } catch (thrown) {
    if (!(thrown instanceof TooManyPages)) throw thrown;
    return tooManyPages("choose less for the set");
  }
}

/** The set as it grows: each page stands after those before it. */
export class Drafts {
  job: Job;
  readonly results: Results;
  readonly recipe: SetRecipe;
  readonly ids: Ids;
  private readonly pages: Page[] = [];
  private readonly items: PageItem[] = [];
  private readonly lacking: string[] = [];
  private readonly tell: (pages: number) => void;
  private position: number;

  /** `tell` hears of each page that is there. */
  constructor(
    job: Job,
    results: Results,
    recipe: SetRecipe,
    ids: Ids,
    tell: (pages: number) => void = () => undefined,
  ) {
    this.tell = tell;
    this.job = job;
    this.results = results;
    this.recipe = recipe;
    this.ids = ids;
    this.position = pagesInOrder(job).at(-1)?.position ?? 0;
  }

  get isInch(): boolean {
    const { unit } = this.job.info.job;
    return unit === "in" || unit === "ft";
  }

  paper(): Paper {
    const [metric, inch] = PAPERS_OF[this.recipe.paper];
    return this.isInch ? inch : metric;
  }

  /** So many columns of lists or cards stand side by side on a page. */
  columns(): number {
    return { small: 1, medium: 2, large: 3 }[this.recipe.paper];
  }

  /** A list is named that the job does not have. */
  lacks(list: string): void {
    this.lacking.push(list);
  }

  /** A page as this set has them, at the end of it. */
  page(heading: string, more: Partial<Page> = {}): Page {
    this.position++;
    return plainPage({
      id: this.ids.page(),
      heading: heading.slice(0, 80),
      paper: this.paper(),
      lying: true,
      projection: this.isInch ? "third" : "first",
      position: this.position,
      ...more,
    });
  }

  /** What stands on the pages, of one kind, with what comes. */
  all<K extends PageItem["kind"]>(kind: K): readonly Extract<PageItem, { kind: K }>[] {
    return Object.values(this.job.pageItems).filter(
      (item): item is Extract<PageItem, { kind: K }> => item.kind === kind,
    );
  }

  add(pages: readonly Page[], items: readonly PageItem[]): void {
    const count = new Set([...Object.keys(this.job.pages), ...pages.map(({ id }) => id)]).size;
    if (count > MOST_PAGES) throw new TooManyPages();
    this.job = withPage(
      pages.reduce((job, page) => withPage(job, page, []), this.job),
      null,
      items,
    );
    this.pages.push(...pages);
    this.items.push(...items);
    if (pages.length > 0) this.tell(new Set(this.pages.map(({ id }) => id)).size);
  }

  /** The document as it would be with an item more. */
  trial(page: Page | null, item: PageItem): Job {
    return withPage(this.job, page, [item]);
  }

  made(): WholeSet {
    // A page that was named anew is the last of its kind.
    const pages = [...new Map(this.pages.map((page) => [page.id, page])).values()];
    return { pages, items: this.items, lacking: this.lacking };
  }
}

/** mm on paper, between what stands side by side on a page. */
export const GAP = 4;
export const ISOMETRIC: ViewItem["from"] = { kind: "named", side: "frontLeft" };
