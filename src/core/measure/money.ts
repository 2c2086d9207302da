/**
 * Money as whole hundredths of the shop's currency. A price that is not known stays `null` through
 * every sum: a total with a missing part is incomplete, never smaller.
 */
import { scaledInteger, writeScaled } from "./rounding";

/** Whole hundredths of the currency. */
export type Cents = number;

/** quantity × price per unit, rounded to hundredths, ties away from zero on the decimal product. */
export function costOf(quantity: number, pricePerUnit: number): Cents {
  // Twelve places clear the double noise of the product (0.532 x 14.2 = 7.554399999999999) first.
  const product = Number((quantity * pricePerUnit).toPrecision(12));
  return Number(scaledInteger(product, 2));
}

/** A sum of costs of which some may be missing. */
export type MoneyTotal = { readonly cents: Cents; readonly missing: number };

export function totalOf(costs: readonly (Cents | null)[]): MoneyTotal {
  let cents = 0;
  let missing = 0;
  for (const cost of costs) {
    if (cost === null) missing++;
    else cents += cost;
  }
  return { cents, missing };
}

export function formatCents(cents: Cents): string {
  return writeScaled(BigInt(cents), 2, true);
}
