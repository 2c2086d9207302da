/**
 * In a plane of its own through its point, `offset` further out: it leans by degrees from square across the width and
 * across the height of the section; above zero, the side to which that axis of the section points is the longer one.
 */
import * as v from "valibot";
import { formulaText } from "../text";
import { type EndCutKind, standsAlone, unchanged } from "./kind";

export const AngledSchema = v.object({
  kind: v.literal("angled"),
  acrossWidth: formulaText,
  acrossHeight: formulaText,
  offset: formulaText,
});
type AngledCut = v.InferOutput<typeof AngledSchema>;

export const angled: EndCutKind<AngledCut> = {
  name: "at an angle",
  words: ({ acrossWidth, acrossHeight }) =>
    acrossHeight === "0" ? `${acrossWidth}°` : `${acrossWidth}°, ${acrossHeight}°`,
  texts: [
    { field: "acrossWidth", label: (point) => `Degrees across its width, at ${point}` },
    { field: "acrossHeight", label: (point) => `Degrees across its height, at ${point}` },
    { field: "offset", label: (point) => `Extension at ${point}` },
  ],
  ...standsAlone,
  // Mirrored copies run the other way with their section turned over: seen outwards, each end leans as before.
  mirrored: unchanged,
};
