import { at, invariant } from "../kernel";
import { type Parcel, type Plain, TAG } from "./parcel";

/** Unpacks one parcel; it rests after each few thousand numbers, and returns the value. */
export type Unpacking = Generator<void, Plain>;
export type Receiver = (parcel: Parcel) => Unpacking;

/** After how many numbers it rests: well under a millisecond each. */
const REST_AFTER = 4096;

/** Takes the parcels of one sender, in their order, each unpacked to its end before the next. */
export function createReceiver(): Receiver {
  let objects: object[] = [];
  let keyLists: (readonly string[])[] = [];
  let texts: string[] = [];
  return function* unpack({ afresh, keys, texts: fresh, tags, values }) {
    if (afresh) {
      objects = [];
      keyLists = [];
      texts = [];
    }
    keyLists.push(...keys);
    for (const text of fresh) texts.push(text);
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
          for (const key of at(keyLists, size)) made[key] = next();
          objects.push(made);
          break;
        }
        case TAG.array: {
          const made: Plain[] = [];
          for (let n = 0; n < size; n++) {
            made.push(next());
            if ((n & 0xfff) === 0xfff) yield;
          }
          objects.push(made);
          break;
        }
        case TAG.map: {
          const made = new Map<Plain, Plain>();
          for (let n = 0; n < size; n++) {
            const key = next();
            made.set(key, next());
            if ((n & 0xfff) === 0xfff) yield;
          }
          objects.push(made);
          break;
        }
        case TAG.set: {
          const made = new Set<Plain>();
          for (let n = 0; n < size; n++) {
            made.add(next());
            if ((n & 0xfff) === 0xfff) yield;
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
