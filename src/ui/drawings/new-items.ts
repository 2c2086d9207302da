/** New items of a page, as they are before anybody changes them. */
import {
  axesOfView,
  bestScale,
  borderOf,
  type DrawnPage,
  freePlace,
  movedBox,
  offeredScales,
  pagesForTemplate,
  patternFaultWords,
  sizeOfView,
  wholeTemplate,
} from "@/core/drawing";
import {
  type Assets,
  allOf,
  assetIdOf,
  type CalloutItem,
  type CardItem,
  type Edit,
  type Feature,
  type Home,
  type Job,
  type ListItem,
  type NoteItem,
  type Page,
  type PageEdit,
  type PageItem,
  type PageItemId,
  type PictureAsset,
  type PictureItem,
  type Pointed,
  pageStyle,
  pagesInOrder,
  plainCard,
  plainList,
  plainTemplate,
  plainView,
  type RuleItem,
  type StepItem,
  type ViewFrom,
  type ViewItem,
  type ViewOf,
} from "@/core/job";
import type { Shape } from "@/core/shape";
import type { Stockroom } from "@/core/stockroom";
import type { TallyRow } from "@/core/tally";
import { newId } from "../common/fresh-id";
import { nameOf, SIDE_WORDS } from "./item-words";

export const newItemId = () => newId("item") as PageItemId;

export function newPage(job: Job, pages: readonly Page[]): Page {
  const last = pages.at(-1);
  return {
    id: newId("page") as Page["id"],
    heading: `Page ${pages.length + 1}`,
    paper: last?.paper ?? (isInch(job) ? "tabloid" : "a3"),
    lying: last?.lying ?? true,
    border: last?.border ?? true,
    titleBlock: last?.titleBlock ?? true,
    scale: last?.scale ?? 0.1,
    projection: last?.projection ?? (isInch(job) ? "third" : "first"),
    lengths: last?.lengths ?? null,
    marksChanges: last?.marksChanges ?? false,
    position: (last?.position ?? 0) + 1,
  };
}

const isInch = ({ info }: Job) => info.job.unit === "in" || info.job.unit === "ft";

const takenOn = ({ placed }: DrawnPage) => placed.map(({ at, box }) => movedBox(box, at));

const GAP = 25;
/** A first view takes about this part of the page each way. */
const SHARE = 0.45;
const AROUND = 22;

export type ViewGround = {
  readonly job: Job;
  readonly shape: Shape;
  readonly assets: Assets;
  readonly drawn: DrawnPage;
};

/** The edit that adds a view; the first one on a page sets the scale of the page as well. */
export function addViewEdit(
  of: ViewOf,
  from: ViewFrom,
  { job, shape, assets, drawn }: ViewGround,
): { readonly edit: Edit; readonly id: string } {
  const { page, placed } = drawn;
  const id = newItemId();
  const isFirst = !placed.some(({ item }) => item.kind === "view");
  const itemById = (one: string) => placed.find(({ item }) => item.id === one)?.item;
  // Beside a view of a building step is what stands there then.
  const parent = from.kind === "follower" ? itemById(from.of) : undefined;
  const base: ViewItem = plainView({
    id,
    page: page.id,
    of,
    from,
    caption: from.kind === "named" ? SIDE_WORDS[from.side] : null,
    step: parent?.kind === "view" ? parent.step : null,
  });
  const axes = axesOfView(base, itemById, page.projection);
  const size = axes && sizeOfView(shape, { of, axes, hidden: [] }, assets);
  const { width, height } = drawn.size;
  const best = size && bestScale(size, { width: width * SHARE, height: height * SHARE }, job.info.job.unit);
  const scale = isFirst && best ? best : page.scale;
  // What does not fit with the others is shown to a scale of its own.
  const own =
    !isFirst && from.kind !== "follower" && size && best !== null && best < scale / 1.01 ? best : null;
  const shownAt = own ?? scale;
  const room = { width: (size?.width ?? 0) * shownAt, height: (size?.height ?? 0) * shownAt };
  // With room for balloons and sizes round it.
  const at = freePlace(page, [...takenOn(drawn), ...titleRoom(drawn)], room, AROUND);
  const item: ViewItem = { ...base, at: [...at], scale: own };
  const items: Edit = { kind: "setPageItems", items: [item] };
  if (scale === page.scale) return { id, edit: items };
  return {
    id,
    edit: {
      kind: "together",
      what: "Add a view",
      edits: [{ kind: "setPages", pages: [{ ...page, scale }] }, items],
    },
  };
}

/** mm on paper. How large a new detail is drawn. */
const DETAIL_RADIUS = 22;
/** So many times larger than its view, at least. */
const LARGER = 2.4;
const LETTERS = "XYZWVUTSRQPONMLKJIHGFEDCBA";

