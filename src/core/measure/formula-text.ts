/**
 * The text of a formula made ready for the reader of expressions: signs as people type them, and every number with its
 * unit turned into one number in the job's unit. A whole, its fraction and its unit are one number wherever they stand
 * (`23 1/4 in`, `1/2"`, `2' 6"`), so that `width - 1/2 in` takes away half an inch. Each sign of the result knows the place
 * in the typed text that it came from.
 *
 * A dash joins a whole and its fraction, or feet and inches, only in a length that stands alone (`length.ts`). In a formula
 * `23-1/4 in` could be either, so it is refused with the two ways to write it.
 */
import { amountOf, FEET_WORDS, INCH_WORDS, UNIT_WORDS, VULGAR_FRACTIONS } from "./length-words";
import { type LengthUnit, MM_PER_UNIT } from "./unit";

export type ScannedFormula =
  | { readonly text: string; readonly places: readonly number[] }
  | { readonly refused: { readonly why: string; readonly place: number } };

const FRACTION = String.raw`\d+\s*/\s*\d+`;
const NUMBER = String.raw`(?:\d+(?:\.\d+)?|\.\d+)`;
const AMOUNT = String.raw`(?:\d+\s+${FRACTION}(?![\d.])|${FRACTION}(?![\d.])|${NUMBER})`;
/** Words must end where they end: `5 m` is five metres, `5 min` is not. */
const words = (all: string) => String.raw`(?:(?:${all})(?![\w])|["'])`;
const UNIT = words("mm|cm|m|inches|inch|in|feet|foot|ft");
const FEET = String.raw`(?:(?:${FEET_WORDS})(?![\w])|')`;
const INCH = String.raw`(?:(?:${INCH_WORDS})(?![\w])|")`;

const FEET_AND_INCHES = new RegExp(String.raw`(${NUMBER})\s*${FEET}\s*(${AMOUNT})\s*${INCH}`, "iy");
const MEASURED = new RegExp(String.raw`(${AMOUNT})\s*(${UNIT}|deg(?![\w])|°)`, "iy");
const MIXED = new RegExp(String.raw`\d+\s+${FRACTION}(?![\w.])`, "iy");
const JOINED_BY_DASH = new RegExp(
  String.raw`\d+-${FRACTION}\s*${UNIT}|${NUMBER}\s*${FEET}-\s*(?:${AMOUNT})\s*${INCH}`,
  "iy",
);
const WORD = /[A-Za-z_]\w*/y;
const PLAIN_NUMBER = /(?:\d+(?:\.\d*)?|\.\d+)(?:e[+-]?\d+)?/iy;

const SIGNS: Readonly<Record<string, string>> = {
  "×": "*",
  "·": "*",
  "÷": "/",
  "−": "-",
  "–": "-",
  "≤": "<=",
  "≥": ">=",
  "≠": "!=",
};
/** Marks in one form each; every sign keeps its place in the typed text. */
function withPlainMarks(source: string): { readonly text: string; readonly places: readonly number[] } {
  let text = "";
  const places: number[] = [];
  for (let i = 0; i < source.length; i++) {
    const sign = source.charAt(i);
    const vulgar = VULGAR_FRACTIONS[sign];
    const plain = vulgar ? ` ${vulgar}` : sign.replace(/[’′‘]/, "'").replace(/[“”″]/, '"').replace(/⁄/, "/");
    for (const one of plain) {
      text += one;
      places.push(i);
    }
  }
  return { text, places };
}

/** Makes a formula's text ready; `unit` is the job's, in which all its numbers come out. */
export function scanFormula(source: string, unit: LengthUnit): ScannedFormula {
  const plain = withPlainMarks(source);
  const from = plain.text;
  let text = "";
  const places: number[] = [];
  const add = (made: string, start: number) => {
    text += made;
    for (let k = 0; k < made.length; k++) places.push(plain.places[start] ?? source.length);
  };
  for (let i = 0; i < from.length; ) {
    const match = (pattern: RegExp) => {
      pattern.lastIndex = i;
      return pattern.exec(from);
    };
    const sign = from.charAt(i);
    const digit = /[\d.]/.test(sign);
    const dashed = digit ? match(JOINED_BY_DASH) : null;
    if (dashed)
      return {
        refused: {
          why: `${dashed[0]} can be one length or a subtraction`,
          place: (plain.places[i] ?? i) + 1,
        },
      };
    const number = digit ? numberAt(match, unit) : null;
    if (number === "improper")
      return {
        refused: {
          why: "the fraction after a whole number must be less than 1",
          place: (plain.places[i] ?? i) + 1,
        },
      };
    if (number) {
      add(number.text, i);
      i += number.length;
      continue;
    }
    const whole =
      (digit ? match(PLAIN_NUMBER) : match(WORD))?.[0] ?? (isQuote(sign) ? quoted(from, i) : null);
    if (whole) {
      for (let k = 0; k < whole.length; k++) add(whole.charAt(k), i + k);
      i += whole.length;
      continue;
    }
    add(signAt(from, i), i);
    i++;
  }
  return { text, places };
}

const isQuote = (sign: string) => sign === '"' || sign === "'";

/** A name in quotation marks, with both of them, or only the first when the second is missing. */
function quoted(from: string, i: number): string {
  const end = from.indexOf(from.charAt(i), i + 1);
  return end < 0 ? from.charAt(i) : from.slice(i, end + 1);
}

/** One sign in the form that the reader knows; a lone = compares. */
function signAt(from: string, i: number): string {
  const sign = from.charAt(i);
  if (sign === "=" && from.charAt(i + 1) !== "=" && !/[<>=!]/.test(from.charAt(i - 1))) return "==";
  return SIGNS[sign] ?? sign;
}

type Found = { readonly text: string; readonly length: number } | "improper" | null;

/** A number with its unit, or a whole with its fraction, as one number in the job's unit. */
function numberAt(match: (pattern: RegExp) => RegExpExecArray | null, unit: LengthUnit): Found {
  const both = match(FEET_AND_INCHES);
  if (both) {
    const [feet, inches] = [amountOf(both[1] ?? ""), amountOf(both[2] ?? "")];
    if (feet === null || inches === null) return "improper";
    return { text: inUnit(feet * MM_PER_UNIT.ft + inches * MM_PER_UNIT.in, unit), length: both[0].length };
  }
  const measured = match(MEASURED);
  if (measured) {
    const amount = amountOf(measured[1] ?? "");
    if (amount === null) return "improper";
    const length = measured[0].length;
    const own = UNIT_WORDS[(measured[2] ?? "").toLowerCase()];
    if (!own) return { text: `deg(${amount})`, length };
    return { text: own === unit ? `(${amount})` : inUnit(amount * MM_PER_UNIT[own], unit), length };
  }
  const mixed = match(MIXED);
  if (!mixed) return null;
  const amount = amountOf(mixed[0]);
  return amount === null ? "improper" : { text: `(${amount})`, length: mixed[0].length };
}

const inUnit = (mm: number, unit: LengthUnit) => `(${mm / MM_PER_UNIT[unit]})`;
