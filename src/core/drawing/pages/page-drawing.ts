/**
 * A page as a display list in millimetres: its border and title block, and each item drawn about its own place, so that moving
 * one draws nothing anew. What cannot be shown is a sentence where the item stands; the rest is drawn.
 */
import type { PlaneBox, Vec2 } from "../../geometry";
import { lengthWith, type Page, type PageItem, pageStyle, type ViewItem } from "../../job";
import { remembersEach } from "../../kernel";
import type { LengthUnit } from "../../measure";
import { isMetal, type TitleWord } from "../../stockroom";
import { type DrawItem, type Drawing, movedBy, rectangle, type Tint } from "../display";
import type { Hatch } from "../hatching";
import { isSquareView } from "../lines";
import { type BalloonGround, balloonsOfView } from "./balloons";
import { placedCard } from "./card-item";
import { cutMark } from "./cut-marks";
import type { DrawnView } from "./drawn-view";
import type { ItemFault } from "./item-fault";
import type { PageGround } from "./page-ground";
import { borderOf, type LineWidths, lineWidths, type SheetSize, sheetSize } from "./paper";
import { movedBox, type PlacedItem } from "./placed";
import { placedList } from "./placed-list";
import { faulty, placedCallout, placedNote, placedPicture, placedRule } from "./plain-items";
import { scaleWords } from "./scales";
import { drawnSize } from "./sizes";
import { placedStep } from "./step-item";
import { placedTemplate } from "./template-item";
import { titleBlock, titleOn } from "./title-block";
import { axesOfView, subjectOfView } from "./view-asked";
import { boxOfView, detailMark, placesOfViews, shownBox, type ViewPlace, viewItems } from "./view-item";

export type DrawnPage = {
  readonly page: Page;
  readonly size: SheetSize;
  readonly frame: readonly DrawItem[];
  /** Where its title block stands; null: it has none. */
  readonly title: PlaneBox | null;
  readonly placed: readonly PlacedItem[];
  /** Where views stand, by the ids of their items. */
  readonly places: ReadonlyMap<string, ViewPlace>;
  /** What balloons of a view are placed by; views in which there is nothing to be seen are not there. */
  readonly rings: ReadonlyMap<string, BalloonGround>;
};

