/** Numbers of a row as people write them: "2, 5-7". */
import { err, ok, type Result } from "../kernel";

/** More than can be left out of one row. */
const MOST = 1_000;

/** The numbers in order, each once; the sentence says what cannot be read. Empty text: none. */
export function readRowNumbers(text: string): Result<number[], string> {
  const parts = text
    .split(/[,;\s]+/)
    .map((part) => part.trim())
    .filter((part) => part !== "");
  const found = new Set<number>();
  for (const part of parts) {
    const read = /^(\d{1,5})(?:[-–](\d{1,5}))?$/.exec(part);
    if (!read) return err(`"${part}" is no number of the row. Write them like 2, 5-7.`);
    const [first, last] = [Number(read[1]), Number(read[2] ?? read[1])];
    if (first < 1 || last < first || last > 10_000)
      return err(`"${part}" is no number of the row. The first is 1.`);
    for (let number = first; number <= last && found.size <= MOST; number++) found.add(number);
  }
  if (found.size > MOST) return err(`At most ${MOST} can be left out of one row.`);
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
