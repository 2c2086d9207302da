/**
 * Cut from both sides to a ridge through its point, `offset` further out: `first` and `second` are the degrees from
 * square on the two sides of it, across the width or the height of the section.
 */
import * as v from "valibot";
import { formulaText } from "../text";
import type { EndCutKind } from "./kind";

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
    { field: "first", measure: "angle", label: (point) => `Degrees on one side, at ${point}` },
    { field: "second", measure: "angle", label: (point) => `Degrees on the other side, at ${point}` },
    { field: "offset", measure: "length", label: (point) => `Extension at ${point}` },
  ],
  neighbours: () => [],
  meets: "anywhere",
  replaced: (cut) => cut,
  without: (cut) => cut,
  mirrored: (cut) => cut,
};
