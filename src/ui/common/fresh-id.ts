/** Ids that no two browsers make. `crypto.randomUUID` is missing where a page comes over plain HTTP in the shop's network. */
export const freshId = (signs = 32): string =>
  Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, "0"))
    .join("")
    .slice(0, signs);

/** The id of a new record: what it is, and signs enough that no two of a job or a shop are alike. */
export const newId = (kind: string): string => `${kind}-${freshId(13)}`;
