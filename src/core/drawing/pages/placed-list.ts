/** Lists in their place on a page, and where one goes on that has no room there. */
import { type Job, type ListItem, listChain, pagesInOrder } from "../../job";
import { remembersEach } from "../../kernel";
import { savedFor } from "../../layout";
import type { ListTable } from "../../lists";
import type { ItemFault } from "./item-fault";
import { type Drawn, drawnLayout, drawnList, type ListPart } from "./list-item";
import type { PageGround } from "./page-ground";
import type { PlacedItem } from "./placed";
import { faulty, remembered } from "./plain-items";

/** A list, or the part of one that goes on here, in its place. */
export function placedList(item: ListItem, ground: PageGround): PlacedItem {
  const { job, tally, tableOf, layouts, head } = ground;
  const { at } = item;
  const chain = listChain(item, job.pageItems);
  if (!chain) return faulty(item, at, { kind: "lost", what: "listBefore" });
  const [first] = chain;
  const { list } = first;
  const table = list.kind === "layout" || list.kind === "rest" ? null : tableOf(list);
  const { results, saved, saws } = layouts;
  const drawPart = (part: ListPart): Drawn | null => {
    const from = [part.from, part.goesOn, first];
    if (list.kind === "layout")
      return remembered(part.item, [...from, results.tasks, saved, saws, head.info, head.revision], () =>
        drawnLayout(part, first, list.task, { ...head, ...layouts }),
      );
    return (
      table && remembered(part.item, [...from, table, tally], () => drawnList(part, first, table, tally))
    );
  };
  let from: number | null = 0;
  let drawn: Drawn | null = null;
  for (const part of chain) {
    if (from === null)
      // Of a smaller variant there may be less: what is not needed then stays for the others.
      return { item, at, fault: null, ...nothingLeft(listTitle(list, table)) };
    drawn = drawPart({ item: part, from, goesOn: goesOnWhere(part, ground) });
    if (!drawn)
      return faulty(item, at, { kind: "lost", what: list.kind === "layout" ? "stockOfLayout" : "list" });
    from = drawn.next;
  }
  if (!drawn) return faulty(item, at, { kind: "lost", what: "list" });
  const what = list.kind === "layout" ? "column" : "row";
  const fault: ItemFault | null =
    drawn.left > 0 && goesOnItem(item, job) === null
      ? { kind: "listTooLong", left: drawn.left, what }
      : list.kind === "layout"
        ? olderThanDesign(list.task, ground)
        : null;
  return { item, at, fault, ...drawn };
}

/** Why a layout does not answer the design as it is now; null: it does, or there is none. */
function olderThanDesign(id: string, { layouts: { results, saved } }: PageGround): ItemFault | null {
  const task = results.tasks.find((one) => one.id === id);
  const found = task && savedFor(task, saved);
  return found?.outdated
    ? { kind: "layoutOutdated", revision: found.saved.revision, reason: found.outdated }
    : null;
}

const listTitle = (list: ListItem["list"], table: ListTable | null): string =>
  table?.title ?? (list.kind === "layout" ? "Layout" : "List");

function nothingLeft(title: string): Pick<PlacedItem, "items" | "box"> {
  const text = `${title}: nothing is left to continue here`;
  return {
    box: { x0: 0, y0: 0, x1: 70, y1: 6 },
    items: [{ kind: "text", at: [0, 3], text, size: 2.9, face: "text", align: "left", ink: "soft" }],
  };
}

const continuations = remembersEach<Job["pageItems"], ReadonlyMap<string, ListItem>>();

/** The item in which a list goes on; null: in none. */
function goesOnItem({ id }: ListItem, { pageItems }: Job): ListItem | null {
  const byList = continuations(
    pageItems,
    [],
    () =>
      new Map(
        Object.values(pageItems).flatMap((one): [string, ListItem][] =>
          one.kind === "list" && one.list.kind === "rest" ? [[one.list.of, one]] : [],
        ),
      ),
  );
  return byList.get(id) ?? null;
}

function goesOnWhere(item: ListItem, { job }: PageGround): string | null {
  const next = goesOnItem(item, job);
  if (!next) return "Further rows have no room here.";
  if (next.page === item.page) return null;
  const sheet = pagesInOrder(job).findIndex(({ id }) => id === next.page) + 1;
  return `Continued on sheet ${sheet}.`;
}
