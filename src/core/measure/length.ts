/**
 * Length fields: from any common notation to millimetres, and back to the job's own form.
 * Reads decimals, a decimal comma where it cannot be a thousands mark, whole-and-fraction, feet and
 * inches, and the units mm cm m in ft with the marks ' and ".
 */
import {
  err,
  fromNm,
  GREATEST_LENGTH_MM,
  LENGTH_TOLERANCE_MM,
  ok,
  type Problem,
  type Result,
  toNm,
} from "../kernel";
import { amountOf, UNIT_WORDS, VULGAR_FRACTIONS } from "./length-words";
import { writeScaled } from "./rounding";
import { type LengthStyle, type LengthUnit, MM_PER_UNIT } from "./unit";

const NUMBER = String.raw`\d+(?:\.\d*)?|\.\d+`;
const FRACTION = String.raw`\d+\s*/\s*\d+`;
// A dash joins a whole and its fraction only without spaces beside it: `600 - 1/2` is a subtraction.
const AMOUNT = String.raw`(?:\d+(?:\s+|-)${FRACTION}|${FRACTION}|${NUMBER})`;
const FEET_AND_INCHES = new RegExp(
  String.raw`^(${NUMBER})\s*(?:'|feet|foot|ft)(?:\s*|-)(${AMOUNT})\s*(?:"|in|inch|inches)?$`,
);
const SINGLE = new RegExp(String.raw`^(${AMOUNT})\s*(mm|cm|m|inches|inch|in|ft|feet|foot|"|')?$`);

function tidied(text: string): string {
  return text
    .trim()
    .toLowerCase()
    .replace(/[½¼¾⅛⅜⅝⅞⅓⅔]/g, (mark) => ` ${VULGAR_FRACTIONS[mark]}`)
    .replace(/[’′]/g, "'")
    .replace(/''|[“”″]/g, '"')
    .replace(/[−–]/g, "-")
    .replace(/⁄/g, "/")
    .replace(/\s+/g, " ")
    .trim();
}

/** Turns commas into points where that is the only reading; tells when it is not. */
function withoutCommas(text: string): Result<string, Problem> {
  if (!text.includes(",")) return ok(text);
  if (/\d,\d{3}(?:,\d{3})*\.\d/.test(text)) return ok(text.replaceAll(",", ""));
  if (/\d\.\d{3}(?:\.\d{3})*,\d/.test(text)) return ok(text.replaceAll(".", "").replace(",", "."));
  const groups = text.match(/\d+(?:,\d+)+/g) ?? [];
  if (groups.length !== 1 || (text.match(/,/g)?.length ?? 0) !== 1) {
    return err({ kind: "unreadableLength", text });
  }
  if (/(?<![\d,])[1-9]\d{0,2},\d{3}(?![\d,])/.test(text)) {
    return err({
      kind: "ambiguousComma",
      text,
      decimal: text.replace(",", "."),
      whole: text.replace(",", ""),
    });
  }
  return ok(text.replace(",", "."));
}

/**
 * Reads a length in millimetres. A bare number is in `unit`. Negative lengths are read (coordinates
 * may be negative); callers that need a positive one say so themselves.
 */
export function parseLength(text: string, unit: LengthUnit): Result<number, Problem> {
  if (text.trim() === "") return err({ kind: "emptyText", what: "The length" });
  const unreadable = err({ kind: "unreadableLength", text: text.trim() } as const);
  if (text.length > 60) return unreadable;
  const point = withoutCommas(tidied(text));
  if (!point.ok) return point;
  const negative = point.value.startsWith("-");
  const body = negative ? point.value.slice(1).trim() : point.value;
  const mm = unsignedMm(body, unit);
  if (mm === null || !Number.isFinite(mm)) return unreadable;
  if (mm > GREATEST_LENGTH_MM) {
    return err({ kind: "absurdLength", text: text.trim(), greatestM: GREATEST_LENGTH_MM / 1000 });
  }
  return ok(fromNm(toNm(negative ? -mm : mm)));
}

function unsignedMm(body: string, unit: LengthUnit): number | null {
  const single = SINGLE.exec(body);
  if (single) {
    const value = amountOf(single[1] ?? "");
    const word = single[2];
    return value === null ? null : value * MM_PER_UNIT[word ? (UNIT_WORDS[word] ?? unit) : unit];
  }
  const both = FEET_AND_INCHES.exec(body);
  if (!both) return null;
  const feet = amountOf(both[1] ?? "");
  const inches = amountOf(both[2] ?? "");
  return feet === null || inches === null ? null : feet * MM_PER_UNIT.ft + inches * MM_PER_UNIT.in;
}

