/** What every kind of end cut has to say of itself. */
import * as v from "valibot";
import { recordId } from "../text";

export const memberId = v.pipe(recordId, v.brand("MemberId"));
export type MemberId = v.InferOutput<typeof memberId>;

type Named = { readonly kind: string };

/** A formula of an end cut: its field, and what is asked for on the screen. */
export type CutText<C extends Named> = {
  readonly field: Exclude<keyof C, "kind"> & string;
  /** `point`: the name of the point at which the member ends. */
  readonly label: (point: string) => string;
};

/** `Left`: what else may be left of one without its neighbours. */
export type EndCutKind<C extends Named, Left = never> = {
  /** As it is said in a sentence: "is cut …". */
  readonly name: string;
  /** The same with what tells one of the kind from another, as short as a list needs it. */
  words(cut: C): string;
  readonly texts: readonly CutText<C>[];
  /** The members that it is cut against. */
  neighbours(cut: C): readonly MemberId[];
  /** Whether those must end at the same joint, or may be met anywhere along them. */
  readonly meets: "ends" | "anywhere";
  /** The same cut, but against another member in the place of one. */
  replaced(cut: C, old: MemberId, other: MemberId): C;
  /** What is left of it without some members. */
  without(cut: C, gone: ReadonlySet<string>): C | Left;
  /** Seen in a mirror across an axis of the job; `negative` writes a formula with the opposite sign. */
  mirrored(cut: C, axis: 0 | 1 | 2, negative: (text: string) => string): C;
};

export const unchanged = <C>(cut: C): C => cut;

/** Of a cut that needs no other member. */
export const standsAlone = {
  neighbours: (): readonly MemberId[] => [],
  meets: "anywhere",
  replaced: unchanged,
  without: unchanged,
} as const;

const GAP = (point: string) => `Gap at ${point}`;

export const gapText = <C extends Named>(field: CutText<C>["field"]): CutText<C> => ({
  field,
  label: GAP,
});
