/**
 * What stands on a page, arranged again when the page gets another size or is turned: each group (a view with what belongs to
 * it, a list, a note) keeps its place as a share of the room that there is, so that what stood at a border or in a corner
 * stands there again; what would leave the page or cover another group goes to the nearest free place. Views become smaller,
 * by standard scales, only where otherwise not all has room.
 */
import type { PlaneBox, Vec2 } from "../../geometry";
import { type Edit, type ListItem, movesWith, type Page, type PageItem } from "../../job";
import { at, grouped } from "../../kernel";
import { type LengthUnit, roundTo } from "../../measure";
import { movedItem } from "./moving";
import type { DrawnPage } from "./page-drawing";
import { borderOf } from "./paper";
import { movedBox, type PlacedItem } from "./placed";
import { offeredScales } from "./scales";

type Sheet = Pick<Page, "paper" | "lying">;

/** What moves together: what stands by itself, and all that belongs to it or follows it. */
type Group = {
  readonly root: PlacedItem;
  readonly items: readonly PlacedItem[];
  /** On the page as it was. */
  readonly box: PlaneBox;
};

/** Views get no smaller than a fifth of what they were: the person takes something off the page then, or another sheet. */
const LEAST_SHARE = 0.2;

/**
 * The edits that give a drawn page another sheet, with what stands on it arranged again.
 * @param title where the title block stands on the new sheet; null: there is none.
 */
export function arrangedOn(
  drawn: DrawnPage,
  sheet: Sheet,
  title: PlaneBox | null,
  unit: LengthUnit,
): Single[] {
  const { page } = drawn;
  const groups = groupsOf(drawn);
  const [from, to] = [borderOf(page), borderOf(sheet)];
  const smaller = groups.some(({ root }) => root.item.kind === "view")
    ? offeredScales(unit).filter(
        (scale) => scale < page.scale / 1.001 && scale > page.scale * LEAST_SHARE * 0.999,
      )
    : [];
  let best: Arranged | null = null;
  for (const scale of [page.scale, ...smaller])
    for (const lists of [null, 0, 1] as const) {
      if (best?.without === 0) break;
      const found = arranged(groups, { scale, share: scale / page.scale, unit }, { from, to, title, lists });
      if (best === null || found.without < best.without) best = found;
    }
  const { scale, places, scales } = best ?? { scale: page.scale, places: [], scales: [] };
  const items = groups.flatMap((group, i) => movedGroup(group, at(places, i), at(scales, i), to));
  return [
    { kind: "setPages", pages: [{ ...page, ...sheet, scale }] },
    ...(items.length === 0 ? [] : [{ kind: "setPageItems", items } satisfies Edit]),
  ];
}

type Single = Exclude<Edit, { readonly kind: "together" }>;

const around = (boxes: readonly PlaneBox[]): PlaneBox => ({
  x0: Math.min(...boxes.map(({ x0 }) => x0)),
  y0: Math.min(...boxes.map(({ y0 }) => y0)),
  x1: Math.max(...boxes.map(({ x1 }) => x1)),
  y1: Math.max(...boxes.map(({ y1 }) => y1)),
});

const meet = (a: PlaneBox, b: PlaneBox): boolean => a.x0 < b.x1 && b.x0 < a.x1 && a.y0 < b.y1 && b.y0 < a.y1;

const boxOf = ({ box, at }: PlacedItem) => movedBox(box, at);

function groupsOf({ placed }: DrawnPage): readonly Group[] {
  const byId = new Map(placed.map((one) => [one.item.id as string, one]));
  const rootOf = (one: PlacedItem): PlacedItem => {
    let root = one;
    // As many steps as there are items: views that follow one another in a ring end there.
    for (let i = 0; i < placed.length; i++) {
      const next = byId.get(movesWith(root.item) ?? "");
      if (!next) break;
      root = next;
    }
    return root;
  };
  return [...grouped(placed, rootOf)].map(([root, items]) => ({
    root,
    items,
    box: around(items.map(boxOf)),
  }));
}

type Scales = { readonly scale: number; readonly share: number; readonly unit: LengthUnit };
type Ground = {
  readonly from: PlaneBox;
  readonly to: PlaneBox;
  readonly title: PlaneBox | null;
  /** Where lists and texts stand in height, so that views have room: 0 at the upper border, 1 at the lower; null: as they did. */
  readonly lists: 0 | 1 | null;
};

/** How large the views of a group are: a scale of their own, if they have one, and how much smaller than before. */
type GroupScale = { readonly own: number | null; readonly share: number };
type Arranged = {
  readonly scale: number;
  readonly scales: readonly GroupScale[];
  /** By how much each group moves. */
  readonly places: readonly Vec2[];
  /** How many groups found no room that is free. */
  readonly without: number;
};

