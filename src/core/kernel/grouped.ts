/** Items by a key, those of one key in their order (Map.groupBy, which Node 20 lacks). */
export function grouped<T, K>(items: Iterable<T>, keyOf: (item: T) => K): ReadonlyMap<K, readonly T[]> {
  const groups = new Map<K, T[]>();
  for (const item of items) addTo(groups, keyOf(item), item);
  return groups;
}

/** Puts an item at the end of the list at a key. */
export function addTo<K, T>(lists: Map<K, T[]>, key: K, item: T): void {
  const there = lists.get(key);
  if (there) there.push(item);
  else lists.set(key, [item]);
}
