/**
 * The key sizes of a job with a variant: ordered by what they need, each computed once, each with its
 * problem at its own place. A size that cannot be computed has no value; nothing falls back silently.
 */
import { err, ok, type Problem, type Result } from "../kernel";
import {
  evaluateFormula,
  type FormulaValue,
  type LengthStyle,
  type LengthUnit,
  lengthValue,
  MM_PER_UNIT,
  parseFormula,
  parseTypedLength,
  parseTypedNumber,
  type TypedValue,
  withinGreatest,
} from "../measure";
import { formulaHolders } from "./formulas";
import type { Job } from "./job";
import { jobStyle } from "./job-info";
import type { KeySize, Variant, VariantId } from "./key-size";

/** `scope`: values in the job's unit, as formulas use them. */
export type Sizes = {
  readonly unit: LengthUnit;
  /** How lengths are written in what is said of them. */
  readonly style: LengthStyle;
  readonly scope: ReadonlyMap<string, FormulaValue>;
  readonly problems: ReadonlyMap<string, Problem>;
};

const textOf = (size: KeySize, variant: Variant | undefined) => variant?.formulas[size.name] ?? size.formula;

/** Computes all key sizes. `problems` is keyed by the name of the key size. */
export function resolveSizes(job: Job, variantId: VariantId | null): Sizes {
  const unit = job.info.job.unit;
  const variant = variantId === null ? undefined : job.variants[variantId];
  const sizes = new Map(Object.values(job.keySizes).map((size) => [size.name, size]));
  const scope = new Map<string, FormulaValue>();
  const problems = new Map<string, Problem>();
  const state = new Map<string, "open" | "done">();

  const visit = (name: string, path: readonly string[]): void => {
    const size = sizes.get(name);
    if (!size || state.get(name) === "done") return;
    if (state.get(name) === "open") {
      const loop = path.slice(path.indexOf(name));
      for (const member of loop) problems.set(member, { kind: "formulaLoop", names: loop });
      return;
    }
    state.set(name, "open");
    const need = (needed: string) => visit(needed, [...path, name]);
    const value = computeSize(size, textOf(size, variant), { unit, scope, need });
    state.set(name, "done");
    if (problems.has(name)) return;
    if (value.ok) scope.set(name, value.value);
    else problems.set(name, brokenNeed(value.problem, sizes));
  };
  for (const name of sizes.keys()) visit(name, []);
  return { unit, style: jobStyle(job), scope, problems };
}

/** A name that is a key size but has no value: the cause lies there, not here. */
function brokenNeed(problem: Problem, broken: ReadonlyMap<string, unknown>): Problem {
  if (problem.kind === "unknownName" && broken.has(problem.name))
    return { kind: "dependsOnBroken", name: problem.name };
  return problem;
}

function readValue(size: KeySize, text: string, unit: LengthUnit): Result<TypedValue, Problem> {
  if (size.measure === "length") return parseTypedLength(text, unit);
  const formula = parseTypedNumber(text, unit);
  return formula.ok ? ok({ kind: "formula", formula: formula.value }) : formula;
}

type Compute = {
  readonly unit: LengthUnit;
  readonly scope: ReadonlyMap<string, FormulaValue>;
  readonly need: (name: string) => void;
};

function computeSize(size: KeySize, text: string, how: Compute): Result<FormulaValue, Problem> {
  if (size.measure === "yesNo") return yesOrNo(text, how);
  if (size.measure === "choice") return chosen(size, text, how);
  const value = computeNumber(size, text, how);
  if (!value.ok) return value;
  const least = size.least === null ? null : computeNumber(size, size.least, how);
  if (least && !least.ok) return least;
  const greatest = size.greatest === null ? null : computeNumber(size, size.greatest, how);
  if (greatest && !greatest.ok) return greatest;
  return withinRange(size, value.value, least?.value ?? null, greatest?.value ?? null);
}

