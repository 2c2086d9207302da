/**
 * Memory of one call: a stage that is asked again with the identical inputs gives the identical
 * result. Stages are pure, so this is only about time.
 */
export function remembersLast<A extends readonly unknown[], R>(stage: (...args: A) => R): (...args: A) => R {
  let last: { readonly args: A; readonly result: R } | null = null;
  return (...args) => {
    if (last?.args.every((value, i) => Object.is(value, args[i]))) return last.result;
    last = { args, result: stage(...args) };
    return last.result;
  };
}

/** Gives the value that belongs to a key: the one before, as long as all that it was made `from` is identical. */
export type Memory<K extends object, V> = (key: K, from: readonly unknown[], compute: () => V) => V;

/**
 * Memory of one value for each record, so that an edit to one of many computes that one alone. Keys are immutable
 * records; they and their values are forgotten when nobody holds them any more.
 */
export function remembersEach<K extends object, V>(): Memory<K, V> {
  const known = new WeakMap<K, { readonly from: readonly unknown[]; readonly value: V }>();
  return (key, from, compute) => {
    const before = known.get(key);
    if (before && sameItems(before.from, from)) return before.value;
    const value = compute();
    known.set(key, { from, value });
    return value;
  };
}

/** Whether two lists hold the identical items in the same order. */
export function sameItems(a: readonly unknown[], b: readonly unknown[]): boolean {
  if (a.length !== b.length) return false;
  // A plain loop: this runs thousands of times after every edit.
  for (let i = 0; i < a.length; i++) if (!Object.is(a[i], b[i])) return false;
  return true;
}