const GRID_PER_UNIT: Readonly<Record<LengthUnit, bigint>> = {
  mm: 1_000_000n,
  cm: 10_000_000n,
  m: 1_000_000_000n,
  in: 25_400_000n,
  ft: 304_800_000n,
};

/** numerator / denominator, rounded to a whole number, halves away from zero. */
function divideRounded(numerator: bigint, denominator: bigint): bigint {
  const negative = numerator < 0n;
  const size = negative ? -numerator : numerator;
  const quotient = (2n * size + denominator) / (2n * denominator);
  return negative ? -quotient : quotient;
}

function greatestCommonDivisor(a: bigint, b: bigint): bigint {
  return b === 0n ? a : greatestCommonDivisor(b, a % b);
}

function writeFraction(parts: bigint, denominator: bigint): string {
  const size = parts < 0n ? -parts : parts;
  const whole = size / denominator;
  const rest = size % denominator;
  const sign = parts < 0n ? "-" : "";
  if (rest === 0n) return `${sign}${whole}`;
  const common = greatestCommonDivisor(rest, denominator);
  const fraction = `${rest / common}/${denominator / common}`;
  return whole === 0n ? `${sign}${fraction}` : `${sign}${whole} ${fraction}`;
}

/** A written length and how far (mm) the rounding moved it. */
export type WrittenLength = { readonly text: string; readonly movedMm: number };

/** Writes millimetres in a job's form, without the unit; decided on the grid of nanometres. */
export function writeLength(mm: number, style: LengthStyle): WrittenLength {
  const lengthNm = BigInt(toNm(mm));
  const perUnit = GRID_PER_UNIT[style.unit];
  if (style.format.kind === "fraction") {
    const denominator = BigInt(style.format.denominator);
    const parts = divideRounded(lengthNm * denominator, perUnit);
    const back = Number(parts * perUnit) / Number(denominator);
    return { text: writeFraction(parts, denominator), movedMm: Math.abs(back - Number(lengthNm)) / 1e6 };
  }
  const { places, trailingZeros } = style.format;
  const power = 10n ** BigInt(places);
  const scaled = divideRounded(lengthNm * power, perUnit);
  const back = Number(scaled * perUnit) / Number(power);
  return {
    text: writeScaled(scaled, places, trailingZeros),
    movedMm: Math.abs(back - Number(lengthNm)) / 1e6,
  };
}

/** Writes a length for the screen: with ≈ before it when rounding moved it by more than `toleranceMm`. */
export function formatLength(mm: number, style: LengthStyle, toleranceMm: number): string {
  const written = writeLength(mm, style);
  // A hair of slack: exactly the tolerance, computed in doubles, is not beyond it.
  return written.movedMm > toleranceMm + 1e-9 ? `≈${written.text}` : written.text;
}

/** Millimetres with up to three places: the style of texts where no job says one. */
export const PLAIN_MM: LengthStyle = {
  unit: "mm",
  format: { kind: "decimal", places: 3, trailingZeros: false },
};

/** A length in a sentence, with its unit: "36 1/8 in". */
export const sayLength = (mm: number, style: LengthStyle): string =>
  `${formatLength(mm, style, LENGTH_TOLERANCE_MM)} ${style.unit}`;

/** Sizes in a sentence, with one unit for all: "600 × 400 mm". */
export const saySizes = (sizes: readonly number[], style: LengthStyle): string =>
  `${sizes.map((mm) => formatLength(mm, style, LENGTH_TOLERANCE_MM)).join(" × ")} ${style.unit}`;

/**
 * A small difference in a sentence, finer than lengths are written: hundredths of a millimetre; in inches sixty-fourths
 * where it is such a fraction, else thousandths.
 */
export function sayDifference(mm: number, { unit }: LengthStyle): string {
  if (unit === "in" || unit === "ft") {
    const fraction = writeLength(mm, { unit: "in", format: { kind: "fraction", denominator: 64 } });
    if (fraction.movedMm < 0.005) return `${fraction.text} in`;
    return `${writeLength(mm, { unit: "in", format: { kind: "decimal", places: 3, trailingZeros: false } }).text} in`;
  }
  return `${writeLength(mm, { unit: "mm", format: { kind: "decimal", places: 2, trailingZeros: false } }).text} mm`;
}
