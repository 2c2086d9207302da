/** Against the face of `neighbour` that it meets first, `gap` away from it. */
import * as v from "valibot";
import { formulaText } from "../text";
import { type EndCutKind, gapText, memberId } from "./kind";
import { SQUARE_END, type SquareCut } from "./square";

export const ButtSchema = v.object({ kind: v.literal("butt"), neighbour: memberId, gap: formulaText });
type ButtCut = v.InferOutput<typeof ButtSchema>;

export const butt: EndCutKind<ButtCut, SquareCut> = {
  name: "butt",
  words: () => "butt",
  texts: [gapText("gap")],
  neighbours: ({ neighbour }) => [neighbour],
  meets: "anywhere",
  replaced: (cut, _, other) => ({ ...cut, neighbour: other }),
  without: (cut, gone) => (gone.has(cut.neighbour) ? SQUARE_END : cut),
  mirrored: (cut) => cut,
};
