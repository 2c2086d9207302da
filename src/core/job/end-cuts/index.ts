/**
 * How a member may be cut at an end: one module a kind, and here all of them. To add one, write its module and name it
 * in the two tables; the compiler then lists the places that have to know it.
 */
import * as v from "valibot";
import { forKind } from "../../kernel";
import { AngledSchema, angled } from "./angled";
import { ButtSchema, butt } from "./butt";
import { CopeSchema, cope } from "./cope";
import { DoubleMitreSchema, doubleMitre } from "./double-mitre";
import type { CutText, EndCutKind, MemberId } from "./kind";
import { LevelSchema, level } from "./level";
import { MitreSchema, mitre } from "./mitre";
import { NotchedSchema, notched } from "./notched";
import { PointedSchema, pointed } from "./pointed";
import { SquareSchema, square } from "./square";
import { TwoAnglesSchema, twoAngles } from "./two-angles";

export { type CutText, type MemberId, memberId } from "./kind";
export { SQUARE_END } from "./square";

export const EndCutSchema = v.variant("kind", [
  SquareSchema,
  MitreSchema,
  DoubleMitreSchema,
  ButtSchema,
  CopeSchema,
  NotchedSchema,
  LevelSchema,
  AngledSchema,
  PointedSchema,
  TwoAnglesSchema,
]);
export type EndCut = v.InferOutput<typeof EndCutSchema>;
export type EndCutName = EndCut["kind"];
export type EndCutOf<K extends EndCutName> = Extract<EndCut, { readonly kind: K }>;

const KINDS: { readonly [K in EndCutName]: EndCutKind<EndCutOf<K>, EndCut> } = {
  square,
  mitre,
  doubleMitre,
  butt,
  cope,
  notched,
  level,
  angled,
  pointed,
  twoAngles,
};

/** The module of a cut's own kind. */
function kindOf<C extends EndCut>(cut: C): EndCutKind<C, EndCut> {
  return forKind(KINDS, cut);
}

/** The members that an end is cut against or runs past; none where it stands alone. */
export const neighboursOf = (cut: EndCut): readonly MemberId[] => kindOf(cut).neighbours(cut);

/** Whether the neighbours of a cut must end at the same joint, or may be met anywhere along them. */
export const meetsOf = (cut: EndCut): "ends" | "anywhere" => kindOf(cut).meets;

/** The same cut against another member in the place of one of its neighbours. */
export const replacedNeighbour = (cut: EndCut, old: MemberId, other: MemberId): EndCut =>
  kindOf(cut).replaced(cut, old, other);

/** What is left of a cut without some members; the same object where it does not need them. */
export function withoutNeighbours(cut: EndCut, gone: ReadonlySet<string>): EndCut {
  return neighboursOf(cut).some((id) => gone.has(id)) ? kindOf(cut).without(cut, gone) : cut;
}

/** The same cut in a mirror across an axis of the job. */
export const mirroredCut = (cut: EndCut, axis: 0 | 1 | 2, negative: (text: string) => string): EndCut =>
  kindOf(cut).mirrored(cut, axis, negative);

/** What a cut is called in a sentence. */
export const cutName = (cut: EndCut): string => kindOf(cut).name;

/** A cut in a word or two. */
export const cutWords = (cut: EndCut): string => kindOf(cut).words(cut);

type TextsOf = Readonly<Record<string, string | undefined>>;

/** The formulas of a cut with what each stands for; one that is not written is zero. */
export function cutTexts(cut: EndCut): readonly (CutText<EndCut> & { readonly text: string })[] {
  const held = cut as unknown as TextsOf;
  return kindOf(cut).texts.map((text) => ({ ...text, text: held[text.field] ?? "0" }));
}

/** The cut with one of its formulas set to another. */
export const withCutText = <C extends EndCut>(cut: C, field: string, text: string): C => ({
  ...cut,
  [field]: text,
});

/** The cut with all formulas that it has changed; what is not written stays so. */
export function withCutTexts(cut: EndCut, change: (text: string) => string): EndCut {
  const held = cut as unknown as TextsOf;
  const changed = kindOf(cut).texts.flatMap(({ field }) => {
    const text = held[field];
    return text === undefined ? [] : [[field, change(text)] as const];
  });
  return { ...cut, ...Object.fromEntries(changed) };
}
