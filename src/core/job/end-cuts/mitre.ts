/** In the plane that halves the corner with `neighbour`; half of `gap`, where there is one, short of it. */
import * as v from "valibot";
import { formulaText } from "../text";
import { againstOne } from "./against-one";
import { type EndCutKind, gapText, memberId } from "./kind";
import type { SquareCut } from "./square";

export const MitreSchema = v.object({
  kind: v.literal("mitre"),
  neighbour: memberId,
  gap: v.optional(formulaText),
});
export type MitreCut = v.InferOutput<typeof MitreSchema>;

export const mitre: EndCutKind<MitreCut, SquareCut> = {
  name: "mitre",
  words: () => "mitre",
  texts: [gapText("gap")],
  ...againstOne,
  meets: "ends",
};
