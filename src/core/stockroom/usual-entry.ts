/** What a new section takes over from those that the shop has: how it is sawn and bought, and what it is made of. */
import type { SectionEntry } from "./stockroom";

type Usual = Pick<
  SectionEntry,
  "material" | "densityKgM3" | "kerf" | "trimStart" | "trimEnd" | "grip" | "keep" | "share" | "rack" | "stock"
>;

/** The value that most of some entries have; of several the first. */
function most<T>(values: readonly T[]): T | undefined {
  const counts = new Map<string, { readonly value: T; count: number }>();
  for (const value of values) {
    const key = JSON.stringify(value);
    const known = counts.get(key);
    if (known) known.count++;
    else counts.set(key, { value, count: 1 });
  }
  return [...counts.values()].sort((a, b) => b.count - a.count)[0]?.value;
}

/**
 * The entry with what most of the shop's sections of its kind have, else most of those that are timber as it is, or are not. Lengths
 * of stock are taken over without their prices, which nobody has said.
 */
export function asUsual(entry: SectionEntry, sections: readonly SectionEntry[]): SectionEntry {
  const isTimber = ({ shape }: SectionEntry) => shape.kind === "timber";
  const ofKind = sections.filter(({ shape }) => shape.kind === entry.shape.kind);
  const like = ofKind.length > 0 ? ofKind : sections.filter((one) => isTimber(one) === isTimber(entry));
  const usual = <K extends keyof Usual>(key: K): SectionEntry[K] =>
    most(like.map((one) => one[key])) ?? entry[key];
  const lengths = most(like.map(({ stock }) => stock.map(({ length }) => length))) ?? [];
  return {
    ...entry,
    material: usual("material"),
    densityKgM3: usual("densityKgM3"),
    kerf: usual("kerf"),
    trimStart: usual("trimStart"),
    trimEnd: usual("trimEnd"),
    grip: usual("grip"),
    keep: usual("keep"),
    share: usual("share"),
    rack: usual("rack"),
    stock: lengths.map((length) => ({ length, price: null, count: null })),
  };
}
