/** A member: a length of a section along a line, with an end cut at either end. */
import * as v from "valibot";
import { role } from "./assembly";
import { EndCutSchema, memberId } from "./end-cuts";
import { entity } from "./entity";
import { look } from "./look";
import { MemberWorkSchema, MOST_WORK } from "./member-work";
import { condition, formulaText, materialName, recordId, shortName } from "./text";

export const MemberSchema = v.object({
  id: memberId,
  name: shortName,
  line: v.pipe(recordId, v.brand("LineId")),
  /** Entry of the stockroom; null: what is usual in its assembly or in the job. */
  section: v.nullable(recordId),
  /** Overrides what is usual, and that the material of the stockroom entry. */
  material: materialName,
  /** Degrees about the line, or a formula for them. */
  roll: formulaText,
  /** Which point of the section lies on the line: the cardinal points 1 to 10 of IFC (ISO 16739-1). */
  cardinal: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(10)),
  when: condition,
  start: EndCutSchema,
  end: EndCutSchema,
  work: v.pipe(v.array(MemberWorkSchema), v.maxLength(MOST_WORK)),
  role,
  look,
  leftOut: v.boolean(),
});
export type Member = v.InferOutput<typeof MemberSchema>;
export const members = entity(MemberSchema, {
  // All were always present, made, and had no look of their own.
  added: { 2: { when: null }, 3: { role: "made", look: null }, 10: { work: [] } },
});
