import { at, invariant } from "../kernel";
import { type Parcel, type Plain, TAG } from "./parcel";

export type Sender = (value: Plain) => Parcel;

/** Above how many objects that the receiver holds, and how many times those of the first parcel, all is sent anew. */
const LEAST_HELD = 100_000;
const TIMES_FIRST = 3;

/** Packs one value after the other for one receiver, which must be given all parcels in their order. */
export function createSender(): Sender {
  let held = newHeld();
  let first: number | null = null;
  return (value) => {
    const afresh = first !== null && held.count > Math.max(LEAST_HELD, TIMES_FIRST * first);
    if (afresh) {
      held = newHeld();
      first = null;
    }
    const parcel = packed(value, held);
    first ??= held.count;
    return { ...parcel, afresh };
  };
}

/** A record with more keys is a table of its own kind: its list of keys will not come again. */
const MOST_SHARED_KEYS = 64;

/** Lists of keys, walked key by key: joining them for each object took longer than all else. */
type KeyNode = { number: number | null; readonly next: Map<string, KeyNode> };

/** What the receiver holds, by the numbers that both sides give in the order of sending. */
type Held = {
  /** Below 0 while its inside is being written. */
  readonly objects: WeakMap<object, number>;
  count: number;
  readonly texts: Map<string, number>;
  readonly keys: KeyNode;
  keyLists: number;
};

const newHeld = (): Held => ({
  objects: new WeakMap(),
  count: 0,
  texts: new Map(),
  keys: { number: null, next: new Map() },
  keyLists: 0,
});

/** Two arrays that grow together. */
function createWriter() {
  let tags = new Uint8Array(1024);
  let values = new Float64Array(1024);
  let length = 0;
  const grow = () => {
    const [before, numbers] = [tags, values];
    tags = new Uint8Array(2 * length);
    values = new Float64Array(2 * length);
    tags.set(before);
    values.set(numbers);
  };
  return {
    write: (tag: number, number: number): void => {
      if (length === tags.length) grow();
      tags[length] = tag;
      values[length++] = number;
    },
    written: () => ({ tags: tags.slice(0, length), values: values.slice(0, length) }),
  };
}

function packed(value: Plain, held: Held): Omit<Parcel, "afresh"> {
  const keys: number[] = [];
  const texts: string[] = [];
  const { write, written } = createWriter();

  const textNumber = (text: string): number => {
    const known = held.texts.get(text);
    if (known !== undefined) return known;
    const number = held.texts.size;
    held.texts.set(text, number);
    texts.push(text);
    return number;
  };

  const writeKeys = (own: readonly string[]): number => {
    // The receiver writes keys one by one, and this one would be taken for something else.
    invariant(!own.includes("__proto__"), "only plain data can be sent");
    keys.push(own.length);
    for (const key of own) keys.push(textNumber(key));
    return held.keyLists++;
  };

  const keyList = (own: readonly string[]): number => {
    if (own.length > MOST_SHARED_KEYS) return writeKeys(own);
    let node = held.keys;
    for (const key of own) {
      const next = node.next.get(key) ?? { number: null, next: new Map() };
      node.next.set(key, next);
      node = next;
    }
    node.number ??= writeKeys(own);
    return node.number;
  };

  /** Writes an object unless the receiver has it: what is inside it first. */
  const place = (item: Plain): void => {
    if (typeof item !== "object" || item === null) return;
    const known = held.objects.get(item);
    invariant(known === undefined || known >= 0, "what is sent goes round in a circle");
    if (known !== undefined) return;
    held.objects.set(item, -1);
    if (Array.isArray(item)) {
      for (const one of item) place(one);
      write(TAG.array, item.length);
      for (const one of item) refer(one);
    } else if (item instanceof Map) {
      for (const [key, one] of item) {
        place(key);
        place(one);
      }
      write(TAG.map, item.size);
      for (const [key, one] of item) {
        refer(key);
        refer(one);
      }
    } else if (item instanceof Set) {
      for (const one of item) place(one);
      write(TAG.set, item.size);
      for (const one of item) refer(one);
    } else placeRecord(item);
    held.objects.set(item, held.count++);
  };

  const placeRecord = (item: object): void => {
    const proto: unknown = Object.getPrototypeOf(item);
    invariant(proto === Object.prototype || proto === null, "only plain data can be sent");
    const own = Object.keys(item);
    const record = item as Readonly<Record<string, Plain>>;
    for (const key of own) place(record[key]);
    write(TAG.record, keyList(own));
    for (const key of own) refer(record[key]);
  };

  /** Writes a value, an object by the number under which it has been placed. */
  const refer = (item: Plain): void => {
    if (typeof item === "number") write(TAG.number, item);
    else if (typeof item === "string") write(TAG.text, textNumber(item));
    else if (typeof item === "boolean") write(item ? TAG.true : TAG.false, 0);
    else if (item === undefined) write(TAG.undefined, 0);
    else if (item === null) write(TAG.null, 0);
    else {
      invariant(typeof item === "object", "only plain data can be sent");
      write(TAG.object, held.objects.get(item) ?? -1);
    }
  };

  place(value);
  refer(value);
  const ends = new Uint32Array(texts.length);
  let end = 0;
  for (let i = 0; i < texts.length; i++) {
    end += at(texts, i).length;
    ends[i] = end;
  }
  return { texts: texts.join(""), ends, keys: Uint32Array.from(keys), ...written() };
}
