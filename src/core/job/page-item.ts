/**
 * What stands on pages: views, lists, balloons, callouts, notes, rules. An item names what it shows by record ids, with
 * the way through placements for one instance of several; never by coordinates of the design. Places are millimetres
 * on the page, from its upper left corner right and down; those of what belongs to a view are from the place of the view.
 */
import * as v from "valibot";
import { assetId, own } from "../kernel";
import { entity } from "./entity";
import { FeatureSchema, letters, PointedSchema, place, placed, text } from "./item-parts";
import { StepItemSchema } from "./step-item";
import { coordinate, keyText, recordId } from "./text";
import { ViewItemSchema } from "./view-item";

/** The corner of a list that stays where it is when the list grows. */
export const LIST_CORNERS = ["topLeft", "topRight", "bottomLeft", "bottomRight"] as const;
export type ListCorner = (typeof LIST_CORNERS)[number];

const columnWidth = v.pipe(
  v.number(),
  v.finite(),
  v.minValue(4, "is below 4 mm"),
  v.maxValue(400, "is above 400 mm"),
);

const ListItemSchema = v.object({
  ...placed,
  kind: v.literal("list"),
  at: place,
  /** The cut list, the buying list, one of the job's own lists by its id, or a layout. */
  list: v.variant("kind", [
    v.object({ kind: v.literal("cut") }),
    v.object({ kind: v.literal("buying") }),
    /** What is in the set: its pages. */
    v.object({ kind: v.literal("pages") }),
    v.object({ kind: v.literal("own"), list: recordId }),
    /** The layout of a stock size with its cutting order, by the task that asks for it. */
    v.object({ kind: v.literal("layout"), task: keyText(200) }),
    /** What another list, here or on another page, has no room for; it looks as that one does. */
    v.object({ kind: v.literal("rest"), of: recordId }),
  ]),
  corner: v.picklist(LIST_CORNERS),
  width: v.pipe(v.number(), v.finite(), v.minValue(20, "is below 20 mm"), v.maxValue(1_200)),
  /** How tall it may grow before it goes on beside itself; null: as tall as it is. */
  height: v.nullable(v.pipe(v.number(), v.finite(), v.minValue(15, "is below 15 mm"), v.maxValue(1_200))),
  /** How often it goes on beside itself at most, itself counted; null: as often as it takes. */
  columns: v.optional(v.nullable(v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(20))), null),
  silhouettes: v.boolean(),
  /** Widths in mm of columns by their ids; the others share what is left. */
  columnWidths: v.optional(v.record(keyText(80), columnWidth), {}),
  /** The least height of a row in mm, to write or tick in; null: as tall as its text. */
  rowHeight: v.optional(
    v.nullable(
      v.pipe(v.number(), v.finite(), v.minValue(4, "is below 4 mm"), v.maxValue(40, "is above 40 mm")),
    ),
    null,
  ),
});
export type ListItem = v.InferOutput<typeof ListItemSchema>;

/** Where a balloon stands: on the ring round its view, or where somebody put it, from the place of the view. */
const BalloonPlaceSchema = v.variant("kind", [
  v.object({
    kind: v.literal("ring"),
    side: v.picklist(["top", "right", "bottom", "left"]),
    /** Steps from the middle of the side. */
    step: v.pipe(v.number(), v.integer(), v.minValue(-10_000), v.maxValue(10_000)),
  }),
  v.object({ kind: v.literal("hand"), at: place }),
]);
export type BalloonPlace = v.InferOutput<typeof BalloonPlaceSchema>;

/** A list as it is before anybody changes it: a cut list, as tall as it is. */
export const plainList = (own: Pick<ListItem, "id" | "page"> & Partial<ListItem>): ListItem => ({
  kind: "list",
  at: [0, 0],
  list: { kind: "cut" },
  corner: "topLeft",
  width: 170,
  height: null,
  columns: null,
  silhouettes: false,
  columnWidths: {},
  rowHeight: null,
  ...own,
});

/** The lists of which an item shows a part, in their order, itself the last; null: one is gone, or it goes round. */
export function listChain(
  item: ListItem,
  items: Readonly<Record<string, PageItem>>,
): readonly [ListItem, ...ListItem[]] | null {
  let chain: readonly [ListItem, ...ListItem[]] = [item];
  for (;;) {
    const { list } = chain[0];
    if (list.kind !== "rest") return chain;
    const before = own(items, list.of);
    if (before?.kind !== "list" || chain.some(({ id }) => id === before.id)) return null;
    chain = [before, ...chain];
  }
}

const BalloonItemSchema = v.object({
  ...placed,
  kind: v.literal("balloon"),
  view: recordId,
  /** The first one names the row; a leader to each. */
  pieces: v.pipe(v.array(PointedSchema), v.minLength(1, "points at nothing"), v.maxLength(60)),
  stands: BalloonPlaceSchema,
});
export type BalloonItem = v.InferOutput<typeof BalloonItemSchema>;

const CalloutItemSchema = v.object({
  ...placed,
  kind: v.literal("callout"),
  view: recordId,
  piece: PointedSchema,
  /** Text with columns of the cut list, or of the job's own, in braces. */
  pattern: text,
  /** From the place of the view. */
  at: place,
  letters,
});
export type CalloutItem = v.InferOutput<typeof CalloutItemSchema>;

const SIZE_MEASURES = ["horizontal", "vertical", "along", "diameter", "radius", "angle"] as const;
export type SizeMeasure = (typeof SIZE_MEASURES)[number];

