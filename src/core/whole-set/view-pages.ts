/** Pages of the job and of its assemblies: from the front, from the side, from above and as a picture, with sizes and balloons. */
import {
  bestScale,
  borderOf,
  type DrawnPage,
  movedBox,
  newBalloons,
  offeredScales,
  sizeOfView,
  titleBox,
  viewFrom,
} from "../drawing";
import type { PlaneBox } from "../geometry";
import { type Job, type Page, type PageItem, plainView, type ViewItem, type ViewOf } from "../job";
import type { Results } from "../pipeline";
import type { PlacingInputs } from "../placings";
import type { TallyRow } from "../tally";
import { type Drafts, type Ids, ISOMETRIC, withPage } from "./drafts";

/** mm on paper: room round views for sizes and balloons, and between them. */
const ROUND = 34;
const BETWEEN = 46;

type Subject = { readonly heading: string; readonly of: ViewOf };

/** The job, and each assembly that stands in it, as far as no page has views of them yet. */
export function subjectsToDraw(set: Drafts, job: Job): readonly Subject[] {
  const { shape } = set.results;
  const there = set
    .all("view")
    .filter(
      ({ from, look, step }) =>
        from.kind !== "follower" && step === null && look !== "tints" && look !== "shaded",
    );
  const isDrawn = (of: ViewOf) =>
    there.some((view) =>
      of.kind === "assembly"
        ? view.of.kind === "assembly" && view.of.assembly === of.assembly
        : view.of.kind === of.kind,
    );
  const standing = Object.values(job.assemblies).filter(({ id }) =>
    (shape.places.get(id) ?? []).some(({ counted }) => counted !== "guide"),
  );
  const { title } = job.info.job;
  const subjects: readonly Subject[] = [
    { heading: title === "" ? "General" : `${title}, general`, of: { kind: "job" } },
    ...standing.map(({ id, name }): Subject => ({ heading: name, of: { kind: "assembly", assembly: id } })),
  ];
  return subjects.filter(({ of }) => !isDrawn(of));
}

type Views = { readonly main: ViewItem; readonly followers: readonly ViewItem[]; readonly picture: ViewItem };
type Told = {
  /** Balloons and sizes of the views. */
  readonly items: readonly PageItem[];
  readonly draw: (now: Job) => DrawnPage;
};

/** A page is drawn at so many scales at most until all that stands on it has room. */
const TRIES = 4;

/** A page of something: from the front, from the side, from above and as a picture, with all sizes and balloons, within its border. */
export function viewPage(
  set: Drafts,
  { heading, of }: Subject,
  { job, assets, stockroom }: PlacingInputs,
  tell: (now: Job, page: Page, views: Views) => Told,
): { readonly page: Page; readonly items: readonly PageItem[] } | null {
  const { shape } = set.results;
  const sizeFrom = (towards: readonly [number, number, number]) =>
    sizeOfView(shape, { of, axes: viewFrom(towards), hidden: [] }, assets);
  const [front, side, iso] = [sizeFrom([0, -1, 0]), sizeFrom([-1, 0, 0]), sizeFrom([-1, -1, 1])];
  if (!front || !side || !iso) return null;
  const sheet = set.page(heading);
  const border = borderOf(sheet);
  const [free, high] = [border.x1 - border.x0, border.y1 - border.y0];
  const { unit } = job.info.job;
  const most = set.recipe.scale ?? Number.POSITIVE_INFINITY;
  const offered = offeredScales(unit);
  const small = offered.filter((scale) => scale <= most * (1 + 1e-9));
  const scales = small.length > 0 ? small : offered.slice(-1);
  const first = scales.findIndex(
    (scale) =>
      (front.width + side.width) * scale <= free - 2 * ROUND - BETWEEN &&
      (front.height + side.width) * scale <= high - 2 * ROUND - BETWEEN,
  );
  const title = titleBox(border, stockroom.titleBlock);
  const ids = { main: set.ids.item(), side: set.ids.item(), top: set.ids.item(), picture: set.ids.item() };
  let made: { readonly page: Page; readonly items: readonly PageItem[] } | null = null;
  for (const scale of scales.slice(first < 0 ? -1 : first).slice(0, TRIES)) {
    const page = { ...sheet, scale };
    const views = viewsAt(set, { page, of, ids, sizes: { front, side, iso } }, { border, title });
    const all = [views.main, ...views.followers, views.picture];
    const now = withPage(set.job, page, all);
    const told = tell(now, page, views);
    const drawn = told.draw(withPage(now, page, told.items));
    const by = intoBorder(drawn, views, border, title);
    const main: ViewItem = {
      ...views.main,
      at: [views.main.at[0] + by.move[0], views.main.at[1] + by.move[1]],
    };
    made = { page, items: [main, ...views.followers, views.picture, ...told.items] };
    if (by.fits) break;
  }
  return made;
}

type Sheet = { readonly border: PlaneBox; readonly title: PlaneBox };
type Size = { readonly width: number; readonly height: number };
type Sizes = { readonly front: Size; readonly side: Size; readonly iso: Size };

