/**
 * In two planes of its own, each through its point and its own offset further out: both lean by degrees from square across
 * the width and across the height of the section, as an end at an angle does; of both, the nearer one stands.
 */
import * as v from "valibot";
import { formulaText } from "../text";
import { type EndCutKind, standsAlone, unchanged } from "./kind";

export const TwoAnglesSchema = v.object({
  kind: v.literal("twoAngles"),
  acrossWidth: formulaText,
  acrossHeight: formulaText,
  offset: formulaText,
  secondAcrossWidth: formulaText,
  secondAcrossHeight: formulaText,
  secondOffset: formulaText,
});
type TwoAnglesCut = v.InferOutput<typeof TwoAnglesSchema>;

export const twoAngles: EndCutKind<TwoAnglesCut> = {
  name: "at two angles",
  words: (cut) =>
    `${cut.acrossWidth}°, ${cut.acrossHeight}° and ${cut.secondAcrossWidth}°, ${cut.secondAcrossHeight}°`,
  texts: [
    { field: "acrossWidth", label: (point) => `First, ° across width, at ${point}` },
    { field: "acrossHeight", label: (point) => `First, ° across height, at ${point}` },
    { field: "offset", label: (point) => `First, extension at ${point}` },
    { field: "secondAcrossWidth", label: (point) => `Second, ° across width, at ${point}` },
    { field: "secondAcrossHeight", label: (point) => `Second, ° across height, at ${point}` },
    { field: "secondOffset", label: (point) => `Second, extension at ${point}` },
  ],
  ...standsAlone,
  // As of an end at an angle.
  mirrored: unchanged,
};
