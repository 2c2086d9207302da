/** What belongs to a whole set of drawings in this shop: which pages are drawn up, and on which paper. */
import * as v from "valibot";

export const SetRecipeSchema = v.object({
  /** A page with the job as a picture and the list of all pages. */
  cover: v.boolean(),
  /** A page with views and sizes for the job, and one for each assembly in it. */
  views: v.boolean(),
  /** A page with the job whole and pulled apart. */
  apart: v.boolean(),
  /** Building steps, one on a page, for the job and each assembly. */
  steps: v.optional(v.boolean(), true),
  /** A card for each row that is made. */
  cards: v.boolean(),
  /** Full-size templates of the ends that no saw cuts in one plane. */
  templates: v.boolean(),
  cutList: v.boolean(),
  buyingList: v.boolean(),
  /** The layout of each stock with its cutting order. */
  layouts: v.boolean(),
  /** Lists of the job's own that belong to it, by their names: jobs have lists of the same name from the stockroom. */
  lists: v.optional(v.array(v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(80))), []),
  /** Sizes, and balloons, on pages of views. */
  sizes: v.optional(v.boolean(), true),
  balloons: v.optional(v.boolean(), true),
  /** No page of views is drawn larger than to this scale; null: as large as all that stands on it has room. */
  scale: v.optional(v.nullable(v.pipe(v.number(), v.finite(), v.minValue(0.0005), v.maxValue(100))), null),
  /** The paper of all of them but templates: `small` is A4 or letter, `medium` A3 or tabloid, `large` A2 or ANSI C. */
  paper: v.picklist(["small", "medium", "large"]),
});
export type SetRecipe = v.InferOutput<typeof SetRecipeSchema>;

export const USUAL_SET: SetRecipe = {
  cover: true,
  views: true,
  apart: true,
  steps: true,
  cards: true,
  templates: true,
  cutList: true,
  buyingList: true,
  layouts: true,
  lists: [],
  sizes: true,
  balloons: true,
  scale: null,
  paper: "medium",
};

/** Building steps alone. */
export const STEPS_ALONE: SetRecipe = {
  ...USUAL_SET,
  cover: false,
  views: false,
  apart: false,
  cards: false,
  templates: false,
  cutList: false,
  buyingList: false,
  layouts: false,
};
