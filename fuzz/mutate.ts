/** Malformed inputs out of good ones, the same for the same seed: values, keys, texts and bytes changed one or a few at a time. */
import type { Random } from "@/core/kernel";

const pick = <T>(random: Random, values: readonly T[]): T => values[random.below(values.length)] as T;

/** What has broken readers before. */
const NASTY: readonly unknown[] = [
  null,
  true,
  "",
  " ",
  0,
  -0,
  -1,
  0.1,
  1e-12,
  1e9,
  1e12,
  1e308,
  -1e308,
  2 ** 53,
  "1e12",
  "-1e9",
  "0/0",
  "1/0",
  "9".repeat(400),
  "(".repeat(300),
  "a".repeat(5_000),
  "constructor",
  "__proto__",
  "toString",
  "valueOf",
  "width * 1e9",
  "width ^ width ^ width",
  'count("Leg")',
  "javascript:alert(1)",
  "=1+1",
  "\u0000",
  "\uD800",
  "\u202Eabc",
  [],
  {},
  [[[[[[[[]]]]]]]],
];

type Holder = Record<string, unknown> | unknown[];
const isHolder = (value: unknown): value is Holder => typeof value === "object" && value !== null;

/** Every place in a JSON value: who holds it, and under which key. */
function placesIn(value: unknown, found: [Holder, string][] = []): [Holder, string][] {
  if (!isHolder(value)) return found;
  for (const key of Object.keys(value)) {
    found.push([value, key]);
    placesIn((value as Record<string, unknown>)[key], found);
  }
  return found;
}

/** A JSON value with one to four of its parts changed. */
export function mutatedJson(random: Random, good: unknown): unknown {
  const value = structuredClone(good);
  for (let i = random.below(4); i >= 0; i--) {
    const places = placesIn(value);
    if (places.length === 0) return pick(random, NASTY);
    const [holder, key] = pick(random, places);
    const within = holder as Record<string, unknown>;
    const now = within[key];
    switch (random.below(7)) {
      case 0:
      case 1:
        within[key] = structuredClone(pick(random, NASTY));
        break;
      case 2:
        if (Array.isArray(holder)) holder.splice(Number(key), 1);
        else delete within[key];
        break;
      case 3: {
        const [other, otherKey] = pick(random, places);
        within[key] = structuredClone((other as Record<string, unknown>)[otherKey]);
        break;
      }
      case 4:
        if (!Array.isArray(holder)) {
          const name = String(pick(random, ["constructor", "toString", "extra", "id", "kind"]));
          within[name] = now;
        } else holder.push(structuredClone(now));
        break;
      case 5:
        if (typeof now === "number")
          within[key] = pick(random, [-now, now * 1e6, now / 1e9, now + 0.5, now * 1e-3]);
        else if (typeof now === "string") within[key] = mutatedText(random, now);
        else within[key] = [now, now, now];
        break;
      default:
        if (Array.isArray(now))
          within[key] = Array.from({ length: 60 }, () => structuredClone(now[0] ?? null));
        else if (typeof now === "string") within[key] = `${now}${now}`;
        else within[key] = { [key]: now };
    }
  }
  return value;
}

const TOKENS = [
  "0",
  "-",
  "1e12",
  "\n",
  "\r",
  "\t",
  ";",
  ",",
  '"',
  "'",
  "\u0000",
  "EOF",
  "SECTION",
  "nan",
  "=A1",
  "é",
];

/** A text with a few stretches dropped, doubled, moved or changed. */
export function mutatedText(random: Random, good: string): string {
  let text = good;
  for (let i = random.below(3); i >= 0; i--) {
    const at = random.below(text.length + 1);
    const to = Math.min(text.length, at + 1 + random.below(Math.max(1, Math.ceil(text.length / 4))));
    const part = text.slice(at, to);
    const token = pick(random, TOKENS);
    text = pick(random, [
      () => text.slice(0, at) + text.slice(to),
      () => text.slice(0, at) + part + part + text.slice(to),
      () => text.slice(0, at),
      () => text.slice(at),
      () => text.slice(0, at) + token + text.slice(at),
      () => text.slice(0, at) + token + text.slice(to),
      () => text.slice(to) + part + text.slice(0, at),
      () => text.slice(0, at) + token.repeat(200) + text.slice(at),
    ])();
    if (text.length > 400_000) return text.slice(0, 400_000);
  }
  return text;
}

/** Bytes with some changed, cut off or doubled. */
export function mutatedBytes(random: Random, good: Uint8Array): Uint8Array {
  const bytes = good.slice();
  for (let i = random.below(6); i >= 0; i--)
    if (bytes.length > 0) bytes[random.below(bytes.length)] = random.below(256);
  const at = random.below(bytes.length + 1);
  return pick(random, [() => bytes, () => bytes.slice(0, at), () => bytes.slice(at)])();
}
