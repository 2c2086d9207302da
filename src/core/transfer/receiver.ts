import { at, invariant } from "../kernel";
import { type Parcel, type Plain, TAG } from "./parcel";

/** Unpacks one parcel; it rests after each few thousand numbers, and returns the value. */
export type Unpacking = Generator<void, Plain>;
export type Receiver = (parcel: Parcel) => Unpacking;

/** After how many numbers, texts or keys it rests: well under a millisecond each. */
const REST_AFTER = 4096;
const isRest = (n: number) => n % REST_AFTER === REST_AFTER - 1;

/** Takes the parcels of one sender, in their order, each unpacked to its end before the next. */
export function createReceiver(): Receiver {
  let objects: object[] = [];
  let keyLists: (readonly string[])[] = [];
  let texts: string[] = [];
  return function* unpack({ afresh, keys, texts: fresh, ends, tags, values }) {
    if (afresh) {
      objects = [];
      keyLists = [];
      texts = [];
    }
    for (let n = 0, start = 0; n < ends.length; n++) {
      const end = at(ends, n);
      texts.push(fresh.slice(start, end));
      start = end;
      if (isRest(n)) yield;
    }
    for (let n = 0; n < keys.length; ) {
      const list: string[] = [];
      const end = n + 1 + at(keys, n);
      while (++n < end) {
        list.push(at(texts, at(keys, n)));
        if (isRest(n)) yield;
      }
      keyLists.push(list);
    }
    let i = 0;
    const next = (): Plain => {
      const value = values[i] ?? 0;
      switch (tags[i++]) {
        case TAG.number:
          return value;
        case TAG.text:
          return at(texts, value);
        case TAG.object:
          return at(objects, value);
        case TAG.null:
          return null;
        case TAG.undefined:
          return undefined;
        case TAG.true:
          return true;
        case TAG.false:
          return false;
        default:
          return invariant(false, "a parcel is damaged");
      }
    };
    let rested = 0;
    // The last number is the value itself; everything before it are objects.
    while (i < tags.length - 1) {
      if (i - rested > REST_AFTER) {
        rested = i;
        yield;
      }
      const size = values[i] ?? 0;
      switch (tags[i++]) {
        case TAG.record: {
          const made: Record<string, Plain> = {};
          let n = 0;
          for (const key of at(keyLists, size)) {
            made[key] = next();
            if (isRest(n++)) yield;
          }
          objects.push(made);
          break;
        }
        case TAG.array: {
          const made: Plain[] = [];
          for (let n = 0; n < size; n++) {
            made.push(next());
            if (isRest(n)) yield;
          }
          objects.push(made);
          break;
        }
        case TAG.map: {
          const made = new Map<Plain, Plain>();
          for (let n = 0; n < size; n++) {
            const key = next();
            made.set(key, next());
            if (isRest(n)) yield;
          }
          objects.push(made);
          break;
        }
        case TAG.set: {
          const made = new Set<Plain>();
          for (let n = 0; n < size; n++) {
            made.add(next());
            if (isRest(n)) yield;
          }
          objects.push(made);
          break;
        }
        default:
          invariant(false, "a parcel is damaged");
      }
    }
    return next();
  };
}
