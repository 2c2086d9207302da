/** Numbers of a row as people write them: "2, 5-7". */
import { err, ok, type Result, unreachable } from "../kernel";

/** More than can be left out of one row. */
const MOST = 1_000;

/** Why they cannot be read; `part` is what stands there. */
export type RowNumbersFault =
  | { readonly kind: "notANumber" | "outOfRow"; readonly part: string }
  | { readonly kind: "tooMany"; readonly most: number };

/** The sentence under the field. */
export function rowNumbersFaultWords(fault: RowNumbersFault): string {
  switch (fault.kind) {
    case "notANumber":
      return `"${fault.part}" is no number of the row. Write them like 2, 5-7.`;
    case "outOfRow":
      return `"${fault.part}" is no number of the row. The first is 1.`;
    case "tooMany":
      return `At most ${fault.most} can be left out of one row.`;
    default:
      return unreachable(fault);
  }
}

/** The numbers in order, each once. Empty text: none. */
export function readRowNumbers(text: string): Result<number[], RowNumbersFault> {
  const parts = text
    .split(/[,;\s]+/)
    .map((part) => part.trim())
    .filter((part) => part !== "");
  const found = new Set<number>();
  for (const part of parts) {
    const read = /^(\d{1,5})(?:[-–](\d{1,5}))?$/.exec(part);
    if (!read) return err({ kind: "notANumber", part });
    const [first, last] = [Number(read[1]), Number(read[2] ?? read[1])];
    if (first < 1 || last < first || last > 10_000) return err({ kind: "outOfRow", part });
    for (let number = first; number <= last && found.size <= MOST; number++) found.add(number);
  }
  if (found.size > MOST) return err({ kind: "tooMany", most: MOST });
  return ok([...found].sort((a, b) => a - b));
}

/** "2, 5-7": those that follow one another together. */
export function rowNumberWords(numbers: readonly number[]): string {
  const runs: [number, number][] = [];
  for (const number of numbers) {
    const last = runs.at(-1);
    if (last && number === last[1] + 1) last[1] = number;
    else runs.push([number, number]);
  }
  return runs.map(([first, last]) => (first === last ? `${first}` : `${first}-${last}`)).join(", ");
}
