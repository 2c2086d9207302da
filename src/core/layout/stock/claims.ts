/**
 * The check of what a layout says of itself: count, cost, bound and proof, by plain sums over the bars or sheets that it
 * uses. It shares nothing with the searches or with what changes layouts by hand.
 */

export type Claims = {
  readonly cost: number | null;
  readonly count: number;
  readonly lowerBound: number;
  readonly lowerBoundOf: "cost" | "count";
  readonly proven: boolean;
  readonly unplaced: readonly { readonly qty: number }[];
};

export type ClaimContext = {
  /** Every bar or sheet that is used, one entry each; what comes from the rack is not bought. */
  readonly used: readonly { readonly price: number | null; readonly rack: string | null }[];
  /** The prices of the stock to choose from. */
  readonly stock: readonly (number | null)[];
  /** Whether an unplaced entry can be placed on no stock at all, so that it does not stand against a proof. */
  readonly isImpossible: (index: number) => boolean;
  /** The cost and the number bought of a layout found by a plain rule, to refute bounds that are too high; null: none found. */
  readonly plain: () => { readonly cost: number | null; readonly count: number } | null;
};

const isWhole = (value: number) => Number.isInteger(value) && value > 0;

/** null, or which claim is wrong. */
export function claimFault(claims: Claims, context: ClaimContext): string | null {
  const { cost, count, lowerBound, lowerBoundOf, proven, unplaced } = claims;
  const odd = unplaced.find(({ qty }) => !isWhole(qty));
  if (odd) return `an unplaced entry of quantity ${odd.qty}`;
  if (count !== context.used.length) return `count ${count} should be ${context.used.length}`;
  const known = context.used.every(({ price }) => price !== null);
  const sum = context.used.reduce((total, { price }) => total + Math.round((price ?? 0) * 1e4), 0) / 1e4;
  const bought = context.used.reduce((total, { rack }) => total + (rack === null ? 1 : 0), 0);
  if (known ? cost === null || Math.abs(cost - sum) > 5e-5 : cost !== null)
    return `cost ${cost} should be ${known ? sum : "unknown"}`;
  if (!Number.isFinite(lowerBound) || lowerBound < 0) return `bound ${lowerBound} is no bound`;
  if (lowerBoundOf === "cost" && context.stock.some((price) => price === null))
    return "a bound of the cost where a price is missing";
  const value = lowerBoundOf === "cost" ? cost : bought;
  if (value === null) return proven ? "proven without a cost" : null;
  if (value < lowerBound - 1e-6) return "the layout is below its bound";
  const possible = unplaced.some((_, i) => !context.isImpossible(i));
  const meets = value <= lowerBound + 1e-6;
  if (proven && !meets) return `proven at ${value}, but the bound is ${lowerBound}`;
  if (proven && possible) return "proven, but pieces that fit are not placed";
  if (!proven && meets && lowerBoundOf === "cost" && unplaced.length === 0) return "meets its bound unproven";
  const plain = possible ? null : context.plain();
  const least = lowerBoundOf === "cost" ? plain?.cost : plain?.count;
  if (least !== null && least !== undefined && least < lowerBound - 1e-6)
    return `bound ${lowerBound}, but a plain rule finds ${least}`;
  return null;
}

/** The least cost and the fewest bought among layouts of plain rules, one entry for each stock; null: there is none. */
export function leastPlain(
  found: readonly { readonly cost: number | null; readonly count: number }[],
): ReturnType<ClaimContext["plain"]> {
  const costs = found.flatMap(({ cost }) => (cost === null ? [] : [cost]));
  return found.length === 0
    ? null
    : {
        cost: costs.length > 0 ? Math.min(...costs) : null,
        count: Math.min(...found.map(({ count }) => count)),
      };
}
