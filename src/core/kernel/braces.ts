/** Texts with names in braces, as in "{mark}: {size}". Room around a name does not count. */
const BRACED = /\{\s*([^{}]*?)\s*\}/g;

/** The first name that is not known, with its braces as they are typed; null: all are. */
export const strayBrace = (text: string, isKnown: (name: string) => boolean): string | null =>
  [...text.matchAll(BRACED)].find(([, name = ""]) => !isKnown(name))?.[0] ?? null;

/** The text with what its names stand for; null: the name stays as it is. */
export const filledBraces = (text: string, meaningOf: (name: string) => string | null): string =>
  text.replace(BRACED, (whole, name: string) => meaningOf(name) ?? whole);