/** mm between groups. */
const CLEAR = 3;
const STEP = 4;

/** All groups on another sheet, the largest first. */
function arranged(groups: readonly Group[], page: Scales, { from, to, title, lists }: Ground): Arranged {
  const scales = groups.map((group) => scaleOf(group, page));
  const boxes = groups.map((group, i) => boxAt(group, at(scales, i).share, to));
  const places: Vec2[] = groups.map(() => [0, 0]);
  const order = groups.map((_, i) => i).sort((a, b) => areaOf(at(boxes, b)) - areaOf(at(boxes, a)) || a - b);
  const standing: { readonly i: number; readonly box: PlaneBox }[] = [];
  let without = 0;
  for (const i of order) {
    const [group, box] = [at(groups, i), at(boxes, i)];
    // What lay on something before may do so again: a note within a view, a frame round a list.
    const others = standing.filter((one) => !touched(at(groups, one.i), group)).map((one) => one.box);
    const wanted = placeBy(box, group.box, from, to, group.root.item.kind === "view" ? null : lists);
    const found = nearestFree(box, wanted, title ? [...others, title] : others, to);
    places[i] = found ?? wanted;
    // What has no room anywhere is in nobody's way.
    if (found === null) without++;
    else standing.push({ i, box: movedBox(box, found) });
  }
  return { scale: page.scale, scales, places, without };
}

/** Whether an item of one group lay on one of another. */
const touched = (a: Group, b: Group): boolean =>
  meet(a.box, b.box) && a.items.some((one) => b.items.some((other) => meet(boxOf(one), boxOf(other))));

const areaOf = ({ x0, y0, x1, y1 }: PlaneBox) => (x1 - x0) * (y1 - y0);
const widthOf = ({ x0, x1 }: PlaneBox) => x1 - x0;
const heightOf = ({ y0, y1 }: PlaneBox) => y1 - y0;

/** Views with a scale of their own take the next standard one that is as much smaller. */
function scaleOf({ root: { item } }: Group, { share, unit }: Scales): GroupScale {
  if (item.kind !== "view") return { own: null, share: 1 };
  if (item.scale === null || share === 1) return { own: item.scale, share };
  const most = item.scale * share;
  const own = offeredScales(unit).find((scale) => scale <= most * 1.001) ?? most;
  return { own, share: own / item.scale };
}

/** The room of a group with its views smaller, about the place of its root; what is not to scale keeps its size. */
function boxAt(group: Group, share: number, to: PlaneBox): PlaneBox {
  const { root, box, items } = group;
  if (root.item.kind === "list") return listBox(root.item, box, to);
  if (share === 1) return box;
  const views = items.filter(({ item }) => item.kind === "view");
  const [was, is] = [around(views.map(boxOf)), around(smallerViews(root, views, share))];
  return {
    x0: is.x0 + (box.x0 - was.x0) - CLEAR,
    y0: is.y0 + (box.y0 - was.y0) - CLEAR,
    x1: is.x1 + (box.x1 - was.x1) + CLEAR,
    y1: is.y1 + (box.y1 - was.y1) + CLEAR,
  };
}

/** The room of a list, no wider than the sheet, nor taller where its height is set: what has no room then is told. */
function listBox({ corner, width, height }: ListItem, box: PlaneBox, to: PlaneBox): PlaneBox {
  const less = {
    x: width > widthOf(to) ? Math.max(0, widthOf(box) - widthOf(to)) : 0,
    y: height === null ? 0 : Math.max(0, heightOf(box) - heightOf(to)),
  };
  return {
    x0: corner.endsWith("Left") ? box.x0 : box.x0 + less.x,
    x1: corner.endsWith("Left") ? box.x1 - less.x : box.x1,
    y0: corner.startsWith("top") ? box.y0 : box.y0 + less.y,
    y1: corner.startsWith("top") ? box.y1 - less.y : box.y1,
  };
}