/** The first of some letters that no detail and no cut of the job has. */
export function freeLetter(job: Job, letters: string): string {
  const taken = new Set(
    Object.values(job.pageItems).flatMap((item) =>
      item.kind !== "view" ? [] : [item.from.kind === "detail" ? item.from.letter : null, item.cut?.letter],
    ),
  );
  return [...letters].find((one) => !taken.has(one)) ?? letters.slice(0, 1);
}

/** The edit that adds a detail about a place of a view; letters from the end, so that none is taken for a mark. */
export function addDetailEdit(
  view: string,
  about: Feature,
  { job, drawn }: Pick<ViewGround, "job" | "drawn">,
): { readonly edit: Edit; readonly id: string } {
  const id = newItemId();
  const scale = drawn.places.get(view)?.scale ?? drawn.page.scale;
  const larger =
    offeredScales(job.info.job.unit)
      .filter((one) => one >= LARGER * scale)
      .at(-1) ?? scale;
  const letter = freeLetter(job, LETTERS);
  const size = { width: 2 * DETAIL_RADIUS, height: 2 * DETAIL_RADIUS + 10 };
  const at = freePlace(drawn.page, [...takenOn(drawn), ...titleRoom(drawn)], size);
  const item: ViewItem = plainView({
    id,
    page: drawn.page.id,
    at: [...at],
    from: { kind: "detail", of: view, about, radius: DETAIL_RADIUS / larger, letter },
    scale: larger,
  });
  return { id, edit: { kind: "setPageItems", items: [item] } };
}

const titleRoom = ({ title }: DrawnPage) => (title ? [title] : []);

export const followerOf = (view: ViewItem, side: "left" | "right" | "above" | "below"): ViewFrom => ({
  kind: "follower",
  of: view.id,
  side,
  gap: GAP,
});

/** Over the title block, growing away from it as far as the page goes; what has no room then is told. */
export function newList(list: ListItem["list"], { page, title, placed }: DrawnPage): ListItem {
  const border = borderOf(page);
  const whole = border.x1 - border.x0;
  const width = Math.min(180, whole);
  const from = title ? title.y0 - 3 : border.y1;
  return plainList({
    id: newItemId(),
    page: page.id,
    at: [border.x1, title ? from : border.y0],
    list,
    corner: title ? "bottomRight" : "topRight",
    width,
    height: Math.floor(from - border.y0),
    // Beside itself only where nothing else stands.
    columns: placed.length > 0 ? 1 : Math.max(1, Math.floor(whole / width)),
  });
}

/** The room that a title block of usual size takes, where it is not known yet. */
const TITLE_ROOM = 40;

/** What a list has no room for, on the next page, which is made where there is none; in as many columns as stand there. */
export function restOnNextPage(
  list: ListItem,
  job: Job,
): { readonly edits: readonly PageEdit[]; readonly page: Page; readonly rest: ListItem } | null {
  const pages = pagesInOrder(job);
  const index = pages.findIndex(({ id }) => id === list.page);
  const here = pages[index];
  if (!here) return null;
  const following = pages[index + 1];
  const page = following ?? { ...newPage(job, pages), lying: here.lying, paper: here.paper };
  const border = borderOf(page);
  const width = Math.min(list.width, border.x1 - border.x0);
  const rest = plainList({
    id: newItemId(),
    page: page.id,
    at: [border.x0 + 3, border.y0 + 3],
    list: { kind: "rest", of: list.id },
    width,
    height: Math.floor(border.y1 - border.y0 - (page.titleBlock ? TITLE_ROOM : 0) - 6),
    columns: Math.max(1, Math.floor((border.x1 - border.x0) / (width + 6))),
  });
  const setItems: PageEdit = { kind: "setPageItems", items: [rest] };
  return { page, rest, edits: following ? [setItems] : [{ kind: "setPages", pages: [page] }, setItems] };
}

/** A card of a row where there is room for it. */
export function newCard(record: string, drawn: DrawnPage): CardItem {
  const { width, height, ...plain } = plainCard({ id: newItemId(), page: drawn.page.id, record });
  const border = borderOf(drawn.page);
  const wide = Math.min(width, border.x1 - border.x0 - 6);
  const taken = [...takenOn(drawn), ...titleRoom(drawn)];
  const [x, y] = freePlace(drawn.page, taken, { width: wide, height });
  return { ...plain, width: wide, height, at: [Math.round(x - wide / 2), Math.round(y - height / 2)] };
}

