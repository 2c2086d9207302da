/** Against the face of `neighbour` that it meets first, `gap` away from it. */
import * as v from "valibot";
import { formulaText } from "../text";
import { againstOne } from "./against-one";
import { type EndCutKind, gapText, memberId } from "./kind";
import type { SquareCut } from "./square";

export const ButtSchema = v.object({ kind: v.literal("butt"), neighbour: memberId, gap: formulaText });
type ButtCut = v.InferOutput<typeof ButtSchema>;

export const butt: EndCutKind<ButtCut, SquareCut> = {
  name: "butt",
  words: () => "butt",
  texts: [gapText("gap")],
  ...againstOne,
  meets: "anywhere",
};
