/** Work on members: holes and slots through their walls, and notches at their ends. */
import * as v from "valibot";
import { formulaText, recordId } from "./text";

/** Holes, notches and so on of one member or panel; a row of holes is one. What comes out of a file may have many. */
export const MOST_WORK = 200;

/** The sides of a section, by its own height and width: those that "Line passes through" names. */
export const MEMBER_FACES = ["top", "bottom", "left", "right"] as const;
export type MemberFace = (typeof MEMBER_FACES)[number];

/**
 * A hole, or a row of `count` holes `step` apart. `along` leads to the middle of the first: from the tip of an end inwards, or from
 * the middle between both tips towards the end; `across` from the middle of the face, to the right on top and bottom, upwards on
 * the sides. `slot` is its length over all along the member; no longer than its diameter, it is round.
 */
const MemberHoleSchema = v.object({
  id: recordId,
  kind: v.literal("hole"),
  face: v.picklist(MEMBER_FACES),
  from: v.picklist(["start", "end", "middle"]),
  along: formulaText,
  across: formulaText,
  diameter: formulaText,
  slot: formulaText,
  /** Through the wall that is met first, or through all. */
  walls: v.picklist(["one", "all"]),
  count: formulaText,
  step: formulaText,
});
export type MemberHole = v.InferOutput<typeof MemberHoleSchema>;

/** A notch right across an end: `depth` into the section from a face, `length` along the member from its tip. */
const MemberNotchSchema = v.object({
  id: recordId,
  kind: v.literal("notch"),
  end: v.picklist(["start", "end"]),
  face: v.picklist(MEMBER_FACES),
  depth: formulaText,
  length: formulaText,
});
export type MemberNotch = v.InferOutput<typeof MemberNotchSchema>;

export const MemberWorkSchema = v.variant("kind", [MemberHoleSchema, MemberNotchSchema]);
export type MemberWork = v.InferOutput<typeof MemberWorkSchema>;

/** The formulas of a piece of work, changed one by one. */
export function withWorkTexts(work: MemberWork, change: (text: string) => string): MemberWork {
  if (work.kind === "notch") return { ...work, depth: change(work.depth), length: change(work.length) };
  return {
    ...work,
    along: change(work.along),
    across: change(work.across),
    diameter: change(work.diameter),
    slot: change(work.slot),
    count: change(work.count),
    step: change(work.step),
  };
}

const OTHER_END = { start: "end", end: "start" } as const;

/**
 * The same work on a member that runs the other way, as mirrored copies do: their section stands as it stood, seen in its own
 * axes. What is measured from the middle towards the end then leads towards the start.
 */
export function reversedWork(work: MemberWork, negative: (text: string) => string): MemberWork {
  if (work.kind === "notch") return { ...work, end: OTHER_END[work.end] };
  if (work.from !== "middle") return { ...work, from: OTHER_END[work.from] };
  return { ...work, along: negative(work.along), step: negative(work.step) };
}
