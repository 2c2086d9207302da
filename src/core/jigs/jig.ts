/** A jig: a ready-made build with a small form. What it inserts is ordinary geometry that follows its sizes. */
import type { InsertEdit } from "../job";
import type { JigMaker } from "./maker";

export type JigField =
  | {
      readonly kind: "length";
      readonly name: string;
      readonly label: string;
      readonly value: { readonly mm: string; readonly in: string };
    }
  | {
      readonly kind: "count";
      readonly name: string;
      readonly label: string;
      readonly value: number;
      readonly least: number;
      readonly most: number;
    }
  | { readonly kind: "section" | "timber" | "board"; readonly name: string; readonly label: string }
  | {
      readonly kind: "choice";
      readonly name: string;
      readonly label: string;
      readonly choices: readonly (readonly [string, string])[];
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

export const length = (name: string, label: string, mm: string, inches: string): JigField => ({
  kind: "length",
  name,
  label,
  value: { mm, in: inches },
});
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
