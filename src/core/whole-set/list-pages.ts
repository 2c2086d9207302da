/** Lists and layouts on pages, continued on others as long as something of them has no room. */
import { borderOf, type DrawnPage } from "../drawing";
import { addedLists, type Job, type ListItem, type Page, plainList } from "../job";
import { type SavedLayout, savedFor } from "../layout";
import { type Drafts, GAP } from "./drafts";

/** How many columns of lists a page has, how wide they are and how high; the title block stands under the last. */
function columnsOf(set: Drafts, page: Page) {
  const border = borderOf(page);
  const count = set.columns();
  const width = Math.floor((border.x1 - border.x0 - GAP * (count + 1)) / count);
  const at = (column: number): [number, number] => [
    border.x0 + GAP + column * (width + GAP),
    border.y0 + GAP,
  ];
  return { count, width, height: border.y1 - border.y0 - TITLE_ROOM, at };
}

/** Draws a page of the set as it is, or as it would be. */
type DrawIt = (page: Page, now?: Job) => DrawnPage;

/** A list on a page of its own, continued on others as long as something of it has no room. */
function onOwnPages(
  set: Drafts,
  heading: string,
  list: ListItem["list"],
  silhouettes: boolean,
  draw: DrawIt,
  more: (page: number) => Partial<Page> = () => ({}),
): void {
  let shown = list;
  for (let i = 0; i < MOST_PAGES; i++) {
    const page = set.page(list.kind === "rest" || i > 0 ? `${heading}, continued` : heading, more(i));
    const { count, width, height, at } = columnsOf(set, page);
    const item = plainList({
      id: set.ids.item(),
      page: page.id,
      at: at(0),
      list: shown,
      width,
      height,
      columns: count,
      silhouettes,
    });
    set.add([page], [item]);
    if (!leftOf(draw(page), item)) return;
    shown = { kind: "rest", of: item.id };
  }
}

const leftOf = ({ placed }: DrawnPage, item: ListItem): number =>
  placed.find((one) => one.item.id === item.id)?.left ?? 0;

export function listPages(set: Drafts, kind: "cut" | "buying", draw: DrawIt): void {
  const has = set.all("list").some(({ list }) => list.kind === kind);
  const { tally, buyingList } = set.results;
  const isEmpty = kind === "cut" ? tally.rows.length === 0 : buyingList.groups.length === 0;
  if (!has && !isEmpty)
    onOwnPages(set, kind === "cut" ? "Cut list" : "Buying list", { kind }, kind === "cut", draw);
}

/** The list of all pages goes on behind the page that it stands on, when it has become too long for it. */
export function furtherContents(set: Drafts, draw: DrawIt): void {
  const lists = set.all("list");
  const goesOn = (item: ListItem) => lists.find(({ list }) => list.kind === "rest" && list.of === item.id);
  let last = lists.find(({ list }) => list.kind === "pages");
  for (let next = last; next; next = goesOn(next)) last = next;
  const page = set.job.pages[last?.page ?? ""];
  if (!last || !page || leftOf(draw(page), last) === 0) return;
  // Between it and the page after it, however many there come to be.
  const more = (i: number) => ({ position: page.position + (i + 1) / (MOST_PAGES + 1) });
  onOwnPages(set, "Contents", { kind: "rest", of: last.id }, false, draw, more);
}

/** Lists of the job's own that belong to the set and stand on no page; those that the job does not have are told. */
export function ownListPages(set: Drafts, draw: DrawIt): void {
  const has = new Set(set.all("list").flatMap(({ list }) => (list.kind === "own" ? [list.list] : [])));
  for (const name of set.recipe.lists) {
    const found = addedLists(set.job).find((list) => list.name.toLowerCase() === name.toLowerCase());
    if (!found) set.lacks(name);
    else if (!has.has(found.id)) onOwnPages(set, found.name, { kind: "own", list: found.id }, false, draw);
  }
}

const MOST_PAGES = 200;
const TITLE_ROOM = 48;

/** The layouts that are kept and stand on no page: side by side where each has room in one column, else on pages of their own. */
export function layoutPages(set: Drafts, layouts: readonly SavedLayout[], draw: DrawIt): void {
  const has = new Set(set.all("list").flatMap(({ list }) => (list.kind === "layout" ? [list.task] : [])));
  let open: { readonly page: Page; readonly used: number } | null = null;
  for (const task of set.results.tasks) {
    if (has.has(task.id) || !savedFor(task, layouts)) continue;
    const page: Page = open?.page ?? set.page(`Layout ${task.name}`);
    const { count, width, height, at } = columnsOf(set, page);
    const used: number = open?.used ?? 0;
    const list = { kind: "layout", task: task.id } as const;
    const item = plainList({
      id: set.ids.item(),
      page: page.id,
      at: at(used),
      list,
      width,
      height,
      columns: 1,
    });
    const tried = set.trial(open ? null : page, item);
    if (leftOf(draw(page, tried), item) > 0) {
      onOwnPages(set, `Layout ${task.name}`, list, false, (one) => draw(one));
      continue;
    }
    const heading = open ? `${page.heading}, ${task.name}`.slice(0, 80) : page.heading;
    const named: Page = { ...page, heading };
    set.add([named], [item]);
    open = used + 1 < count ? { page: named, used: used + 1 } : null;
  }
}
