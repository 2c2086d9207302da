/** A jig: a ready-made build with a small form. What it inserts is ordinary geometry that follows its sizes. */
import type { InsertEdit } from "../job";
import type { JigMaker } from "./maker";

type FieldKind =
  | {
      readonly kind: "length";
      readonly value: { readonly mm: string; readonly in: string };
    }
  | { readonly kind: "count"; readonly value: number; readonly least: number; readonly most: number }
  | { readonly kind: "timber" | "board" }
  | {
      readonly kind: "section";
      /** The field whose section it has where nothing is chosen for it, and what that is called. */
      readonly like?: { readonly field: string; readonly words: string };
    }
  | { readonly kind: "choice"; readonly choices: readonly (readonly [string, string])[] };

export type JigField = FieldKind & {
  readonly name: string;
  readonly label: string;
  /** Whether it is asked for at all, by what is filled in elsewhere; absent: always. */
  readonly isNeeded?: (text: (name: string) => string) => boolean;
};

/** What was filled in: texts by the name of the field. */
export type JigValues = {
  readonly text: (name: string) => string;
  readonly count: (name: string) => number;
};

export type Jig = {
  readonly id: string;
  readonly name: string;
  /** What it makes, in one line. */
  readonly note: string;
  readonly fields: readonly JigField[];
  readonly make: (maker: JigMaker, values: JigValues) => InsertEdit;
};

type Needed = Pick<JigField, "isNeeded">;

export const length = (
  name: string,
  label: string,
  mm: string,
  inches: string,
  needed: Needed = {},
): JigField => ({
  kind: "length",
  name,
  label,
  value: { mm, in: inches },
  ...needed,
});
/** A section that is as that of another field unless one is chosen. */
export const sectionLike = (
  name: string,
  label: string,
  like: { readonly field: string; readonly words: string },
  needed: Needed = {},
): JigField => ({ kind: "section", name, label, like, ...needed });
export const count = (name: string, label: string, value: number, least = 1, most = 200): JigField => ({
  kind: "count",
  name,
  label,
  value,
  least,
  most,
});
export const choice = (
  name: string,
  label: string,
  choices: readonly (readonly [string, string])[],
): JigField => ({ kind: "choice", name, label, choices });
