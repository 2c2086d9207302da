/** A member: a length of a section along a line, with an end cut at either end. */
import * as v from "valibot";
import { role } from "./assembly";
import { look } from "./look";
import { condition, formulaText, materialName, recordId, shortName } from "./text";

const memberId = v.pipe(recordId, v.brand("MemberId"));

/**
 * How a member ends.
 * `square`: cut square, `offset` beyond its point (negative: short of it); with `past`, run on until it
 * is flush with the far face of that member, which butts against it.
 * `mitre`: in the plane that halves the corner with `neighbour`; half of `gap`, where there is one, short of it.
 * `cope`: round a round `neighbour`, `gap` away from its surface; `curve` is the one that is cut along.
 * `level`: in the level plane through its point, `offset` above it: the foot of a splayed leg.
 * `butt`: against the face of `neighbour` that it meets first, `gap` away from it.
 */
const EndCutSchema = v.variant("kind", [
  v.object({ kind: v.literal("square"), offset: formulaText, past: v.nullable(memberId) }),
  v.object({ kind: v.literal("mitre"), neighbour: memberId, gap: v.optional(formulaText) }),
  v.object({ kind: v.literal("butt"), neighbour: memberId, gap: formulaText }),
  v.object({ kind: v.literal("level"), offset: formulaText }),
  v.object({
    kind: v.literal("cope"),
    neighbour: memberId,
    gap: formulaText,
    curve: v.picklist(["surface", "fit"]),
  }),
]);
export type EndCut = v.InferOutput<typeof EndCutSchema>;

/** The member that an end is cut against or runs past; null where it stands alone. */
export function neighbourOf(cut: EndCut): MemberId | null {
  switch (cut.kind) {
    case "square":
      return cut.past;
    case "level":
      return null;
    default:
      return cut.neighbour;
  }
}

/** The same cut against another member; an end that stands alone stays as it is. */
export function against(cut: EndCut, member: MemberId): EndCut {
  switch (cut.kind) {
    case "square":
      return { ...cut, past: member };
    case "level":
      return cut;
    default:
      return { ...cut, neighbour: member };
  }
}

/** The length or formula of an end cut; null where it has none. */
export function cutText(cut: EndCut): string | null {
  if (cut.kind === "mitre") return cut.gap ?? null;
  return cut.kind === "butt" || cut.kind === "cope" ? cut.gap : cut.offset;
}

export const SQUARE_END: EndCut = { kind: "square", offset: "0", past: null };

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
  role,
  look,
  leftOut: v.boolean(),
});
export type Member = v.InferOutput<typeof MemberSchema>;
export type MemberId = Member["id"];
