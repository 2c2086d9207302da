/** The boxes that solids surely fill, and the pairs of them that were found to share room. */
import type { Polygon, Vec3 } from "../geometry";
import type { MemberSolid } from "./member";

/** A solid or the part of it that fills a box: its middle and half its sizes along its own axes. */
export type Box = {
  readonly id: string;
  readonly name: string;
  readonly frame: MemberSolid["frame"];
  readonly low: Vec3;
  readonly high: Vec3;
  readonly middle: Vec3;
  readonly half: Vec3;
  /** Half its size along the axes of the job. */
  readonly reach: Vec3;
  readonly grooves: readonly { readonly from: Vec3; readonly to: Vec3 }[];
  /** The parts of a section that it surely fills, each in axes turned about the z of the whole; null: all of the box. */
  readonly parts: readonly BoxPart[] | null;
  /** Of a panel that is no rectangle, in its own axes; null: all of the box is filled. */
  readonly outline: Polygon | null;
  /** What is cut out of it. */
  readonly openings: readonly Polygon[];
};

/** A part of a member: a box of its own between `low` and `high`, its x axis turned by `turn` radians about z. */
export type BoxPart = { readonly low: Vec3; readonly high: Vec3; readonly turn: number };

/** Two boxes that share room, the earlier one first. */
export type BoxPair = readonly [Box, Box];
/** What was found last: the boxes that were compared and the pairs among them; null pairs: too many to keep. */
export type Compared = { readonly boxes: readonly Box[]; readonly pairs: readonly BoxPair[] | null };
