/** Edits of pages and of what stands on them. What belongs to a view, or follows it, goes with it. */
import * as v from "valibot";
import { ok, type Problem, type Result, unreachable } from "../kernel";
import type { Job } from "./job";
import { type Page, PageSchema } from "./page";
import { type PageItem, PageItemSchema, viewOf } from "./page-item";
import { missing, put, refused, removeAll } from "./records";
import { recordId } from "./text";

/** Pages of one job. */
export const MOST_PAGES = 2_000;
const MOST_ITEMS = 20_000;

export const PAGE_EDITS = [
  /** New pages, or others in the place of pages that are there. */
  v.object({ kind: v.literal("setPages"), pages: v.pipe(v.array(PageSchema), v.minLength(1)) }),
  v.object({ kind: v.literal("removePages"), ids: v.pipe(v.array(recordId), v.minLength(1)) }),
  v.object({
    kind: v.literal("setPageItems"),
    items: v.pipe(v.array(PageItemSchema), v.minLength(1), v.maxLength(MOST_ITEMS)),
  }),
  v.object({ kind: v.literal("removePageItems"), ids: v.pipe(v.array(recordId), v.minLength(1)) }),
] as const;

export type PageEdit = v.InferOutput<(typeof PAGE_EDITS)[number]>;

/** A job cannot have so many pages; `todo`: what to do. */
export const tooManyPages = (todo: string) =>
  refused("A job", "", `has at most ${MOST_PAGES} pages; ${todo}`);

export function applyPageEdit(job: Job, edit: PageEdit): Result<Job, Problem> {
  switch (edit.kind) {
    case "setPages": {
      const after = put(job, "pages", edit.pages);
      return Object.keys(after.pages).length > MOST_PAGES ? tooManyPages("remove some first") : ok(after);
    }
    case "removePages": {
      const gone = new Set(edit.ids);
      const items = Object.values(job.pageItems).filter(({ page }) => gone.has(page));
      return removeAll(withoutItems(job, items), "pages", "page", edit.ids);
    }
    case "setPageItems":
      return setItems(job, edit.items);
    case "removePageItems": {
      const gone = withThoseOnThem(job, edit.ids);
      const stray = edit.ids.find((id) => !job.pageItems[id]);
      return stray !== undefined ? missing("item of a page", stray) : ok(withoutItems(job, gone));
    }
    default:
      return unreachable(edit);
  }
}

function setItems(job: Job, items: readonly PageItem[]): Result<Job, Problem> {
  const after = put(job, "pageItems", items);
  if (Object.keys(after.pageItems).length > MOST_ITEMS)
    return refused("A job", "", `has at most ${MOST_ITEMS} items on its pages; remove some first`);
  for (const item of items) {
    if (!after.pages[item.page]) return missing("page", item.page);
    const before = job.pageItems[item.id];
    if (before && before.kind !== item.kind) return refused("The item", item.id, `is a ${before.kind}`);
    const fault = viewFault(after, item);
    if (fault) return fault;
  }
  return ok(after);
}

/** Why an item cannot belong to the view that it names; null: it can. */
function viewFault(job: Job, item: PageItem): ReturnType<typeof refused> | null {
  const seen = new Set<string>([item.id]);
  for (let id = viewOf(item); id !== null; ) {
    const view = job.pageItems[id];
    if (view?.kind !== "view") return refused("The view", id, "is not on the page");
    if (view.page !== item.page) return refused("The view", view.caption ?? id, "stands on another page");
    if (seen.has(id)) return refused("The view", view.caption ?? id, "would follow itself");
    seen.add(id);
    id = viewOf(view);
  }
  return null;
}

/** Items by their ids with all that belongs to them or follows them, at any depth; or with all that moves along. */
export function withThoseOnThem(
  job: Pick<Job, "pageItems">,
  ids: readonly string[],
  of: (item: PageItem) => string | null = viewOf,
): readonly PageItem[] {
  const gone = new Set(ids);
  const all = Object.values(job.pageItems);
  for (let before = -1; before !== gone.size; ) {
    before = gone.size;
    for (const item of all) {
      const view = of(item);
      if (view !== null && gone.has(view)) gone.add(item.id);
    }
  }
  return all.filter(({ id }) => gone.has(id));
}

