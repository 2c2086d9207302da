/**
 * Length fields: from any common notation to millimetres, and back to the job's own form.
 * Reads decimals, a decimal comma where it cannot be a thousands mark, whole-and-fraction, feet and
 * inches, and the units mm cm m in ft with the marks ' and ".
 */
import { err, fromNm, GREATEST_LENGTH_MM, ok, type Problem, type Result, toNm } from "../kernel";
import { scaledInteger, writeScaled } from "./rounding";
import { type LengthStyle, type LengthUnit, MM_PER_UNIT } from "./unit";

const VULGAR: Readonly<Record<string, string>> = {
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

const UNIT_WORDS: Readonly<Record<string, LengthUnit>> = {
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

const NUMBER = String.raw`\d+(?:\.\d*)?|\.\d+`;
const FRACTION = String.raw`\d+\s*/\s*\d+`;
const AMOUNT = String.raw`(?:\d+(?:\s+|\s*-\s*)${FRACTION}|${FRACTION}|${NUMBER})`;
const FEET_AND_INCHES = new RegExp(
  String.raw`^(${NUMBER})\s*(?:'|ft|feet|foot)\s*-?\s*(${AMOUNT})\s*(?:"|in|inch|inches)?$`,
);
const SINGLE = new RegExp(String.raw`^(${AMOUNT})\s*(mm|cm|m|inches|inch|in|ft|feet|foot|"|')?$`);

function tidied(text: string): string {
  return text
    .trim()
    .toLowerCase()
    .replace(/[½¼¾⅛⅜⅝⅞⅓⅔]/g, (mark) => ` ${VULGAR[mark]}`)
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

/** A whole, decimal, fraction or whole-and-fraction; null when the fraction has no value. */
function amount(text: string): number | null {
  const mixed = /^(\d+)(?:\s+|\s*-\s*)(\d+)\s*\/\s*(\d+)$/.exec(text);
  if (mixed) return fractionOf(Number(mixed[1]), Number(mixed[2]), Number(mixed[3]));
  const plain = /^(\d+)\s*\/\s*(\d+)$/.exec(text);
  if (plain) return fractionOf(0, Number(plain[1]), Number(plain[2]));
  return Number(text);
}

function fractionOf(whole: number, over: number, under: number): number | null {
  return under === 0 ? null : (whole * under + over) / under;
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
    const value = amount(single[1] ?? "");
    const word = single[2];
    return value === null ? null : value * MM_PER_UNIT[word ? (UNIT_WORDS[word] ?? unit) : unit];
  }
  const both = FEET_AND_INCHES.exec(body);
  if (!both) return null;
  const feet = amount(both[1] ?? "");
  const inches = amount(both[2] ?? "");
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

/** Writes an area given in mm² as square metres with three places. */
export function formatSquareMetres(mm2: number): string {
  return writeScaled(scaledInteger(mm2 / 1e6, 3), 3, true);
}