/** A building step where there is room for it, of what is named. */
export function newStep(home: Home, records: readonly string[], job: Job, drawn: DrawnPage): StepItem {
  const border = borderOf(drawn.page);
  const width = Math.min(85, border.x1 - border.x0 - 6);
  const taken = [...takenOn(drawn), ...titleRoom(drawn)];
  const [x, y] = freePlace(drawn.page, taken, { width, height: 40 });
  const names = [...new Set(records.map((record) => nameOf(record, job)))].join(", ");
  return {
    id: newItemId(),
    page: drawn.page.id,
    kind: "step",
    at: [Math.round(x - width / 2), Math.round(y - 20)],
    width,
    home,
    heading: (names === "" ? "Building step" : names).slice(0, 80),
    text: "",
    comes: records.map(allOf),
  };
}

export function newNote(drawn: DrawnPage): NoteItem {
  const [x, y] = freePlace(drawn.page, takenOn(drawn), { width: 40, height: 10 });
  return {
    id: newItemId(),
    page: drawn.page.id,
    kind: "note",
    at: [x - 20, y - 5],
    text: "Note",
    letters: 3.5,
    width: null,
    strong: false,
  };
}

/** A picture, 60 mm wide or as tall. */
export function newPicture(picture: PictureAsset, drawn: DrawnPage): PictureItem {
  const ratio = picture.height / picture.width;
  const width = Math.round(60 / Math.max(1, ratio));
  const [x, y] = freePlace(drawn.page, takenOn(drawn), { width, height: width * ratio });
  return {
    id: newItemId(),
    page: drawn.page.id,
    kind: "picture",
    at: [x - width / 2, y - (width * ratio) / 2],
    asset: assetIdOf(picture),
    width,
    ratio,
  };
}

/**
 * A template of a row at full size: on the open page where that is empty and has room for it, else on as many new pages as it
 * takes; or the sentence why there is none.
 */
export function templateEdits(
  record: string,
  row: TallyRow,
  { job, drawn, stockroom }: { readonly job: Job; readonly drawn: DrawnPage; readonly stockroom: Stockroom },
): { readonly edits: readonly PageEdit[]; readonly page: Page; readonly first: string } | string {
  const plain = plainTemplate({ id: newItemId(), page: drawn.page.id, record });
  const style = pageStyle(drawn.page, job);
  const whole = wholeTemplate(plain, row, { code: job.info.job.code, stockroom, style });
  if (!whole.ok) return patternFaultWords(whole.problem);
  const needed = pagesForTemplate(whole.value, isInch(job));
  if (!needed) return "There is no paper on which this template would have room.";
  const { columns, rows, paper, lying } = needed;
  const at: [number, number] = [...needed.at];
  const { page } = drawn;
  const isThere =
    drawn.placed.length === 0 && columns * rows === 1 && page.paper === paper && page.lying === lying;
  if (isThere && !page.titleBlock)
    return { edits: [{ kind: "setPageItems", items: [{ ...plain, at }] }], page, first: plain.id };
  const count = columns * rows;
  const all = pagesInOrder(job);
  const next = all[all.findIndex(({ id }) => id === page.id) + 1];
  const step = ((next?.position ?? page.position + 1) - page.position) / (count + 1);
  const pages = Array.from(
    { length: count },
    (_, i): Page => ({
      ...newPage(job, all),
      heading: `Template ${row.mark}${count === 1 ? "" : `, ${i + 1} of ${count}`}`,
      paper,
      lying,
      titleBlock: false,
      scale: 1,
      position: page.position + step * (i + 1),
    }),
  );
  const items = pages.map(
    ({ id }, i): PageItem => ({
      ...plain,
      id: newItemId(),
      page: id,
      at,
      part: { column: i % columns, row: Math.floor(i / columns), columns, rows },
    }),
  );
  const [first, own] = [pages[0], items[0]];
  if (!first || !own) return "There is no paper on which this template would have room.";
  return {
    edits: [
      { kind: "setPages", pages },
      { kind: "setPageItems", items },
    ],
    page: first,
    first: own.id,
  };
}

export function newRule(drawn: DrawnPage, frame: boolean): RuleItem {
  const [x, y] = freePlace(drawn.page, takenOn(drawn), { width: 60, height: frame ? 30 : 4 });
  return {
    id: newItemId(),
    page: drawn.page.id,
    kind: "rule",
    at: [x - 30, frame ? y - 15 : y],
    to: [x + 30, frame ? y + 15 : y],
    frame,
  };
}

export function newCallout(view: PageItem, piece: Pointed, at: readonly [number, number]): CalloutItem {
  return {
    id: newItemId(),
    page: view.page,
    kind: "callout",
    view: view.id,
    piece,
    pattern: "{mark}: {name}",
    at: [...at],
    letters: 3.5,
  };
}

export const scaleChoices = (job: Job): readonly number[] => offeredScales(job.info.job.unit);
