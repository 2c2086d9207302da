/** Views of pages: what they show, from where, how it is drawn. */
import * as v from "valibot";
import { FeatureSchema, place, placed, records, share } from "./item-parts";
import { pageScale } from "./page";
import { coordinate, formulaText, recordId } from "./text";

/** The named directions that a view may look from. */
export const VIEW_SIDES = [
  "front",
  "back",
  "left",
  "right",
  "top",
  "bottom",
  "frontLeft",
  "frontRight",
  "backRight",
  "backLeft",
] as const;
export type ViewSide = (typeof VIEW_SIDES)[number];
export const FOLLOWER_SIDES = ["left", "right", "above", "below"] as const;
export type FollowerSide = (typeof FOLLOWER_SIDES)[number];
export const VIEW_LOOKS = ["lines", "hidden", "tints", "shaded"] as const;
export type ViewLook = (typeof VIEW_LOOKS)[number];

/** What a view shows. */
const ViewOfSchema = v.variant("kind", [
  v.object({ kind: v.literal("job") }),
  v.object({ kind: v.literal("assembly"), assembly: v.pipe(recordId, v.brand("AssemblyId")) }),
  /** These records wherever they stand; a placement stands for all that is in it. */
  v.object({ kind: v.literal("pieces"), records: v.pipe(records, v.minLength(1)) }),
  /** One piece, in its own axes. */
  v.object({ kind: v.literal("piece"), record: recordId }),
]);
export type ViewOf = v.InferOutput<typeof ViewOfSchema>;

const direction = v.pipe(
  v.tuple([coordinate, coordinate, coordinate]),
  v.check(([x, y, z]) => Math.hypot(x, y, z) > 1e-6, "has no length"),
);

/** By which a cut or a detail is told to belong to another view. */
const letter = v.pipe(v.string(), v.trim(), v.minLength(1, "needs a letter"), v.maxLength(4));

/** From where it looks. */
const ViewFromSchema = v.variant("kind", [
  v.object({ kind: v.literal("named"), side: v.picklist(VIEW_SIDES) }),
  /** From what is drawn towards whoever looks at it. */
  v.object({ kind: v.literal("typed"), towards: direction }),
  /** Projected from another view of the page, in line with it: on which side of it, how far from edge to edge. */
  v.object({
    kind: v.literal("follower"),
    of: recordId,
    side: v.picklist(FOLLOWER_SIDES),
    gap: coordinate,
  }),
  /** A part of another view of the page, about a place of it, larger. */
  v.object({
    kind: v.literal("detail"),
    of: recordId,
    about: FeatureSchema,
    /** mm of the design. */
    radius: v.pipe(v.number(), v.finite(), v.minValue(0.1, "is below 0.1 mm"), v.maxValue(100_000)),
    /** By which the two are told to belong together. */
    letter,
  }),
]);
export type ViewFrom = v.InferOutput<typeof ViewFromSchema>;

/** A plane across an axis of what the view shows, at a length or formula: what lies before it is left away. */
const CutSchema = v.object({
  axis: v.picklist(["width", "depth", "height"]),
  at: formulaText,
  /** At both ends of the line by which other views show where it is cut; null: they do not. */
  letter: v.optional(v.nullable(letter), null),
});
export type ViewCut = v.InferOutput<typeof CutSchema>;

export const ViewItemSchema = v.object({
  ...placed,
  kind: v.literal("view"),
  /** Of the middle of what it shows; of a follower only what its view leaves free is read. */
  at: place,
  of: ViewOfSchema,
  from: ViewFromSchema,
  /** null: that of the page, or of the view that it follows. */
  scale: v.nullable(pageScale),
  look: v.picklist(VIEW_LOOKS),
  /** Records that it leaves out. */
  hidden: records,
  /** Records that stand out: all others are drawn pale. Empty: all are drawn alike. */
  strong: v.optional(records, []),
  /** Its pieces and assemblies stand away from their places: from 0, not at all, to 1, each clear of the others; null: it is whole. */
  apart: v.optional(v.nullable(share), null),
  /** Pieces and placements that stand apart as a hand put them: mm along the width, depth and height of what the view shows. */
  apartBy: v.optional(
    v.pipe(
      v.array(v.object({ record: recordId, by: v.tuple([coordinate, coordinate, coordinate]) })),
      v.maxLength(2_000),
    ),
    [],
  ),
  /** The building step that it shows, by its item: what is there by then, what comes in standing out; null: it shows all. */
  step: v.optional(v.nullable(recordId), null),
  /** The variant that it is bound to; null: the one on the desk. */
  variant: v.nullable(recordId),
  /** null: it is not cut. */
  cut: v.nullable(CutSchema),
  /** What stands under it; null: nothing. */
  caption: v.nullable(v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(80))),
});
export type ViewItem = v.InferOutput<typeof ViewItemSchema>;

/** A view as it is before anybody changes it: the job from the front. */
export const plainView = (own: Pick<ViewItem, "id" | "page"> & Partial<ViewItem>): ViewItem => ({
  kind: "view",
  at: [0, 0],
  of: { kind: "job" },
  from: { kind: "named", side: "front" },
  scale: null,
  look: "lines",
  hidden: [],
  strong: [],
  apart: null,
  apartBy: [],
  step: null,
  variant: null,
  cut: null,
  caption: null,
  ...own,
});