/** The rooms of a view and those that follow it, smaller, with the gaps between them as they are. */
function smallerViews(root: PlacedItem, views: readonly PlacedItem[], share: number): readonly PlaneBox[] {
  const made = new Map<string, PlaneBox>();
  const nearer = (value: number, about: number) => about + (value - about) * share;
  const roomOf = (one: PlacedItem): PlaneBox => {
    const known = made.get(one.item.id);
    if (known) return known;
    const [was, from] = [boxOf(one), one.item.kind === "view" ? one.item.from : null];
    const parent = from?.kind === "follower" ? views.find(({ item }) => item.id === from.of) : undefined;
    const [x, y] = (parent ?? root).at;
    const alone = {
      x0: nearer(was.x0, x),
      y0: nearer(was.y0, y),
      x1: nearer(was.x1, x),
      y1: nearer(was.y1, y),
    };
    // Until it is known, so that views in a ring end.
    made.set(one.item.id, alone);
    if (!parent || from?.kind !== "follower") return alone;
    const [beside, before] = [roomOf(parent), boxOf(parent)];
    const by: Readonly<Record<typeof from.side, Vec2>> = {
      right: [beside.x1 + (was.x0 - before.x1) - alone.x0, 0],
      left: [beside.x0 + (was.x1 - before.x0) - alone.x1, 0],
      below: [0, beside.y1 + (was.y0 - before.y1) - alone.y0],
      above: [0, beside.y0 + (was.y1 - before.y0) - alone.y1],
    };
    const room = movedBox(alone, by[from.side]);
    made.set(one.item.id, room);
    return room;
  };
  return views.map(roomOf);
}

/** The move after which a box has its place as the same share of the free room, or the given share of its height. */
function placeBy(box: PlaneBox, was: PlaneBox, from: PlaneBox, to: PlaneBox, height: number | null): Vec2 {
  const along = (low: "x0" | "y0", high: "x1" | "y1", given: number | null): number => {
    const before = from[high] - from[low] - (was[high] - was[low]);
    const after = to[high] - to[low] - (box[high] - box[low]);
    const share = given ?? (before <= 0 ? 0 : Math.min(1, Math.max(0, (was[low] - from[low]) / before)));
    return to[low] + share * Math.max(0, after) - box[low];
  };
  return [along("x0", "x1", null), along("y0", "y1", height)];
}

/** The move nearest to the one that is wanted after which a box meets nothing that is taken; null: there is none. */
function nearestFree(box: PlaneBox, wanted: Vec2, taken: readonly PlaneBox[], to: PlaneBox): Vec2 | null {
  const most: Vec2 = [to.x1 - box.x1, to.y1 - box.y1];
  const least: Vec2 = [to.x0 - box.x0, to.y0 - box.y0];
  if (most[0] < least[0] - 1e-6 || most[1] < least[1] - 1e-6) return null;
  const isFree = (by: Vec2) => {
    const { x0, y0, x1, y1 } = movedBox(box, by);
    const wide = { x0: x0 - CLEAR, y0: y0 - CLEAR, x1: x1 + CLEAR, y1: y1 + CLEAR };
    return !taken.some((one) => meet(wide, one));
  };
  if (isFree(wanted)) return wanted;
  let best: { readonly by: Vec2; readonly far: number } | null = null;
  const steps = (i: 0 | 1): number[] => {
    const all = [wanted[i], most[i]];
    for (let place = least[i]; place <= most[i]; place += STEP) all.push(place);
    return all;
  };
  const ys = steps(1);
  for (const x of steps(0))
    for (const y of ys) {
      const far = Math.hypot(x - wanted[0], y - wanted[1]);
      if ((best === null || far < best.far) && isFree([x, y])) best = { by: [x, y], far };
    }
  return best?.by ?? null;
}

/** The items of a group after a move, as far as they say their places and scales themselves. */
function movedGroup(
  { root, items }: Group,
  by: Vec2,
  { own, share }: GroupScale,
  to: PlaneBox,
): readonly PageItem[] {
  const moved = by[0] === 0 && by[1] === 0 ? root.item : movedItem(root, by);
  const fitted = fittedItem(moved, own, to);
  const nearer = share === 1 ? [] : items.flatMap(({ item }) => nearerItem(item, share));
  return fitted === root.item ? nearer : [fitted, ...nearer];
}

function fittedItem(item: PageItem, own: number | null, to: PlaneBox): PageItem {
  if (item.kind === "list") {
    const width = Math.min(item.width, widthOf(to));
    const height = item.height === null ? null : Math.min(item.height, heightOf(to));
    return width === item.width && height === item.height ? item : { ...item, width, height };
  }
  return item.kind === "view" && item.scale !== own ? { ...item, scale: own } : item;
}

/** What a hand put beside a view stands nearer to it when the view is smaller. */
function nearerItem(item: PageItem, share: number): readonly PageItem[] {
  const nearer = ([x, y]: Vec2): [number, number] => [roundTo(x * share, 3), roundTo(y * share, 3)];
  if (item.kind === "callout") return [{ ...item, at: nearer(item.at) }];
  if (item.kind === "balloon" && item.stands.kind === "hand")
    return [{ ...item, stands: { kind: "hand", at: nearer(item.stands.at) } }];
  return [];
}