/** Draws a page. */
export function drawPage(page: Page, ground: PageGround): DrawnPage {
  const { items, views } = ground;
  const places = placesOfViews(page, items, views);
  const widths = lineWidths(page.paper);
  const title = titleOn(page, ground.lists.stockroom.titleBlock);
  const frame = frameOf(page, title, ground, widths);
  const standing: PlacedItem[] = [];
  for (const item of items) {
    switch (item.kind) {
      case "view":
        standing.push(placedView(item, ground, places, page));
        break;
      case "list":
        standing.push(placedList(item, ground));
        break;
      case "note":
        standing.push(placedNote(item));
        break;
      case "rule":
        standing.push(placedRule(item, widths));
        break;
      case "template":
        standing.push(placedTemplate(item, ground));
        break;
      case "card":
        standing.push(placedCard(item, ground));
        break;
      case "step":
        standing.push(placedStep(item, ground));
        break;
      case "picture":
        standing.push(placedPicture(item, ground.assets));
        break;
      case "balloon":
      case "callout":
      case "size":
        break;
      default:
        item satisfies never;
    }
  }
  const blocked = standing.map(({ item, at, box }) => ({ id: item.id as string, box: movedBox(box, at) }));
  if (title) blocked.push({ id: "", box: title });
  const rings = new Map<string, BalloonGround>();
  for (const { item, box } of standing) {
    const [place, drawn] = [places.get(item.id), views.get(item.id)];
    if (item.kind !== "view" || !place || !drawn || !shownBox(item, drawn)) continue;
    const back: Vec2 = [-place.at[0], -place.at[1]];
    const { rowOfPiece } = boundGround(item, ground).tally;
    rings.set(item.id, {
      drawn,
      place,
      box: boxOfView(item, drawn, place.scale),
      blocked: [
        ...blocked.filter(({ id }) => id !== item.id).map((one) => movedBox(one.box, back)),
        ...captionRoom(box, boxOfView(item, drawn, place.scale)),
      ],
      border: movedBox(borderOf(page), back),
      markOf: (record) => rowOfPiece.get(record)?.mark ?? null,
      widths,
    });
  }
  const ofView = <K extends PageItem["kind"]>(kind: K, view: string) =>
    items.filter(
      (item): item is Extract<PageItem, { kind: K; view: string }> =>
        item.kind === kind && "view" in item && item.view === view,
    );
  const style = pageStyle(page, ground.job);
  const textsOf = (view: string) => {
    const item = finderIn(items)(view);
    return item?.kind === "view" ? boundGround(item, ground) : ground;
  };
  const attached = [...rings].flatMap(([view, ring]) => {
    const isSquare = seenSquare(page, items, view);
    const shown = finderIn(items)(view);
    const isApart = shown?.kind === "view" && Boolean(subjectOfView(shown, finderIn(items)).apart);
    const sizes = ofView("size", view).map((item) => drawnSize(item, { ...ring, style, isSquare, isApart }));
    const taken = sizes.map(({ box }) => box);
    return [
      ...sizes,
      ...balloonsOfView(ofView("balloon", view), { ...ring, blocked: [...ring.blocked, ...taken] }),
      ...ofView("callout", view).map((item) => placedCallout(item, ring, textsOf(view).lists)),
    ];
  });
  const size = sheetSize(page);
  const placed = [...standing, ...attached].map((one) => onSheet(one, size));
  return { page, size, frame, title, placed, places, rings };
}

/** mm. Borders of boxes are as wide as a line. */
const OFF_MM = 0.5;

/** An item, told where it runs off the sheet and nothing else is wrong with it: what is not on paper is not built. */
function onSheet(one: PlacedItem, { width, height }: SheetSize): PlacedItem {
  const { x0, y0, x1, y1 } = movedBox(one.box, one.at);
  const off = Math.max(-x0, -y0, x1 - width, y1 - height) > OFF_MM;
  return off && one.fault === null ? { ...one, fault: { kind: "offSheet" } } : one;
}

/** Finds an item of a page by its id. */
const finderIn =
  (items: readonly PageItem[]) =>
  (id: string): PageItem | undefined =>
    items.find((item) => item.id === id);

/** What is said of the pieces of a view: in the variant on the desk, or in that which the view is bound to. */
function boundGround(view: ViewItem, ground: PageGround): PageGround {
  const { variant } = subjectOfView(view, finderIn(ground.items));
  return variant === null ? ground : { ...ground, ...ground.inVariant(variant) };
}

/** Whether a view looks along an axis of what it shows. */
function seenSquare(page: Page, items: readonly PageItem[], id: string): boolean {
  const find = finderIn(items);
  const view = find(id);
  const axes = view?.kind === "view" ? axesOfView(view, find, page.projection) : null;
  return axes !== null && isSquareView(axes);
}

/** The room under a view that its caption takes. */
const captionRoom = (whole: PlaneBox, view: PlaneBox): readonly PlaneBox[] =>
  whole.y1 > view.y1 ? [{ ...whole, y0: whole.y1 - 7 }] : [];

/** A page as one display list, for files. */
export function flatPage({ size, frame, placed }: DrawnPage): Drawing {
  return { ...size, items: [...frame, ...placed.flatMap(({ items, at }) => movedBy(items, at))] };
}

