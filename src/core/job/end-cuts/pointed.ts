/**
 * Cut from both sides to a ridge through its point, `offset` further out: `first` and `second` are the degrees from
 * square on the two sides of it, across the width or the height of the section.
 */
import * as v from "valibot";
import { formulaText } from "../text";
import { type EndCutKind, standsAlone, unchanged } from "./kind";

export const PointedSchema = v.object({
  kind: v.literal("pointed"),
  across: v.picklist(["width", "height"]),
  first: formulaText,
  second: formulaText,
  offset: formulaText,
});
type PointedCut = v.InferOutput<typeof PointedSchema>;

export const pointed: EndCutKind<PointedCut> = {
  name: "pointed",
  words: () => "pointed",
  texts: [
    { field: "first", label: (point) => `Degrees on one side, at ${point}` },
    { field: "second", label: (point) => `Degrees on the other side, at ${point}` },
    { field: "offset", label: (point) => `Extension at ${point}` },
  ],
  ...standsAlone,
  mirrored: unchanged,
};
