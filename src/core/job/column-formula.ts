/**
 * Formulas over columns: `{count} * {price each}`. A name in braces is a column, however it is typed; a bare name
 * is a key size. The rest is the formula language of key sizes.
 */
import { ok, type Problem, type Result } from "../kernel";
import { type Formula, type LengthUnit, parseFormula } from "../measure";
import { plainName } from "./column-names";
import { refused } from "./records";

export type ColumnFormula = {
  readonly formula: Formula;
  /** Names of columns as they are typed, with the name that stands for each in the formula. */
  readonly columns: readonly { readonly name: string; readonly as: string }[];
};

const BRACED = /\{\s*([^{}]*?)\s*\}/g;

/** Reads a formula over columns; whether its names exist is for whoever knows the columns. */
export function readColumnFormula(text: string, unit: LengthUnit): Result<ColumnFormula, Problem> {
  const columns: { name: string; as: string }[] = [];
  const bare = text.replace(BRACED, (_, name: string) => {
    const known = columns.find((one) => plainName(one.name) === plainName(name));
    const as = known?.as ?? `column_${columns.length}_`;
    if (!known) columns.push({ name, as });
    return ` ${as} `;
  });
  if (/[{}]/.test(bare)) return refused("The formula", text, "has an unmatched { or }");
  const formula = parseFormula(bare, unit);
  if (!formula.ok) return formula;
  return ok({ formula: formula.value, columns });
}

/** A text with one column called by its new name wherever braces name it. */
export function renamedInBraces(text: string, from: string, to: string): string {
  return text.replace(BRACED, (whole, name: string) =>
    plainName(name) === plainName(from) ? `{${to}}` : whole,
  );
}
