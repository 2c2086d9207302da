/** All kinds of layout by their names: to add one, write its module, and the compiler lists what is missing. */
import { forKind } from "../../kernel";
import type { LayoutKind, LayoutTask, SavedLayout } from "../types";
import { bars } from "./bars";
import type { LayoutKindModule } from "./kind";
import { shapes } from "./nesting";
import { sheets } from "./sheets";

export type { LayoutKindModule, Rest, Taken } from "./kind";
export { boardOf, stockOfRow } from "./task-parts";

export const LAYOUT_KINDS: { readonly [K in LayoutKind]: LayoutKindModule<K> } = { bars, sheets, shapes };

/** A kind as those see it who do not know which it is: its problem and layout come from one record. */
type AnyKind = LayoutKindModule<LayoutKind>;

/** The module of a kind, for a problem and a layout that come from one record of it. */
export function layoutKind(one: Pick<SavedLayout | LayoutTask, "kind">): AnyKind {
  return forKind(LAYOUT_KINDS, one);
}
