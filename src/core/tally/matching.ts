/** Lists of work laid on one another. */
import { at } from "../kernel";

/** The greatest difference when each is laid on its nearest that is still free. Work stands far apart, so nearest first is the best match. */
export function allApart<T>(a: readonly T[], b: readonly T[], apart: (one: T, other: T) => number): number {
  return Math.max(0, ...pairsOf(a, b, apart).map(([one, other]) => apart(one, other)));
}

/** Each of the one with its nearest of the other that is still free. */
export function pairsOf<T>(
  a: readonly T[],
  b: readonly T[],
  apart: (one: T, other: T) => number,
): readonly (readonly [T, T])[] {
  const free = [...b];
  return a.map((one) => {
    let best = 0;
    for (let i = 1; i < free.length; i++) {
      if (apart(one, at(free, i)) < apart(one, at(free, best))) best = i;
    }
    const other = at(free, best);
    free.splice(best, 1);
    return [one, other] as const;
  });
}