function withoutItems(job: Job, items: readonly PageItem[]): Job {
  const pageItems = { ...job.pageItems };
  for (const { id } of items) delete pageItems[id];
  return { ...job, pageItems };
}

/** The items of a page, in no order that means anything. */
export const itemsOfPage = (job: Pick<Job, "pageItems">, page: string): readonly PageItem[] =>
  Object.values(job.pageItems).filter((item) => item.page === page);

/** The pages in their order. */
export const pagesInOrder = (job: Pick<Job, "pages">): readonly Page[] =>
  Object.values(job.pages).sort((a, b) => a.position - b.position || a.id.localeCompare(b.id));

/** The edit that adds a copy of a page right after it, all that stands on it as well; null: there is no such page. */
export function copyOfPage(
  job: Pick<Job, "pages" | "pageItems">,
  id: string,
  newId: (kind: "page" | "pageItem") => string,
): readonly PageEdit[] | null {
  const all = pagesInOrder(job);
  const index = all.findIndex((page) => page.id === id);
  const page = all[index];
  if (!page) return null;
  const next = all[index + 1];
  const copy: Page = {
    ...page,
    id: newId("page") as Page["id"],
    heading: `${page.heading} (copy)`.slice(0, 80),
    position: next ? (page.position + next.position) / 2 : page.position + 1,
  };
  const items = itemsOfPage(job, id);
  const ids = new Map<string, string>(items.map((item) => [item.id, newId("pageItem")]));
  const renamed = (of: string) => ids.get(of) ?? of;
  const copies = items.map((item): PageItem => {
    const own = { id: renamed(item.id) as PageItem["id"], page: copy.id as string };
    switch (item.kind) {
      case "view":
        return {
          ...item,
          ...own,
          step: item.step === null ? null : renamed(item.step),
          from:
            item.from.kind === "follower" || item.from.kind === "detail"
              ? { ...item.from, of: renamed(item.from.of) }
              : item.from,
        };
      case "balloon":
        return { ...item, ...own, view: renamed(item.view) };
      case "callout":
        return { ...item, ...own, view: renamed(item.view) };
      case "size":
        return { ...item, ...own, view: renamed(item.view) };
      case "list":
        return item.list.kind === "rest"
          ? { ...item, ...own, list: { ...item.list, of: renamed(item.list.of) } }
          : { ...item, ...own };
      case "note":
      case "rule":
      case "picture":
      case "template":
      case "card":
      case "step":
        return { ...item, ...own };
      default:
        return item satisfies never;
    }
  });
  const pages: PageEdit = { kind: "setPages", pages: [copy] };
  return copies.length === 0 ? [pages] : [pages, { kind: "setPageItems", items: copies }];
}

const ITEM_WORDS: Readonly<Record<PageItem["kind"], string>> = {
  view: "view",
  list: "list",
  balloon: "balloon",
  callout: "callout",
  size: "size",
  note: "note",
  rule: "line",
  picture: "picture",
  template: "template",
  card: "card",
  step: "building step",
};

const several = (count: number, word: string) => (count === 1 ? `a ${word}` : `${count} ${word}s`);

export function pageEditName(edit: PageEdit): string {
  switch (edit.kind) {
    case "setPages":
      return `Set up ${edit.pages.length === 1 ? `page ${edit.pages[0]?.heading ?? ""}` : `${edit.pages.length} pages`}`;
    case "removePages":
      return `Remove ${several(edit.ids.length, "page")}`;
    case "setPageItems": {
      const [first] = edit.items;
      const same = edit.items.every(({ kind }) => kind === first?.kind);
      return `Change ${several(edit.items.length, first && same ? ITEM_WORDS[first.kind] : "item")} of a page`;
    }
    case "removePageItems":
      return `Remove ${several(edit.ids.length, "item")} of a page`;
    default:
      return unreachable(edit);
  }
}
