/**
 * What each row of the tally costs: the costs of the quantities are dealt out to their rows, so that a list that shows all
 * rows comes to the very total that is bought. A box of screws is paid whole, so its rows share the price of the boxes.
 */
import { at } from "../kernel";
import type { Cents } from "../measure";

/** The cost of all pieces of a row; null where a price is missing. */
export type RowCost = {
  readonly net: Cents | null;
  /** The row's part of the waste; 0 for what has none. */
  readonly waste: Cents | null;
};

/** A sum dealt out by weights in whole hundredths, the greatest fractions first, so that the parts add up to it. */
export function dealtOut(cents: Cents, weights: readonly number[]): readonly Cents[] {
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  if (whole <= 0) return weights.map((_, i) => (i === 0 ? cents : 0));
  const exact = weights.map((weight) => (cents * weight) / whole);
  const parts = exact.map((part) => Math.floor(part + 1e-9));
  const left = cents - parts.reduce((sum, part) => sum + part, 0);
  const order = exact
    .map((part, i) => ({ i, over: part - at(parts, i) }))
    .sort((a, b) => b.over - a.over || a.i - b.i);
  for (const { i } of order.slice(0, left)) parts[i] = at(parts, i) + 1;
  return parts;
}

/** The costs of the rows of one line, by their quantities. */
export function rowCosts(
  line: { readonly netCost: Cents | null; readonly cost: Cents | null },
  rows: readonly { readonly id: string; readonly quantity: number }[],
): readonly (readonly [string, RowCost])[] {
  if (line.netCost === null || line.cost === null)
    return rows.map(({ id }) => [id, { net: null, waste: null }]);
  const weights = rows.map(({ quantity }) => quantity);
  const net = dealtOut(line.netCost, weights);
  const waste = dealtOut(line.cost - line.netCost, weights);
  return rows.map(({ id }, i) => [id, { net: at(net, i), waste: at(waste, i) }]);
}
