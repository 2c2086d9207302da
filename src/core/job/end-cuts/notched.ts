/** Notched so that it fits up to a `neighbour` with legs or flanges, `gap` away from each of them: what stands in their way is cut back. */
import * as v from "valibot";
import { formulaText } from "../text";
import { againstOne } from "./against-one";
import { type EndCutKind, gapText, memberId } from "./kind";
import type { SquareCut } from "./square";

export const NotchedSchema = v.object({
  kind: v.literal("notched"),
  neighbour: memberId,
  gap: formulaText,
});
type NotchedCut = v.InferOutput<typeof NotchedSchema>;

export const notched: EndCutKind<NotchedCut, SquareCut> = {
  name: "notched to fit",
  words: () => "notched",
  texts: [gapText("gap")],
  ...againstOne,
  meets: "anywhere",
};
