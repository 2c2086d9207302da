/**
 * Two mitres at one end: in the planes that halve the corners with both `neighbours`, half of `gap` short of each. It
 * fits into the corner between the two, as where three members of one frame meet.
 */
import * as v from "valibot";
import { formulaText } from "../text";
import { type EndCutKind, gapText, type MemberId, memberId, unchanged } from "./kind";
import type { MitreCut } from "./mitre";
import { SQUARE_END, type SquareCut } from "./square";

export const DoubleMitreSchema = v.object({
  kind: v.literal("doubleMitre"),
  neighbours: v.tuple([memberId, memberId]),
  gap: formulaText,
});
type DoubleMitreCut = v.InferOutput<typeof DoubleMitreSchema>;

export const doubleMitre: EndCutKind<DoubleMitreCut, MitreCut | SquareCut> = {
  name: "double mitre",
  words: () => "double mitre",
  texts: [gapText("gap")],
  neighbours: ({ neighbours }) => neighbours,
  meets: "ends",
  replaced(cut, old, other) {
    // With both against one member it would be a mitre: taking the other one's neighbour changes the two over.
    const changed = (id: MemberId) => (id === old ? other : id === other ? old : id);
    return { ...cut, neighbours: [changed(cut.neighbours[0]), changed(cut.neighbours[1])] };
  },
  without(cut, gone) {
    const [first, second] = cut.neighbours.filter((id) => !gone.has(id));
    if (first && second) return cut;
    return first ? { kind: "mitre", neighbour: first, gap: cut.gap } : SQUARE_END;
  },
  mirrored: unchanged,
};
