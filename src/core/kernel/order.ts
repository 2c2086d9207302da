/** Comparators as values, so that every order in the core is named and total. */
export type Order<T> = (a: T, b: T) => number;

export const byNumber: Order<number> = (a, b) => a - b;

/** Code-unit order, the same on every machine and in every locale. */
export const byText: Order<string> = (a, b) => (a < b ? -1 : a > b ? 1 : 0);

/** Numbers inside the text count as numbers: P2 before P10. */
export const byNaturalText: Order<string> = (a, b) => {
  const left = a.match(/\d+|\D+/g) ?? [];
  const right = b.match(/\d+|\D+/g) ?? [];
  for (let i = 0; i < Math.min(left.length, right.length); i++) {
    const l = left[i] ?? "";
    const r = right[i] ?? "";
    const numeric = /^\d/.test(l) && /^\d/.test(r);
    const difference = numeric ? Number(l) - Number(r) : byText(l, r);
    if (difference !== 0) return difference;
  }
  return left.length - right.length || byText(a, b);
};

export function reversed<T>(order: Order<T>): Order<T> {
  return (a, b) => order(b, a);
}

export function byKey<T, K>(key: (value: T) => K, order: Order<K>): Order<T> {
  return (a, b) => order(key(a), key(b));
}

/** First order that tells the two apart. */
export function inTurn<T>(...orders: readonly Order<T>[]): Order<T> {
  return (a, b) => {
    for (const order of orders) {
      const difference = order(a, b);
      if (difference !== 0) return difference;
    }
    return 0;
  };
}

/** Lexicographic order of two lists of numbers of equal length. */
export const byTuple: Order<readonly number[]> = (a, b) => {
  for (let i = 0; i < a.length; i++) {
    const difference = (a[i] ?? 0) - (b[i] ?? 0);
    if (difference !== 0) return difference;
  }
  return 0;
};