/** The front view at the upper left, what is seen from the side and from above in line with it, and the picture where most room is left. */
function viewsAt(
  set: Drafts,
  {
    page,
    of,
    ids,
    sizes: { front, side, iso },
  }: {
    readonly page: Page;
    readonly of: ViewOf;
    readonly ids: Readonly<Record<"main" | "side" | "top" | "picture", ViewItem["id"]>>;
    readonly sizes: Sizes;
  },
  { border, title }: Sheet,
): Views {
  const { scale } = page;
  const third = page.projection === "third";
  const [width, height, depth] = [front.width, front.height, side.width].map((mm) => mm * scale) as [
    number,
    number,
    number,
  ];
  const own = { page: page.id as string, of };
  // What is seen from above stands above in third-angle projection: the front view makes room for it.
  const top = border.y0 + ROUND + (third ? depth + BETWEEN : 0);
  const main = plainView({
    ...own,
    id: ids.main,
    at: [border.x0 + ROUND + width / 2, top + height / 2],
    caption: "Front",
  });
  const follower = (id: ViewItem["id"], where: "right" | "above" | "below", caption: string) =>
    plainView({
      ...own,
      id,
      from: { kind: "follower", of: main.id, side: where, gap: BETWEEN },
      caption,
    });
  const left = border.x0 + ROUND + width + BETWEEN;
  const beside: PlaneBox = { x0: left + depth + ROUND, y0: border.y0, x1: border.x1, y1: title.y0 };
  const corner: PlaneBox = third
    ? { x0: left, y0: border.y0, x1: border.x1, y1: border.y0 + ROUND + depth }
    : { x0: left, y0: top + height + BETWEEN / 2, x1: border.x1, y1: title.y0 };
  const { unit } = set.job.info.job;
  const scaleIn = (room: PlaneBox) =>
    bestScale(
      iso,
      { width: room.x1 - room.x0 - 2 * BALLOONS, height: room.y1 - room.y0 - 2 * BALLOONS },
      unit,
    );
  const room = scaleIn(beside) >= scaleIn(corner) ? beside : corner;
  const ownScale = Math.min(scaleIn(room), 4 * scale);
  const picture = plainView({
    ...own,
    id: ids.picture,
    at: [(room.x0 + room.x1) / 2, (room.y0 + room.y1) / 2],
    from: ISOMETRIC,
    scale: Math.abs(ownScale / scale - 1) < 1e-6 ? null : ownScale,
  });
  const followers = [
    follower(ids.side, "right", third ? "Right" : "Left"),
    follower(ids.top, third ? "above" : "below", "Top"),
  ];
  return { main, followers, picture };
}

/** mm on paper. Room for balloons round the picture. */
const BALLOONS = 24;

/** How the square views are moved to stand with all their sizes within the border, and whether that is enough. */
function intoBorder(
  drawn: DrawnPage,
  { main, followers, picture }: Views,
  border: PlaneBox,
  title: PlaneBox,
): { readonly move: readonly [number, number]; readonly fits: boolean } {
  const square = new Set<string>([main.id, ...followers.map(({ id }) => id)]);
  const boxes = (isOwn: (view: string) => boolean) =>
    drawn.placed.flatMap(({ item, at, box }) => {
      const view = "view" in item ? item.view : item.kind === "view" ? item.id : null;
      return view !== null && isOwn(view) ? [movedBox(box, at)] : [];
    });
  const own = boundingBox(boxes((view) => square.has(view)));
  const seen = boundingBox(boxes((view) => view === picture.id));
  const low = (from: number, least: number) => Math.max(0, least + INSIDE - from);
  const [x, y] = [low(own.x0, border.x0), low(own.y0, border.y0)];
  const moved = movedBox(own, [x, y]);
  const apart = (a: PlaneBox, b: PlaneBox) => a.x1 < b.x0 || b.x1 < a.x0 || a.y1 < b.y0 || b.y1 < a.y0;
  // What lies in line at a corner overlaps only as a whole: each view by itself decides.
  const clear = boxes((view) => square.has(view)).every((box) => {
    const there = movedBox(box, [x, y]);
    return apart(there, title) && apart(there, seen);
  });
  return { move: [x, y], fits: moved.x1 <= border.x1 && moved.y1 <= border.y1 && clear };
}
const INSIDE = 3;

function boundingBox(boxes: readonly PlaneBox[]): PlaneBox {
  return boxes.reduce(
    (all, { x0, y0, x1, y1 }) => ({
      x0: Math.min(all.x0, x0),
      y0: Math.min(all.y0, y0),
      x1: Math.max(all.x1, x1),
      y1: Math.max(all.y1, y1),
    }),
    {
      x0: Number.POSITIVE_INFINITY,
      y0: Number.POSITIVE_INFINITY,
      x1: Number.NEGATIVE_INFINITY,
      y1: Number.NEGATIVE_INFINITY,
    },
  );
}

/** The rows of which something is seen in a view. */
export function seenRows({ tally }: Results, drawn: DrawnPage, view: string): readonly TallyRow[] {
  const ring = drawn.rings.get(view);
  if (!ring) return [];
  const seen = new Set(ring.drawn.parts.map(({ piece }) => ring.drawn.pieces[piece]?.record));
  return tally.rows.filter(({ mark, pieces }) => mark !== "" && pieces.some(({ id }) => seen.has(id)));
}

/** Balloons for rows in a view. */
export function balloonsIn(
  drawn: DrawnPage,
  view: string,
  rows: readonly TallyRow[],
  ids: Ids,
): readonly PageItem[] {
  const ring = drawn.rings.get(view);
  return ring ? newBalloons({ page: drawn.page.id, view }, rows, [], ring, ids.item as () => never) : [];
}