function computeNumber(size: KeySize, text: string, { unit, scope, need }: Compute): Result<number, Problem> {
  const read = readValue(size, text, unit);
  if (!read.ok) return read;
  if (read.value.kind === "length") return ok(read.value.mm / MM_PER_UNIT[unit]);
  for (const name of read.value.formula.names) need(name);
  const value = evaluateFormula(read.value.formula, scope);
  if (!value.ok) return value;
  if (typeof value.value !== "number")
    return err({ kind: "wrongArguments", what: "a number is needed here", text });
  if (size.measure !== "length") return ok(value.value);
  const mm = withinGreatest(value.value * MM_PER_UNIT[unit], text);
  return mm.ok ? ok(value.value) : mm;
}

function computeFormula(text: string, { unit, scope, need }: Compute): Result<FormulaValue, Problem> {
  const formula = parseFormula(text, unit);
  if (!formula.ok) return formula;
  for (const name of formula.value.names) need(name);
  return evaluateFormula(formula.value, scope);
}

function yesOrNo(text: string, how: Compute): Result<boolean, Problem> {
  const value = computeFormula(text, how);
  if (!value.ok) return value;
  if (typeof value.value === "boolean") return ok(value.value);
  return err({ kind: "wrongArguments", what: "yes or no is needed here", text });
}

/** One of the choices by its name, or a formula that gives one. */
function chosen(size: KeySize, text: string, how: Compute): Result<string, Problem> {
  if (size.choices.includes(text)) return ok(text);
  const value = computeFormula(text, how);
  if (value.ok && typeof value.value === "string" && size.choices.includes(value.value))
    return ok(value.value);
  return err({
    kind: "badValue",
    what: size.name,
    value: text,
    must: `must be one of ${size.choices.join(", ") || "its choices, of which there are none yet"}`,
  });
}

/** Whether a record is part of the design with the present sizes. */
export function isPresent(sizes: Sizes, when: string | null): Result<boolean, Problem> {
  if (when === null) return ok(true);
  const value = yesOrNo(when, { unit: sizes.unit, scope: sizes.scope, need: () => {} });
  return value.ok ? value : err(brokenNeed(value.problem, sizes.problems));
}

// Range ends are compared with a hair of slack: 1400 computed as 2 × 700.0000000001 is still 1400.
const RANGE_SLACK = 1e-9;

function withinRange(
  size: KeySize,
  value: number,
  least: number | null,
  greatest: number | null,
): Result<number, Problem> {
  const name = size.name;
  if (least !== null && greatest !== null && least > greatest) {
    return err({ kind: "emptyRange", name, least: String(least), greatest: String(greatest) });
  }
  const slack = RANGE_SLACK * Math.max(1, Math.abs(value));
  if ((least !== null && value < least - slack) || (greatest !== null && value > greatest + slack)) {
    return err({
      kind: "outOfRange",
      name,
      value: String(value),
      least: least === null ? null : String(least),
      greatest: greatest === null ? null : String(greatest),
    });
  }
  return ok(value);
}

/** The millimetres of a length or coordinate field with the present sizes. */
export function lengthWith(sizes: Sizes, text: string): Result<number, Problem> {
  const read = parseTypedLength(text, sizes.unit);
  if (!read.ok) return read;
  const value = lengthValue(read.value, sizes.scope, sizes.unit);
  return value.ok ? value : err(brokenNeed(value.problem, sizes.problems));
}

/** The plain number of a count, angle or direction field with the present sizes. */
export function numberWith(sizes: Sizes, text: string): Result<number, Problem> {
  const plain = Number(text);
  if (text !== "" && Number.isFinite(plain)) return ok(plain);
  const formula = parseTypedNumber(text, sizes.unit);
  if (!formula.ok) return formula;
  const value = evaluateFormula(formula.value, sizes.scope);
  if (!value.ok) return err(brokenNeed(value.problem, sizes.problems));
  if (typeof value.value !== "number")
    return err({ kind: "wrongArguments", what: "a number is needed here", text });
  return ok(value.value);
}

/** What uses a key size, in the words of the ledger. */
export function usesOf(job: Job, name: string): readonly string[] {
  const uses = (text: string): boolean => {
    const formula = parseFormula(text, job.info.job.unit);
    return formula.ok && formula.value.names.includes(name);
  };
  return formulaHolders(job)
    .filter(({ words, texts }) => words !== `key size ${name}` && texts.some(uses))
    .map(({ words }) => words);
}
