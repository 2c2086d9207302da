/**
 * Decimal rounding, ties away from zero, decided on the decimal value that is written for a double
 * (its shortest exact-round-trip form): 1.005 to two places is 1.01, though the double lies below it.
 */
import { invariant } from "../kernel";

type Decimal = { readonly negative: boolean; readonly digits: string; readonly scale: number };

function toDecimal(value: number): Decimal {
  const match = /^(-?)(\d+)(?:\.(\d+))?(?:e([+-]\d+))?$/.exec(String(value));
  invariant(match, `not a finite number: ${value}`);
  const fraction = match[3] ?? "";
  const scale = fraction.length - Number(match[4] ?? 0);
  const digits = `${match[2]}${fraction}`;
  return scale >= 0
    ? { negative: match[1] === "-", digits, scale }
    : { negative: match[1] === "-", digits: digits + "0".repeat(-scale), scale: 0 };
}

/** value × 10^places, rounded to a whole number, ties away from zero. */
export function scaledInteger(value: number, places: number): bigint {
  const { negative, digits, scale } = toDecimal(value);
  const drop = scale - places;
  const all = BigInt(digits);
  let result: bigint;
  if (drop <= 0) result = all * 10n ** BigInt(-drop);
  else {
    const unit = 10n ** BigInt(drop);
    result = (all + unit / 2n) / unit;
  }
  return negative ? -result : result;
}

/** A whole number of 10^-places written as a decimal. */
export function writeScaled(scaled: bigint, places: number, trailingZeros: boolean): string {
  const text = (scaled < 0n ? -scaled : scaled).toString().padStart(places + 1, "0");
  const whole = places === 0 ? text : text.slice(0, -places);
  let fraction = places === 0 ? "" : text.slice(-places);
  if (!trailingZeros) fraction = fraction.replace(/0+$/, "");
  const body = fraction === "" ? whole : `${whole}.${fraction}`;
  return scaled < 0n ? `-${body}` : body;
}

/** Rounds to a number of places, ties away from zero on the decimal value. */
export function roundTo(value: number, places: number): number {
  const rounded = Number(scaledInteger(value, places)) / 10 ** places;
  return rounded === 0 ? 0 : rounded;
}

/** Writes a number with a fixed number of places, ties away from zero. */
export function formatDecimal(value: number, places: number, trailingZeros = true): string {
  return writeScaled(scaledInteger(value, places), places, trailingZeros);
}
