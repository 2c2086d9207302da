/**
 * Coordinates as texts that can be added to, so that what is drawn from another place keeps following
 * it: numbers are added up at once, formulas are put together.
 */
import { type LengthUnit, MM_PER_UNIT, parseTypedLength, roundTo } from "../measure";

/** A number in the job's unit, or the text of a formula. */
export type Term = number | string;
/** Width, depth, height. */
export type Axis = 0 | 1 | 2;
export type PlaceText = readonly [string, string, string];

export function termOf(text: string, unit: LengthUnit): Term {
  const read = parseTypedLength(text, unit);
  return read.ok && read.value.kind === "length" ? clean(read.value.mm / MM_PER_UNIT[unit]) : text.trim();
}

const clean = (value: number) => roundTo(value, 9) + 0;

export function textOf(term: Term): string {
  if (typeof term === "string") return term;
  // No exponents: a length field does not read them.
  return (
    clean(term)
      .toFixed(9)
      .replace(/\.?0+$/, "") || "0"
  );
}

/** A sum needs no brackets around its first part; everything else that holds one does. */
const bracketed = (term: Term) =>
  typeof term === "string" && /[-+?<>=&|]|\band\b|\bor\b/.test(term) ? `(${term})` : textOf(term);

export function plus(a: Term, b: Term): Term {
  if (typeof a === "number" && typeof b === "number") return clean(a + b);
  if (a === 0) return b;
  if (b === 0) return a;
  if (typeof b === "number" && typeof a === "string") return plusNumber(a, b);
  if (typeof b === "number" && b < 0) return `${textOf(a)} - ${textOf(-b)}`;
  return typeof b === "string" && /^[\w.\s*/()]+$/.test(b)
    ? `${textOf(a)} + ${b}`
    : `${textOf(a)} + ${bracketed(b)}`;
}

/** A sum that ends in a number takes another one up into it, so that a place moved twice stays readable. */
function plusNumber(a: string, b: number): Term {
  const ends = /^([\w.\s*/()+-]+?) ([+-]) (\d+(?:\.\d+)?)$/.exec(a);
  if (!ends) return b < 0 ? `${bracketedChoice(a)} - ${textOf(-b)}` : `${bracketedChoice(a)} + ${textOf(b)}`;
  const [, before = "", sign, amount] = ends;
  const rest = clean((sign === "-" ? -Number(amount) : Number(amount)) + b);
  if (rest === 0) return before;
  return rest < 0 ? `${before} - ${textOf(-rest)}` : `${before} + ${textOf(rest)}`;
}

/** Adding after a choice or a comparison would go into its last part. */
const bracketedChoice = (text: string) => (/[?<>=&|]|\band\b|\bor\b/.test(text) ? `(${text})` : text);

export function times(a: Term, factor: number): Term {
  if (typeof a === "number") return clean(a * factor);
  if (factor === 0) return 0;
  if (factor === 1) return a;
  if (factor === -1) return `0 - ${bracketed(a)}`;
  return `${bracketed(a)} * ${factor < 0 ? `(0 - ${textOf(-factor)})` : textOf(factor)}`;
}

export function minus(a: Term, b: Term): Term {
  if (typeof b === "number") return plus(a, -b);
  return a === b ? 0 : `${textOf(a)} - ${bracketed(b)}`;
}

type Combine = (a: Term, b: Term) => Term;

function each(a: PlaceText, b: PlaceText, unit: LengthUnit, combine: Combine): [string, string, string] {
  const part = (i: 0 | 1 | 2) => textOf(combine(termOf(a[i], unit), termOf(b[i], unit)));
  return [part(0), part(1), part(2)];
}

/** A place moved by three lengths or formulas. */
export function movedPlace(place: PlaceText, by: PlaceText, unit: LengthUnit): [string, string, string] {
  return each(place, by, unit, plus);
}

/** The place at a share of the way from one place to another (0.5: the middle). */
export function placeBetween(
  from: PlaceText,
  to: PlaceText,
  share: number,
  unit: LengthUnit,
): [string, string, string] {
  return each(from, to, unit, (a, b) => plus(a, times(minus(b, a), share)));
}

/** A coordinate mirrored in the plane at `plane`. */
export function mirrored(text: string, plane: string, unit: LengthUnit): string {
  return textOf(minus(times(termOf(plane, unit), 2), termOf(text, unit)));
}

/**
 * Reads a place as it is typed: the name of a point, or three coordinates separated by semicolons (commas
 * part the arguments of formulas). Null when it is neither.
 */
export function readPlace(
  text: string,
):
  | { readonly kind: "name"; readonly name: string }
  | { readonly kind: "place"; readonly at: [string, string, string] }
  | null {
  const parts = text.split(";").map((part) => part.trim());
  const [x, y, z] = parts;
  if (parts.length === 3 && x && y && z) return { kind: "place", at: [x, y, z] };
  return parts.length === 1 && x ? { kind: "name", name: x } : null;
}
