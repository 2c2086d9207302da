/** Round a round `neighbour`, `gap` away from its surface; `curve` is the one that is cut along. */
import * as v from "valibot";
import { formulaText } from "../text";
import { againstOne } from "./against-one";
import { type EndCutKind, gapText, memberId } from "./kind";
import type { SquareCut } from "./square";

export const CopeSchema = v.object({
  kind: v.literal("cope"),
  neighbour: memberId,
  gap: formulaText,
  curve: v.picklist(["surface", "fit"]),
});
type CopeCut = v.InferOutput<typeof CopeSchema>;

export const cope: EndCutKind<CopeCut, SquareCut> = {
  name: "cope",
  words: () => "cope",
  texts: [gapText("gap")],
  ...againstOne,
  meets: "anywhere",
};
