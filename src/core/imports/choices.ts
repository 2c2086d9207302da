/** What somebody chose for the parts of a file when it entered, by their names: a later state of it begins with the same. */
import type { FoundFile, FoundPart, TakeWay } from "./found";
import { partName } from "./records";
import { type Ways, wayOf } from "./stock";

/** `way`: null where there was no choice; `within`: the gap in mm within which its rims were joined, null where they were not. */
export type Choice = {
  readonly name: string;
  readonly way: TakeWay | null;
  readonly within: number | null;
};

function* namedParts(file: FoundFile): Generator<readonly [string, FoundPart]> {
  for (const { name, parts } of file.products)
    for (const [i, part] of parts.entries()) yield [partName(part.name, name, parts.length, i), part];
}

/** All choices; parts of one name that were chosen for in different ways have none. */
export function choicesOf(file: FoundFile, ways: Ways): readonly Choice[] {
  const byName = new Map<string, Choice | null>();
  for (const [name, part] of namedParts(file)) {
    const way = wayOf(ways, part.key);
    const choice: Choice = {
      name,
      way: way !== "taken" || part.otherwise.length > 0 ? way : null,
      within: part.joinedWithin,
    };
    const known = byName.get(name);
    const isOther = known === null || (known && (known.way !== choice.way || known.within !== choice.within));
    byName.set(name, isOther ? null : choice);
  }
  return [...byName.values()].flatMap((one) =>
    one && (one.way !== null || one.within !== null) ? [one] : [],
  );
}

/** Earlier choices for the parts of a file that are called the same: how they are taken, and the gaps within which they are closed. */
export function chosenBefore(
  file: FoundFile,
  choices: readonly Choice[],
): { readonly ways: Ways; readonly gaps: ReadonlyMap<string, number> } {
  const byName = new Map(choices.map((choice) => [choice.name, choice]));
  const ways = new Map<string, TakeWay>();
  const gaps = new Map<string, number>();
  for (const [name, part] of namedParts(file)) {
    const choice = byName.get(name);
    if (choice?.way && (choice.way !== "otherwise" || part.otherwise.length > 0))
      ways.set(part.key, choice.way);
    if (choice && choice.within !== null && part.gaps.length > 0) gaps.set(part.key, choice.within);
  }
  return { ways, gaps };
}