function frameOf(
  page: Page,
  title: PlaneBox | null,
  ground: PageGround,
  widths: LineWidths,
): readonly DrawItem[] {
  const border = borderOf(page);
  const items: DrawItem[] = [];
  if (page.border)
    items.push({
      kind: "polygon",
      points: rectangle(border.x0, border.y0, border.x1 - border.x0, border.y1 - border.y0),
      stroke: { ink: "ink", width: widths.wide },
      fill: null,
      layer: "BORDER",
    });
  if (title) {
    const { projection } = page;
    const { assets, lists } = ground;
    const values = titleValues(page, ground);
    items.push(...titleBlock(lists.stockroom.titleBlock, title, { values, projection, assets, widths }));
  }
  return items;
}

/** What the words of a title block stand for on a page. */
function titleValues(
  page: Page,
  { job, head, sheet, sheets }: PageGround,
): Readonly<Record<TitleWord, string>> {
  const { info, revision, date, variantName, shop } = head;
  return {
    shop,
    title: info.title,
    number: info.code,
    page: page.heading,
    variant: variantName ?? "–",
    "drawn by": info.drawnBy,
    date,
    revision: String(revision),
    scale: scaleWords(page.scale, pageStyle(page, job).unit),
    sheet: String(sheet),
    sheets: String(sheets),
  };
}

function placedView(
  item: ViewItem,
  ground: PageGround,
  places: ReadonlyMap<string, ViewPlace>,
  page: Page,
): PlacedItem {
  const { views, job, items, lists } = ground;
  const [widths, { unit }] = [lineWidths(page.paper), pageStyle(page, job)];
  const place = places.get(item.id);
  const drawn = views.get(item.id);
  if (!place) return faulty(item, item.at, { kind: "lost", what: "followedView" });
  if (item.of.kind === "assembly" && !job.assemblies[item.of.assembly])
    return faulty(item, place.at, { kind: "lost", what: "assemblyOfView" });
  if (item.cut) {
    const at = lengthWith(lists.sizes, item.cut.at);
    if (!at.ok) return faulty(item, place.at, { kind: "cutNotComputed", problem: at.problem });
  }
  if (!drawn) return { item, at: place.at, ...WAITING, fault: null };
  if (drawn.box === null) return faulty(item, place.at, { kind: "nothingSeen" });
  if (!shownBox(item, drawn)) return faulty(item, place.at, { kind: "lost", what: "placeOfDetail" });
  const cutLines = cutMarks(item, { drawn, place, widths }, page, ground);
  const below = Math.max(
    sizesBelow(items, item.id),
    lowest(cutLines) - boxOfView(item, drawn, place.scale).y1,
  );
  const caption = { text: captionOf(item, place, unit), below };
  const radius = item.from.kind === "detail" ? item.from.radius : null;
  const strong = item.strong.join(" ");
  const from = [place.scale, item.look, strong, caption.text, caption.below, radius, widths.wide];
  // Metals closer than wood; neighbours lean to the two sides.
  const bound = boundGround(item, ground);
  const hatchOf = (piece: number): Hatch => ({
    angle: piece % 2 === 0 ? 45 : 135,
    apart: isOfMetal(drawn.pieces[piece]?.record ?? "", bound) ? 2 : 3.5,
  });
  const tintOf = (piece: number): Tint => tintOfPiece(drawn.pieces[piece]?.record ?? "", bound);
  const isFilled = drawn.sections.length + drawn.tints.length > 0;
  const own = viewsDrawn(drawn, [...from, isFilled ? bound.tally : null], () =>
    viewItems(item, drawn, place.scale, widths, caption, { hatchOf, tintOf }),
  );
  const details = items.flatMap((one) =>
    one.kind === "view" && one.from.kind === "detail" && one.from.of === item.id
      ? detailMark(one, { place, drawn, widths })
      : [],
  );
  const marks = [...details, ...cutLines];
  return {
    item,
    at: place.at,
    fault: heldFault(item, drawn),
    box: own.box,
    items: marks.length === 0 ? own.items : [...own.items, ...marks],
  };
}

