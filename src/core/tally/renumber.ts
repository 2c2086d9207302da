/** Marks by hand: one held, all given anew in an order; each is one edit, and can be put back to computed. */
import { homeOf, type Job, refused, type SimpleEdit } from "../job";
import { byKey, byNumber, ok, type Problem, type Result } from "../kernel";
import { markOf } from "./marks";
import type { TallyRow } from "./row";
import type { Tally } from "./tally";

const idsOf = (row: TallyRow) => [...new Set(row.pieces.map((piece) => piece.id))];

/** The edit that holds a typed mark for a row; refused where another row has it. */
export function holdMark(tally: Tally, row: TallyRow, text: string): Result<SimpleEdit, Problem> {
  const mark = text.trim();
  if (mark === "" || mark.length > 12)
    return refused("The mark", text, "must have 1 to 12 letters or digits");
  const other = tally.rows.find((one) => one !== row && one.mark === mark);
  if (other) return refused("The mark", mark, `is that of ${other.name}; give that row another one first`);
  return ok({ kind: "keepMarks", marks: idsOf(row).map((id) => ({ id, mark, held: true })), drop: [] });
}

/** The edit that gives a row back the next mark that is free. */
export function letMarkGo(row: TallyRow): SimpleEdit {
  return { kind: "keepMarks", marks: [], drop: idsOf(row) };
}

export type NumberRule = {
  readonly style: "letters" | "numbers";
  /** The first one: 1 is A. */
  readonly start: number;
  readonly step: number;
  readonly prefix: { readonly member: string; readonly panel: string; readonly other: string };
  /** `listed`: as the tally stands; `assembly`: the job itself first, then one assembly after the other. */
  readonly order: "listed" | "assembly";
};

/**
 * The edit that marks all made rows anew. Held marks stay, and their texts are passed over. Rows with one prefix
 * count on; another prefix starts again.
 */
export function renumber(job: Job, tally: Tally, rule: NumberRule): Result<SimpleEdit, Problem> {
  const { start, step, prefix } = rule;
  for (const [what, value] of [
    ["The first number", start],
    ["The step", step],
  ] as const)
    if (!Number.isInteger(value) || value < 1 || value > 10_000)
      return refused(what, String(value), "must be a whole number from 1 to 10,000");
  const rows = ordered(job, tally, rule.order);
  const taken = new Set(rows.filter((row) => row.held).map((row) => row.mark));
  const counted = new Map<string, number>();
  const marks = rows
    .filter((row) => !row.held)
    .flatMap((row) => {
      const before = prefix[row.kind === "bought" ? "other" : row.kind].trim();
      let mark = "";
      do {
        const number = counted.get(before) ?? start;
        counted.set(before, number + step);
        mark = markBy({ style: rule.style, prefix: before }, number);
      } while (taken.has(mark));
      taken.add(mark);
      return idsOf(row).map((id) => ({ id, mark }));
    });
  const long = marks.find(({ mark }) => mark.length > 12);
  if (long) return refused("The mark", long.mark, "would have more than 12 letters; take a shorter prefix");
  return ok({ kind: "keepMarks", marks, drop: [] });
}

/** Marks given one after the other by picking: which comes next, and by how much they step. */
export type PickRule = Pick<NumberRule, "style" | "step"> & {
  readonly prefix: string;
  readonly next: number;
};

const markBy = ({ style, prefix }: Pick<PickRule, "style" | "prefix">, number: number) =>
  `${prefix}${style === "letters" ? markOf(number - 1) : number}`;

/**
 * The edit that gives a picked row the next mark and holds it, and the number after it. A row that has that mark
 * without being held gives way; one that is held is passed over.
 */
export function markPicked(
  tally: Tally,
  row: TallyRow,
  rule: PickRule,
): Result<{ readonly edit: SimpleEdit; readonly mark: string; readonly next: number }, Problem> {
  if (row.kind === "bought") return refused("Bought part", row.name, "has no mark; it is named by its entry");
  const held = new Set(tally.rows.filter((one) => one.held && one.id !== row.id).map((one) => one.mark));
  let number = rule.next;
  while (held.has(markBy(rule, number))) number += rule.step;
  const mark = markBy(rule, number);
  if (mark.length > 12)
    return refused("The mark", mark, "would have more than 12 letters; take a shorter prefix");
  const other = tally.rows.find((one) => one.mark === mark && one.id !== row.id);
  const marks = idsOf(row).map((id) => ({ id, mark, held: true }));
  return ok({
    edit: { kind: "keepMarks", marks, drop: other ? idsOf(other) : [] },
    mark,
    next: number + rule.step,
  });
}

function ordered(job: Job, tally: Tally, order: NumberRule["order"]): readonly TallyRow[] {
  const made = tally.rows.filter((row) => row.kind !== "bought");
  if (order === "listed") return made;
  const place = new Map(Object.keys(job.assemblies).map((id, i) => [id, i + 1]));
  const homeOfRow = (row: TallyRow) => place.get(homeOf(job, row.shown.id) ?? "") ?? 0;
  return [...made].sort(byKey(homeOfRow, byNumber));
}
