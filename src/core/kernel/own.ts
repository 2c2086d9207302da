/**
 * Looking things up by names that came from outside. Every plain object answers to names that nobody gave it
 * ("constructor", "toString"), so tables are read by their own keys only, and no record may be called like that.
 */

/** What a table holds under a key of its own; undefined for everything else. */
export function own<T>(table: Readonly<Record<string, T>>, key: string): T | undefined {
  return Object.hasOwn(table, key) ? table[key] : undefined;
}

/** Whether a name can be the key of a record: no name that every object answers to. */
export const canBeKey = (name: string): boolean => !(name in Object.prototype);
