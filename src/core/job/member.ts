/** A member: a length of a section along a line, with an end cut at either end. */
import * as v from "valibot";
import { formulaText, materialName, recordId, shortName } from "./text";

const memberId = v.pipe(recordId, v.brand("MemberId"));

/**
 * How a member ends.
 * `square`: cut square, `offset` beyond its point (negative: short of it); with `past`, run on until it
 * is flush with the far face of that member, which butts against it.
 * `mitre`: in the plane that halves the corner with `neighbour`.
 * `butt`: against the face of `neighbour` that it meets first, `gap` away from it.
 */
export const EndCutSchema = v.variant("kind", [
  v.object({ kind: v.literal("square"), offset: formulaText, past: v.nullable(memberId) }),
  v.object({ kind: v.literal("mitre"), neighbour: memberId }),
  v.object({ kind: v.literal("butt"), neighbour: memberId, gap: formulaText }),
]);
export type EndCut = v.InferOutput<typeof EndCutSchema>;

export const SQUARE_END: EndCut = { kind: "square", offset: "0", past: null };

export const MemberSchema = v.object({
  id: memberId,
  name: shortName,
  line: v.pipe(recordId, v.brand("LineId")),
  /** Entry of the stockroom; null: nobody chose one yet. */
  section: v.nullable(recordId),
  /** Overrides the material of the stockroom entry. */
  material: materialName,
  /** Degrees about the line, or a formula for them. */
  roll: formulaText,
  /** Which point of the section lies on the line: the cardinal points 1 to 10 of IFC (ISO 16739-1). */
  cardinal: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(10)),
  start: EndCutSchema,
  end: EndCutSchema,
  leftOut: v.boolean(),
});
export type Member = v.InferOutput<typeof MemberSchema>;
export type MemberId = Member["id"];
