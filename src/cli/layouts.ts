import * as v from "valibot";
import { issueWords } from "@/core/job";
import { ok, type Result } from "@/core/kernel";
import { LAYOUT_KINDS } from "@/core/layout";
import { BarProblemSchema, layOutBars, lockedBarFault } from "@/core/layout/bars";
import { layOutNesting, lockedNestingFault, NestingProblemSchema } from "@/core/layout/nesting";
import { layOutSheets, lockedFault, SheetProblemSchema } from "@/core/layout/sheets";
import { reasonWords, type UnplacedReason } from "@/core/layout/stock";
import { type LengthStyle, PLAIN_MM } from "@/core/measure";
import { loadLinearSolver } from "@/engines/linear-solver";
import { numberOption, readWords } from "./arguments";
import { type CommandFault, fault } from "./command-fault";
import { json, type Output, readJson } from "./loading";

/** A problem file with how long and from which seed it is to be searched. */
function problemOf<S extends v.GenericSchema>(
  words: readonly string[],
  schema: S,
  usualSeconds: number,
): Result<{ file: string; problem: v.InferOutput<S>; budgetMs: number; seed: number }, CommandFault> {
  const read = readWords(words, { seconds: "any", seed: "any" });
  if (!read.ok) return read;
  const { file, options } = read.value;
  const seconds = numberOption(options, "seconds", usualSeconds);
  if (!seconds.ok) return seconds;
  const seed = numberOption(options, "seed", 1);
  if (!seed.ok) return seed;
  const data = readJson(file);
  if (!data.ok) return data;
  const problem = v.safeParse(schema, data.value);
  if (!problem.success) return fault({ kind: "badContent", file, why: issueWords(problem.issues) });
  return ok({ file, problem: problem.output, budgetMs: seconds.value * 1000, seed: seed.value });
}

const now = () => performance.now();

const notPossible = (file: string, why: string) =>
  fault({ kind: "badContent", file, why: `its locked pieces are not possible: ${why}` });

/** A layout as it leaves; pieces without a place, and what is odd about the problem, are told. */
function laidOut(
  layout: { readonly unplaced: readonly { readonly why: UnplacedReason }[] },
  { style = PLAIN_MM }: { readonly style?: LengthStyle },
  notes: readonly string[],
): Result<Output, CommandFault> {
  const code = layout.unplaced.length > 0 ? 1 : 0;
  const unplaced = layout.unplaced.map((one) => ({
    ...one,
    reason: one.why.kind,
    why: reasonWords(one.why, style),
  }));
  return ok({
    code,
    stdout: json({ ...layout, unplaced }),
    ...(notes.length > 0 ? { stderr: notes.join("\n") } : {}),
  });
}

export async function barsCommand(words: readonly string[]): Promise<Result<Output, CommandFault>> {
  const read = problemOf(words, BarProblemSchema, 20);
  if (!read.ok) return read;
  const { file, problem, budgetMs } = read.value;
  const locked = lockedBarFault(problem);
  if (locked !== null) return notPossible(file, locked);
  const solver = await loadLinearSolver();
  return laidOut(layOutBars(problem, { solver, now, budgetMs }), problem, LAYOUT_KINDS.bars.notes(problem));
}

export function sheetsCommand(words: readonly string[]): Result<Output, CommandFault> {
  const read = problemOf(words, SheetProblemSchema, 5);
  if (!read.ok) return read;
  const { file, problem, budgetMs, seed } = read.value;
  const locked = lockedFault(problem);
  if (locked !== null) return notPossible(file, locked);
  return laidOut(layOutSheets(problem, { seed, now, budgetMs }), problem, LAYOUT_KINDS.sheets.notes(problem));
}

export function nestingCommand(words: readonly string[]): Result<Output, CommandFault> {
  const read = problemOf(words, NestingProblemSchema, 5);
  if (!read.ok) return read;
  const { file, problem, budgetMs, seed } = read.value;
  const locked = lockedNestingFault(problem);
  if (locked !== null) return notPossible(file, locked);
  return laidOut(
    layOutNesting(problem, { seed, now, budgetMs }),
    problem,
    LAYOUT_KINDS.shapes.notes(problem),
  );
}
