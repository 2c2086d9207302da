/** What a cutter of ends is given, and what it gives. */
import type { Vec3 } from "../../geometry";
import { type EndCut, lengthWith, type MemberFace, type Sizes } from "../../job";
import { err, ok, type Result } from "../../kernel";
import type { EndSide, PlacedMember } from "../bar";
import type { MemberEnd } from "../ends";
import type { EndFault, MeetFault } from "../fault";

export type Others = Pick<ReadonlyMap<string, PlacedMember>, "get">;

export type EndGround = {
  readonly placed: PlacedMember;
  readonly side: EndSide;
  /** The point at which the member's line ends there. */
  readonly joint: Vec3;
  /** The members of its home. */
  readonly others: Others;
  readonly sizes: Sizes;
};

/** What is cut back on one side of an end: so deep from a face, so long from the tip. */
export type NotchPart = { readonly face: MemberFace; readonly depth: number; readonly length: number };

/** `open`: a mitre at which the two outlines do not fall on one another. `notches`: what is cut back beside it. */
export type CutEnd = {
  readonly end: MemberEnd;
  readonly open: boolean;
  readonly notches?: readonly NotchPart[];
};

/** Makes the end of a member from one kind of cut. */
export type Cutter<C extends EndCut> = (cut: C, ground: EndGround) => Result<CutEnd, EndFault>;

export const closed = (end: MemberEnd): Result<CutEnd, EndFault> => ok({ end, open: false });

/** A length of a cut in mm. */
export function lengthOf(
  { sizes }: EndGround,
  what: "gap" | "offset",
  text: string,
): Result<number, EndFault> {
  const read = lengthWith(sizes, text);
  return read.ok ? read : err({ kind: "text", what, problem: read.problem });
}

export const cannotMeet = (
  cut: Extract<EndFault, { kind: "cannotMeet" }>["cut"],
  { member }: PlacedMember,
  why: MeetFault,
): EndFault => ({ kind: "cannotMeet", cut, name: member.name, why });