/** What of a view cannot leave, or of a building step cannot get to its place; null: all can. */
function heldFault({ step }: ViewItem, { held, loose, coming }: DrawnView): ItemFault | null {
  if (step !== null && coming === null) return { kind: "lost", what: "stepOfView" };
  if (held.length > 0) return { kind: step === null ? "piecesHeld" : "piecesInTheWay", count: held.length };
  return loose.length > 0 ? { kind: "piecesLoose", count: loose.length } : null;
}

/** How far down the texts of some items reach. */
const lowest = (items: readonly DrawItem[]): number =>
  Math.max(
    Number.NEGATIVE_INFINITY,
    ...items.flatMap((item) => (item.kind === "text" ? [item.at[1] + item.size / 2] : [])),
  );

/** The lines of the cuts of other views that show the same thing. */
function cutMarks(
  item: ViewItem,
  {
    drawn,
    place,
    widths,
  }: { readonly drawn: DrawnView; readonly place: ViewPlace; readonly widths: LineWidths },
  page: Page,
  { items, lists }: PageGround,
): readonly DrawItem[] {
  const find = finderIn(items);
  const axes = axesOfView(item, find, page.projection);
  if (!axes || item.from.kind === "detail") return [];
  return items.flatMap((other) => {
    if (other.kind !== "view" || other.id === item.id || !other.cut || other.cut.letter === null) return [];
    const { axis, at, letter } = other.cut;
    if (JSON.stringify(other.of) !== JSON.stringify(item.of) || other.variant !== item.variant) return [];
    const from = axesOfView(other, find, page.projection);
    const where = lengthWith(lists.sizes, at);
    if (!from || !where.ok) return [];
    return cutMark(
      { cut: { axis, letter }, at: where.value, axes: from },
      { item, axes, drawn, place },
      widths,
    );
  });
}

function isOfMetal(record: string, { tally, lists }: PageGround): boolean {
  const row = tally.rowOfPiece.get(record);
  if (!row) return false;
  const { form } = row.shown;
  if (form.kind === "member") return form.shape !== null && form.shape.kind !== "timber";
  const board = row.stock === null ? undefined : lists.stockroom.boardById.get(row.stock);
  return board !== undefined && isMetal(board);
}

function tintOfPiece(record: string, ground: PageGround): Tint {
  const row = ground.tally.rowOfPiece.get(record);
  if (!row) return "rest";
  const { form } = row.shown;
  if (form.kind === "member") return form.shape?.kind === "timber" ? "timber" : "steel";
  if (form.kind !== "panel") return "rest";
  return isOfMetal(record, ground) ? "steel" : "board";
}

/** Moving a view draws nothing anew. */
const viewsDrawn = remembersEach<DrawnView, Pick<PlacedItem, "items" | "box">>();

/** How far the sizes under a view reach. */
const sizesBelow = (items: readonly PageItem[], view: string): number =>
  Math.max(
    0,
    ...items.flatMap((item) =>
      item.kind === "size" && item.view === view && item.side === "bottom" ? [item.out + 1] : [],
    ),
  );

const WAITING: Pick<PlacedItem, "items" | "box"> = {
  box: { x0: -25, y0: -10, x1: 25, y1: 10 },
  items: [
    { kind: "text", at: [0, 0], text: "Drawing…", size: 3.5, face: "text", align: "centre", ink: "soft" },
  ],
};

/** A detail always says its scale, another view where it has one of its own. */
function captionOf(
  { from, caption, cut, scale }: ViewItem,
  place: ViewPlace,
  unit: LengthUnit,
): string | null {
  const isDetail = from.kind === "detail";
  const letter = isDetail ? null : (cut?.letter ?? null);
  const named = letter === null ? [caption] : [`${letter}–${letter}`, caption];
  const name = isDetail ? (caption ?? from.letter) : named.filter((one) => one !== null).join(" ");
  if (name === "") return null;
  return isDetail || scale !== null ? `${name}, ${scaleWords(place.scale, unit)}` : name;
}
