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
  /** The paper of all of them but templates: `medium` is A3 or tabloid, `small` A4 or letter. */
  paper: v.picklist(["small", "medium"]),
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
  paper: "medium",
};

/** Building steps alone. */
export const STEPS_ALONE: SetRecipe = {
  cover: false,
  views: false,
  apart: false,
  steps: true,
  cards: false,
  templates: false,
  cutList: false,
  buyingList: false,
  layouts: false,
  paper: "medium",
};
