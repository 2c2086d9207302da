/** In the level plane through its point, `offset` above it: the foot of a splayed leg. */
import * as v from "valibot";
import { formulaText } from "../text";
import { type EndCutKind, standsAlone } from "./kind";

export const LevelSchema = v.object({ kind: v.literal("level"), offset: formulaText });
type LevelCut = v.InferOutput<typeof LevelSchema>;

export const level: EndCutKind<LevelCut> = {
  name: "horizontal",
  words: () => "horizontal",
  texts: [{ field: "offset", label: (point) => `Height above ${point}` }],
  ...standsAlone,
  mirrored: (cut, axis, negative) => (axis === 2 ? { ...cut, offset: negative(cut.offset) } : cut),
};
