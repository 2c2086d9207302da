/** The words and marks of units, and amounts as whole, decimal, fraction or whole-and-fraction: for lengths and formulas. */
import type { LengthUnit } from "./unit";

export const UNIT_WORDS: Readonly<Record<string, LengthUnit | undefined>> = {
  mm: "mm",
  cm: "cm",
  m: "m",
  in: "in",
  inch: "in",
  inches: "in",
  '"': "in",
  ft: "ft",
  feet: "ft",
  foot: "ft",
  "'": "ft",
};

/** Signs for fractions as they are typed. */
export const VULGAR_FRACTIONS: Readonly<Record<string, string>> = {
  "½": "1/2",
  "¼": "1/4",
  "¾": "3/4",
  "⅛": "1/8",
  "⅜": "3/8",
  "⅝": "5/8",
  "⅞": "7/8",
  "⅓": "1/3",
  "⅔": "2/3",
};

/** The words for feet and for inches as alternatives of a pattern, longest first. */
export const FEET_WORDS = "feet|foot|ft";
export const INCH_WORDS = "inches|inch|in";

/**
 * A whole, decimal, fraction or whole-and-fraction as a number. Null when a fraction has no value, or is not less than 1
 * beside a whole: `23 9/4` is a slip of the hand more often than 25 1/4.
 */
export function amountOf(text: string): number | null {
  const mixed = /^(\d+)(?:\s+|-)(\d+)\s*\/\s*(\d+)$/.exec(text);
  if (mixed) {
    const [whole, over, under] = [Number(mixed[1]), Number(mixed[2]), Number(mixed[3])];
    return under === 0 || over >= under ? null : (whole * under + over) / under;
  }
  const plain = /^(\d+)\s*\/\s*(\d+)$/.exec(text);
  if (plain) return Number(plain[2]) === 0 ? null : Number(plain[1]) / Number(plain[2]);
  return Number(text);
}
