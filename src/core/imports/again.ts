/**
 * A file that was changed and is read again: each of its pieces beside what it was, by its name, its form and its place. What is
 * the same is left alone; what moved, changed, came or went is told, with the values before and after.
 */
import { grouped } from "../kernel";
import { type LengthUnit, MM_PER_UNIT } from "../measure";
import { apart, nearText, type Print, type Prints } from "./prints";

export type Difference = {
  readonly kind: "moved" | "changed" | "came" | "went";
  /** What the file said before; null: it is new. */
  readonly before: Print | null;
  /** What it says now; null: it is gone. */
  readonly now: Print | null;
  /** "length 940 → 1040", one after the other. */
  readonly words: readonly string[];
};

export type Again = {
  readonly differences: readonly Difference[];
  /** Records before, by the records of the new reading that are the same piece, assemblies included. */
  readonly sameAs: ReadonlyMap<string, string>;
  /** Pieces that are as they were. */
  readonly same: number;
};

/** mm. Readings of one piece that stands still come nearer than this. */
const STILL_MM = 0.02;
/** Above so many pairs of pieces with one name the nearest is taken one after the other. */
const MOST_PAIRS = 250_000;

/** `isThere`: whether a record of before still is in the job; what somebody removed by hand is left alone. */
export function readAgain(before: Prints, now: Prints, isThere: (id: string) => boolean): Again {
  const still = STILL_MM / MM_PER_UNIT[now.unit];
  const sameAs = new Map<string, string>();
  // Assemblies by their names, in their order.
  const byName = grouped(before.assemblies, ({ name }) => name);
  const counts = new Map<string, number>();
  for (const { id, name } of now.assemblies) {
    const index = counts.get(name) ?? 0;
    counts.set(name, index + 1);
    const known = byName.get(name)?.[index];
    if (known) sameAs.set(id, known.id);
  }
  const homeNow = (print: Print) =>
    print.home === null ? null : (sameAs.get(print.home) ?? `new ${print.home}`);
  const formOf = ({ form }: Print, isNow: boolean) =>
    JSON.stringify(
      Object.entries(form).map(([key, value]) => [
        key,
        key === "assembly" && isNow ? (sameAs.get(value) ?? `new ${value}`) : value,
      ]),
    );
  const groupsBefore = grouped(before.prints, (print) => `${print.kind}/${print.home}`);
  const groupsNow = grouped(now.prints, (print) => `${print.kind}/${homeNow(print)}`);
  const differences: Difference[] = [];
  let same = 0;
  for (const key of new Set([...groupsBefore.keys(), ...groupsNow.keys()])) {
    const old = new Set(groupsBefore.get(key) ?? []);
    const fresh = new Set(groupsNow.get(key) ?? []);
    const pair = (
      keyOf: (print: Print, isNow: boolean) => string,
      most: number,
      take: (a: Print, b: Print) => void,
    ) => {
      const others = grouped(old, (print) => keyOf(print, false));
      for (const [own, news] of grouped(fresh, (print) => keyOf(print, true)))
        for (const [a, b] of nearestPairs(others.get(own) ?? [], news, most)) {
          old.delete(a);
          fresh.delete(b);
          sameAs.set(b.id, a.id);
          take(a, b);
        }
    };
    const told = (kind: "moved" | "changed") => (a: Print, b: Print) => {
      if (isThere(a.id)) differences.push({ kind, before: a, now: b, words: wordsBetween(a, b, now.unit) });
    };
    const whole = (print: Print, isNow: boolean) => JSON.stringify([print.name, formOf(print, isNow)]);
    pair(whole, still, () => {
      same++;
    });
    pair(formOf, still, told("changed"));
    pair((print) => print.name, still, told("changed"));
    pair(whole, Number.POSITIVE_INFINITY, told("moved"));
    pair((print) => print.name, Number.POSITIVE_INFINITY, told("changed"));
    for (const print of old)
      if (isThere(print.id)) differences.push({ kind: "went", before: print, now: null, words: [] });
    for (const print of fresh) differences.push({ kind: "came", before: null, now: print, words: [] });
  }
  return { differences, sameAs, same };
}

/** Pairs of two lists, the nearest first, none farther apart than `most`. */
function nearestPairs(
  old: readonly Print[],
  fresh: readonly Print[],
  most: number,
): readonly (readonly [Print, Print])[] {
  if (old.length * fresh.length > MOST_PAIRS) return oneByOne(old, fresh, most);
  const pairs = old.flatMap((a) =>
    fresh.flatMap((b) => {
      const far = apart(a, b);
      return far <= most ? [{ a, b, far }] : [];
    }),
  );
  pairs.sort((one, other) => one.far - other.far);
  const taken = new Set<Print>();
  return pairs.flatMap(({ a, b }) => {
    if (taken.has(a) || taken.has(b)) return [];
    taken.add(a);
    taken.add(b);
    return [[a, b] as const];
  });
}

function oneByOne(
  old: readonly Print[],
  fresh: readonly Print[],
  most: number,
): readonly (readonly [Print, Print])[] {
  const left = new Set(old);
  return fresh.flatMap((b) => {
    let best: Print | null = null;
    let least = Number.POSITIVE_INFINITY;
    for (const a of left) {
      const far = apart(a, b);
      if (far <= most && far < least) [best, least] = [a, far];
    }
    if (!best) return [];
    left.delete(best);
    return [[best, b] as const];
  });
}

/** What is in a piece that no words say. */
const WITHOUT_WORDS: Readonly<Record<string, string>> = {
  work: "holes and cuts",
  outline: "outline",
  shape: "shape",
  board: "board",
  assembly: "assembly",
};

function wordsBetween(a: Print, b: Print, unit: LengthUnit): readonly string[] {
  const words: string[] = [];
  if (a.name !== b.name) words.push(`name ${a.name} → ${b.name}`);
  for (const [key, value] of Object.entries(b.form)) {
    const old = a.form[key] ?? "";
    if (old === value || key === "assembly") continue;
    const plain = WITHOUT_WORDS[key];
    words.push(plain === undefined ? `${key} ${old} → ${value}` : `other ${plain}`);
  }
  if (apart(a, b) > STILL_MM / MM_PER_UNIT[unit]) words.push(movedWords(a, b, unit));
  return words;
}

const STAYED = "0; 0; 0";

/** Where it went: "moved by 0; 100; 0". */
function movedWords(a: Print, b: Print, unit: LengthUnit): string {
  const by = (from: number) =>
    [0, 1, 2].map((k) => nearText((b.place[from + k] ?? 0) - (a.place[from + k] ?? 0), unit)).join("; ");
  const start = by(0);
  if (a.kind === "member" && by(3) !== start)
    return [
      ["start", start],
      ["end", by(3)],
    ]
      .flatMap(([which, far]) => (far === STAYED ? [] : [`${which} moved by ${far}`]))
      .join(", ");
  return start === STAYED ? "turned" : `moved by ${start}`;
}
