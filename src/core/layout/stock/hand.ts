/** What bars and sheets that are changed by hand share: pieces that wait, and sums made anew. */

import type { UnplacedReason } from "./unplaced";

type Waiting = { readonly qty: number; readonly why: UnplacedReason };

/** One of `waiting` less; the last of them is taken away. */
export const oneLess = <T extends Waiting>(unplaced: readonly T[], waiting: T): readonly T[] =>
  unplaced.flatMap((one) => (one !== waiting ? [one] : one.qty > 1 ? [{ ...one, qty: one.qty - 1 }] : []));

/** One more that was set aside, beside those like it. */
export function oneMore<T extends Waiting>(
  unplaced: readonly T[],
  fresh: T,
  isLike: (one: T) => boolean,
): readonly T[] {
  const known = unplaced.find((one) => one.why.kind === "aside" && isLike(one));
  return known
    ? unplaced.map((one) => (one === known ? { ...one, qty: one.qty + 1 } : one))
    : [...unplaced, fresh];
}

/** What stock costs, from each price with how often it is paid; null when one is missing. Four places of money. */
export function costOf(paid: readonly (readonly [price: number | null, times: number])[]): number | null {
  let sum = 0;
  for (const [price, times] of paid) {
    if (price === null) return null;
    sum += Math.round(price * 1e4) * times;
  }
  return sum / 1e4;
}

/** A bar or sheet that a layout uses. What lies in the rack is there already: it is not bought. */
export type UsedStock = { readonly price: number | null; readonly rack: string | null };

/** How many bars or sheets a layout buys: what is bounded where prices are missing. */
export const boughtCount = (used: readonly UsedStock[]): number =>
  used.filter(({ rack }) => rack === null).length;

type Judged = {
  readonly cost: number | null;
  readonly count: number;
  readonly lowerBound: number;
  readonly proven: boolean;
};

/**
 * Count, cost and proof of a layout that was changed, from every bar or sheet in it. The bound holds for every
 * layout, so it stays; with pieces set aside there may be less than the bound for all of them.
 */
export function judged(
  layout: {
    readonly lowerBound: number;
    readonly lowerBoundOf: "cost" | "count";
    readonly unplaced: readonly unknown[];
  },
  used: readonly UsedStock[],
): Judged {
  const count = used.length;
  const cost = costOf(used.map(({ price }) => [price, 1]));
  const value = layout.lowerBoundOf === "cost" ? cost : boughtCount(used);
  const { lowerBound } = layout;
  return {
    count,
    cost,
    proven: layout.unplaced.length === 0 && value !== null && value <= lowerBound + 1e-9,
    lowerBound: value !== null && value < lowerBound ? value : lowerBound,
  };
}
