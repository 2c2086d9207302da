/** What a piece is made to: on the integer grid, the same for drawn and for typed-in ones. */
import type { End } from "../ends";
import type { Vec2 } from "../geometry";
import type { MemberFace, PanelEdge } from "../job";
import type { Nm } from "../kernel";
import type { SectionShape } from "../stockroom";

/** What a saw makes of a bar: the centre length and the two ends, on the grid. */
export type MemberForm = {
  readonly kind: "member";
  readonly shape: SectionShape | null;
  readonly centreNm: Nm;
  readonly cutNm: Nm;
  readonly longestNm: Nm;
  readonly shortestNm: Nm;
  readonly ends: readonly [End, End];
  readonly holes: readonly MemberHoleForm[];
  readonly notches: readonly MemberNotchForm[];
};

/**
 * A hole where it begins on the outer box of the section: `outwards` of it, at `begins` in its plane, and along the member at `z` from
 * the middle of all that is left of it, so that exchanging the ends turns its sign.
 */
export type MemberHoleForm = {
  readonly outwards: Vec2;
  readonly begins: readonly [Nm, Nm];
  readonly z: Nm;
  /** From the tip of its first end. */
  readonly fromTip: Nm;
  /** From the middle of its face. */
  readonly across: Nm;
  readonly face: MemberFace;
  readonly diameterNm: Nm;
  readonly slotNm: Nm;
  /** Through all walls: it may be told from the other side as well. */
  readonly through: boolean;
};

/** A notch right across one of the ends, from the face that looks `outwards`. */
export type MemberNotchForm = {
  readonly end: 0 | 1;
  readonly face: MemberFace;
  readonly outwards: Vec2;
  readonly depthNm: Nm;
  readonly lengthNm: Nm;
};

/** The room that a groove takes in a panel, in its own axes (x along the length, y along the width). */
export type GrooveForm = {
  readonly face: "good" | "other";
  readonly x0: Nm;
  readonly x1: Nm;
  readonly y0: Nm;
  readonly y1: Nm;
  readonly depthNm: Nm;
};

/** A hole by its middle; `depthNm` null: right through, and then the face says nothing. */
export type HoleForm = {
  readonly face: "good" | "other";
  readonly x: Nm;
  readonly y: Nm;
  readonly diameterNm: Nm;
  readonly depthNm: Nm | null;
};

/** A notch right through the panel. */
export type NotchForm = { readonly x0: Nm; readonly x1: Nm; readonly y0: Nm; readonly y1: Nm };

/** A corner of an outline and the radius by which it is rounded. */
export type CornerForm = { readonly x: Nm; readonly y: Nm; readonly radiusNm: Nm };

export type PanelForm = {
  readonly kind: "panel";
  readonly lengthNm: Nm;
  readonly widthNm: Nm;
  readonly thicknessNm: Nm | null;
  /** Corners anticlockwise, seen on the good face; null: a rectangle. */
  readonly outline: readonly CornerForm[] | null;
  /** Its length runs along the grain. */
  readonly grain: boolean;
  readonly goodFace: boolean;
  /** Edging of each edge: an id of the stockroom or the words of a list; null: none. */
  readonly edging: Readonly<Record<PanelEdge, string | null>>;
  readonly grooves: readonly GrooveForm[];
  readonly holes: readonly HoleForm[];
  readonly notches: readonly NotchForm[];
  /** Openings right through, each as its corners anticlockwise. */
  readonly cutOuts: readonly (readonly CornerForm[])[];
};

/** A piece without a size: bought, or one that cannot be computed. */
export type NoForm = { readonly kind: "none" };
export type Form = MemberForm | PanelForm | NoForm;
