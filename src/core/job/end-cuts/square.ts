/**
 * Cut square, `offset` beyond its point (negative: short of it); with `past`, run on until it is flush with the far
 * face of that member, which butts against it.
 */
import * as v from "valibot";
import { formulaText } from "../text";
import { type EndCutKind, memberId, unchanged } from "./kind";

export const SquareSchema = v.object({
  kind: v.literal("square"),
  offset: formulaText,
  past: v.nullable(memberId),
});
export type SquareCut = v.InferOutput<typeof SquareSchema>;

export const SQUARE_END: SquareCut = { kind: "square", offset: "0", past: null };

export const square: EndCutKind<SquareCut> = {
  name: "square",
  words: ({ past }) => (past ? "runs past" : "square"),
  texts: [{ field: "offset", label: (point) => `Extension at ${point}` }],
  neighbours: ({ past }) => (past === null ? [] : [past]),
  meets: "ends",
  replaced: (cut, _, other) => ({ ...cut, past: other }),
  without: (cut, gone) => (gone.has(cut.past ?? "") ? SQUARE_END : cut),
  mirrored: unchanged,
};