/** A dimension: its value is computed from what it measures. */
const SizeItemSchema = v.object({
  ...placed,
  kind: v.literal("size"),
  view: recordId,
  measure: v.picklist(SIZE_MEASURES),
  from: FeatureSchema,
  /** null for diameters and radii, which measure one thing. */
  to: v.nullable(FeatureSchema),
  /** Of a length: places between the two, in their order, that part it into equal steps. */
  between: v.optional(v.pipe(v.array(FeatureSchema), v.maxLength(199)), []),
  /** The side of the view on which its line stands; `own`: off what it measures itself. */
  side: v.picklist(["top", "right", "bottom", "left", "own"]),
  /** How far off, in mm; of an angle the radius. */
  out: coordinate,
  /** What stands there instead of the value, visibly; null: the value. */
  typed: v.nullable(v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(40))),
  /** For reference only: in brackets. */
  brackets: v.boolean(),
});
export type SizeItem = v.InferOutput<typeof SizeItemSchema>;

const NoteItemSchema = v.object({
  ...placed,
  kind: v.literal("note"),
  at: place,
  text,
  letters,
  /** Longer lines are broken; null: only where the text itself is. */
  width: v.nullable(v.pipe(v.number(), v.finite(), v.minValue(10, "is below 10 mm"), v.maxValue(1_200))),
  strong: v.boolean(),
});
export type NoteItem = v.InferOutput<typeof NoteItemSchema>;

/** A straight line, or a frame that has it as its diagonal. */
const RuleItemSchema = v.object({
  ...placed,
  kind: v.literal("rule"),
  at: place,
  to: place,
  frame: v.boolean(),
});
export type RuleItem = v.InferOutput<typeof RuleItemSchema>;

/** A picture, by its content; as wide as it says and as tall as its pixels make it. */
const PictureItemSchema = v.object({
  ...placed,
  kind: v.literal("picture"),
  at: place,
  asset: assetId,
  width: v.pipe(v.number(), v.finite(), v.minValue(1, "is below 1 mm"), v.maxValue(1_200)),
  /** Of its pixels: height for a width of one. */
  ratio: v.pipe(v.number(), v.finite(), v.minValue(0.001), v.maxValue(1_000)),
});
export type PictureItem = v.InferOutput<typeof PictureItemSchema>;

const partNumber = v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(19));
const partCount = v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(20));

/** A pattern at full size: the ends of a member, to be wrapped round it, or a panel. */
const TemplateItemSchema = v.object({
  ...placed,
  kind: v.literal("template"),
  /** Its upper left corner. */
  at: place,
  /** A piece of the row that it is for. */
  record: recordId,
  ends: v.picklist(["start", "end", "both"]),
  side: v.picklist(["outside", "inside"]),
  /** `surface`: where the end meets the surface that the paper lies on; `fit`: for a blade held square to the member. */
  line: v.picklist(["surface", "fit"]),
  /** mm. The thickness of the paper that it is printed on. */
  paper: v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(2, "is above 2 mm")),
  /** Which part of it stands here, where it is larger than a page. */
  part: v.pipe(
    v.object({ column: partNumber, row: partNumber, columns: partCount, rows: partCount }),
    v.check(({ column, row, columns, rows }) => column < columns && row < rows, "is no part of it"),
  ),
});
export type TemplateItem = v.InferOutput<typeof TemplateItemSchema>;

/** A template as it is before anybody changes it: both ends, outside, on usual paper, in one part. */
export const plainTemplate = (
  own: Pick<TemplateItem, "id" | "page" | "record"> & Partial<TemplateItem>,
): TemplateItem => ({
  kind: "template",
  at: [0, 0],
  ends: "both",
  side: "outside",
  line: "surface",
  paper: 0.1,
  part: { column: 0, row: 0, columns: 1, rows: 1 },
  ...own,
});

/** The card of a row: the piece with all that is needed to make it. */
const CardItemSchema = v.object({
  ...placed,
  kind: v.literal("card"),
  /** Its upper left corner. */
  at: place,
  /** A piece of the row that it is for. */
  record: recordId,
  width: v.pipe(v.number(), v.finite(), v.minValue(90, "is below 90 mm"), v.maxValue(800)),
  height: v.pipe(v.number(), v.finite(), v.minValue(70, "is below 70 mm"), v.maxValue(800)),
  /** With a small picture of where it sits in the job. */
  sits: v.boolean(),
});
export type CardItem = v.InferOutput<typeof CardItemSchema>;

/** A card as it is before anybody changes it. */
export const plainCard = (own: Pick<CardItem, "id" | "page" | "record"> & Partial<CardItem>): CardItem => ({
  kind: "card",
  at: [0, 0],
  width: 185,
  height: 95,
  sits: true,
  ...own,
});

export const PageItemSchema = v.variant("kind", [
  ViewItemSchema,
  ListItemSchema,
  BalloonItemSchema,
  CalloutItemSchema,
  SizeItemSchema,
  NoteItemSchema,
  RuleItemSchema,
  PictureItemSchema,
  TemplateItemSchema,
  CardItemSchema,
  StepItemSchema,
]);
export type PageItem = v.InferOutput<typeof PageItemSchema>;
export type PageItemId = PageItem["id"];
export const pageItems = entity(PageItemSchema, { since: 9 });

/** The view that an item moves along with; null: it stands by itself. */
export const movesWith = (item: PageItem): string | null =>
  item.kind === "view" && item.from.kind === "detail" ? null : viewOf(item);

/** The view that an item belongs to or follows; null: it stands by itself. */
export function viewOf(item: PageItem): string | null {
  switch (item.kind) {
    case "view":
      return item.from.kind === "follower" || item.from.kind === "detail" ? item.from.of : null;
    case "balloon":
    case "callout":
    case "size":
      return item.view;
    case "list":
    case "note":
    case "rule":
    case "picture":
    case "template":
    case "card":
    case "step":
      return null;
    default:
      return item satisfies never;
  }
}
