/**
 * Plain data packed for another thread. What the receiver holds already is named by its number and not sent again, so
 * that an edit sends what it changed, and whatever is kept by the identity of an object stays valid on both sides.
 */

/** What can be sent: values, arrays, maps, sets and objects without a class, in any depth, shared but not circular. */
export type Plain = unknown;

/**
 * Flat arrays that change hands without being copied, and one text: a structured clone of half a million objects or texts would
 * stop the page while it is made.
 */
export type Parcel = {
  /** Nothing that was sent before is referred to from here on; the receiver forgets it. */
  readonly afresh: boolean;
  /** Texts that are named here for the first time, one after the other, and where each of them ends. */
  readonly texts: string;
  readonly ends: Uint32Array<ArrayBuffer>;
  /** New lists of keys: how many there are in the list, then the number of the text of each. */
  readonly keys: Uint32Array<ArrayBuffer>;
  /** How each of `values` is to be read. */
  readonly tags: Uint8Array<ArrayBuffer>;
  readonly values: Float64Array<ArrayBuffer>;
};

/** The arrays of a parcel that change hands when it is posted. */
export const movedWith = ({ ends, keys, tags, values }: Parcel): ArrayBuffer[] => [
  ends.buffer,
  keys.buffer,
  tags.buffer,
  values.buffer,
];

/** What a number of a parcel stands for. The last four begin an object, whose items follow. */
export const TAG = {
  number: 0,
  /** The number of a text. */
  text: 1,
  /** The number of an object. */
  object: 2,
  null: 3,
  undefined: 4,
  true: 5,
  false: 6,
  /** An object with keys; the number of its list of keys. */
  record: 7,
  /** The number of items; of a map twice as many values follow. */
  array: 8,
  map: 9,
  set: 10,
} as const;
