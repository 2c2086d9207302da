/** Counts with their nouns: the one way to say how many there are, so that they always agree. */

/** "1 cut", "2 cuts"; `many` for nouns whose plural is not just an s more. */
export const counted = (count: number, one: string, many = `${one}s`): string =>
  `${count} ${agreeing(count, one, many)}`;

/** The form of a word that agrees with a count, where the count itself is not said beside it. */
export const agreeing = (count: number, one: string, many = `${one}s`): string => (count === 1 ? one : many);

/** "once", "2 times". */
export const timesWords = (count: number): string => (count === 1 ? "once" : `${count} times`);
