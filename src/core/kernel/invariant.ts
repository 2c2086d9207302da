/** A broken promise of the program itself, never something that a user typed. */
export class BrokenInvariant extends Error {
  override readonly name = "BrokenInvariant";
}

/** Throws `BrokenInvariant` when the condition does not hold. */
export function invariant(condition: unknown, message: string): asserts condition {
  if (!condition) throw new BrokenInvariant(message);
}

/** The exhaustive end of a switch over a `kind` union. */
export function unreachable(value: never): never {
  throw new BrokenInvariant(`unexpected value ${JSON.stringify(value)}`);
}

/** The element at an index that the caller knows to be inside the list. */
export function at<T>(list: ArrayLike<T>, index: number): T {
  const value = list[index];
  // The message is made only where it is told: this is called millions of times.
  if (value === undefined) throw new BrokenInvariant(`no element ${index} in a list of ${list.length}`);
  return value;
}
