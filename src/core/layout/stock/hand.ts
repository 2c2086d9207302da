/** What bars and sheets that are changed by hand share: pieces that wait, and sums made anew. */

/** Why a piece waits that somebody set aside. */
export const ASIDE = "set aside by hand";

type Waiting = { readonly qty: number; readonly why: string };

/** One of `waiting` less; the last of them is taken away. */
export const oneLess = <T extends Waiting>(unplaced: readonly T[], waiting: T): readonly T[] =>
  unplaced.flatMap((one) => (one !== waiting ? [one] : one.qty > 1 ? [{ ...one, qty: one.qty - 1 }] : []));

/** One more that was set aside, beside those like it. */
export function oneMore<T extends Waiting>(
  unplaced: readonly T[],
  fresh: T,
  isLike: (one: T) => boolean,
): readonly T[] {
  const known = unplaced.find((one) => one.why === ASIDE && isLike(one));
  return known
    ? unplaced.map((one) => (one === known ? { ...one, qty: one.qty + 1 } : one))
    : [...unplaced, fresh];
}

type Judged = {
  readonly cost: number | null;
  readonly count: number;
  readonly lowerBound: number;
  readonly proven: boolean;
};

/**
 * Count, cost and proof of a layout that was changed, from the price of every bar or sheet in it. The bound holds for every
 * layout, so it stays; with pieces set aside there may be less than the bound for all of them.
 */
export function judged(
  layout: {
    readonly lowerBound: number;
    readonly lowerBoundOf: "cost" | "count";
    readonly unplaced: readonly unknown[];
  },
  prices: readonly (number | null)[],
): Judged {
  const count = prices.length;
  const cost = prices.some((price) => price === null)
    ? null
    : Math.round(prices.reduce<number>((sum, price) => sum + (price ?? 0), 0) * 1e4) / 1e4;
  const value = layout.lowerBoundOf === "cost" ? cost : count;
  const { lowerBound } = layout;
  return {
    count,
    cost,
    proven: layout.unplaced.length === 0 && value !== null && value <= lowerBound + 1e-9,
    lowerBound: value !== null && value < lowerBound ? value : lowerBound,
  };
}
