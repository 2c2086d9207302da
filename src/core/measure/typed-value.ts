/**
 * A typed field: tried as a length first, then as a formula, so that `23-1/4` is twenty-three and a
 * quarter and `width-1/4` is a subtraction.
 */
import { err, GREATEST_LENGTH_MM, ok, type Problem, type Result } from "../kernel";
import { evaluateFormula, type Formula, type FormulaScope, isAngleFormula, parseFormula } from "./formula";
import { parseLength } from "./length";
import { type LengthUnit, MM_PER_UNIT } from "./unit";

export type TypedValue =
  | { readonly kind: "length"; readonly mm: number }
  | { readonly kind: "formula"; readonly formula: Formula };

/** Texts that are remembered in one unit; then from the beginning again. */
const MOST_REMEMBERED = 50_000;

/** A reader that remembers what it read: a job computes, moves and compares the same texts again and again. */
function remembers<T>(read: (text: string, unit: LengthUnit) => T): (text: string, unit: LengthUnit) => T {
  const known = new Map<LengthUnit, Map<string, T>>();
  return (text, unit) => {
    const own = known.get(unit) ?? new Map<string, T>();
    known.set(unit, own);
    const before = own.get(text);
    if (before !== undefined) return before;
    const value = read(text, unit);
    if (own.size >= MOST_REMEMBERED) own.clear();
    own.set(text, value);
    return value;
  };
}

/** Reads a length field. When it is neither, the problem is that of the reading it looks like. */
export const parseTypedLength = remembers(readLength);

function readLength(text: string, unit: LengthUnit): Result<TypedValue, Problem> {
  const length = parseLength(text, unit);
  if (length.ok) return ok({ kind: "length", mm: length.value });
  if (length.problem.kind !== "unreadableLength") return length;
  // A whole joined to a fraction that is not less than 1 is a slip, never a subtraction that nobody asked for.
  if (/^-?\d+-\d+\s*\/\s*\d+$/.test(text.trim().replace(/[−–]/g, "-"))) return length;
  const formula = parseFormula(text, unit);
  if (formula.ok && isAngleFormula(formula.value))
    return err({ kind: "wrongArguments", what: "an angle cannot be a length", text: text.trim() });
  if (formula.ok) return ok({ kind: "formula", formula: formula.value });
  return /[a-z(*+^?]/i.test(text) ? formula : length;
}

/** Reads a field for a number without unit (a count, an angle in degrees, a share). */
export const parseTypedNumber = remembers(readNumber);

function readNumber(text: string, unit: LengthUnit): Result<Formula, Problem> {
  const plain = text.trim();
  const decimal = /^-?\d+,\d{1,2}$|^-?\d+,\d{4,}$/.test(plain) ? plain.replace(",", ".") : plain;
  return parseFormula(decimal, unit);
}

/** A number written plainly, `12.5` or `12,5`; null for everything else, `1,400` too, which may mean either. */
export function parsePlainNumber(text: string): number | null {
  const plain = text.trim().replace("−", "-");
  if (!/^-?(\d+([.,]\d+)?|[.,]\d+)$/.test(plain) || /^-?\d{1,3},\d{3}$/.test(plain)) return null;
  return Number(plain.replace(",", "."));
}

/** Millimetres of a read length field with the present key sizes (scope values in the job's unit). */
export function lengthValue(
  value: TypedValue,
  scope: FormulaScope,
  unit: LengthUnit,
): Result<number, Problem> {
  if (value.kind === "length") return ok(value.mm);
  const computed = evaluateFormula(value.formula, scope);
  if (!computed.ok) return computed;
  if (typeof computed.value !== "number") {
    return err({ kind: "wrongArguments", what: "a length is needed here", text: value.formula.text });
  }
  return withinGreatest(computed.value * MM_PER_UNIT[unit], value.formula.text);
}

/** Millimetres that a formula gave, unless they are more than anything can be long. */
export function withinGreatest(mm: number, text: string): Result<number, Problem> {
  return Math.abs(mm) <= GREATEST_LENGTH_MM
    ? ok(mm)
    : err({ kind: "absurdLength", text: text.trim(), greatestM: GREATEST_LENGTH_MM / 1000 });
}
