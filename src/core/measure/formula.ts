/**
 * Formulas over key sizes. The `jsep` package reads the text; its tree is turned into a small tree of
 * our own that knows only arithmetic, comparison, choice of two, and/or/not, a fixed set of functions,
 * and names. Nothing else that the package could read gets through, and nothing is ever evaluated as
 * program text.
 *
 * Values are plain numbers in the job's unit (so `width - 20` means 20 of the job's unit), yes/no, or
 * a choice. Angles in trigonometry are degrees.
 */
import jsep from "jsep";
import { err, ok, type Problem, type Result, unreachable } from "../kernel";
import { scanFormula } from "./formula-text";
import type { LengthUnit } from "./unit";

export type FormulaValue = number | boolean | string;
export type FormulaScope = ReadonlyMap<string, FormulaValue>;

const GREATEST_FORMULA_LENGTH = 500;

type BinaryOperator = "+" | "-" | "*" | "/" | "^" | "<" | ">" | "<=" | ">=" | "==" | "!=" | "and" | "or";
type Node =
  | { readonly kind: "constant"; readonly value: FormulaValue }
  | { readonly kind: "name"; readonly name: string }
  | { readonly kind: "negate"; readonly of: Node }
  | { readonly kind: "not"; readonly of: Node }
  | { readonly kind: "binary"; readonly operator: BinaryOperator; readonly left: Node; readonly right: Node }
  | { readonly kind: "choose"; readonly when: Node; readonly yes: Node; readonly otherwise: Node }
  | { readonly kind: "call"; readonly name: FunctionName; readonly parts: readonly Node[] }
  /** A number that was typed as an angle, `35 deg` or `35°`; its value is in degrees. */
  | { readonly kind: "degrees"; readonly of: Node };

/** A formula that was read: its text, its tree and the names that it uses, in order of appearance. */
export type Formula = { readonly text: string; readonly root: Node; readonly names: readonly string[] };

const DEGREES = Math.PI / 180;
const FUNCTIONS = {
  min: { least: 1, most: 20, of: (...v: number[]) => Math.min(...v) },
  max: { least: 1, most: 20, of: (...v: number[]) => Math.max(...v) },
  abs: { least: 1, most: 1, of: (a: number) => Math.abs(a) },
  round: {
    least: 1,
    most: 2,
    of: (a: number, step = 1) => Math.sign(a) * Math.round(Math.abs(a) / step) * step,
  },
  floor: { least: 1, most: 1, of: (a: number) => Math.floor(a) },
  ceil: { least: 1, most: 1, of: (a: number) => Math.ceil(a) },
  sqrt: { least: 1, most: 1, of: (a: number) => Math.sqrt(a) },
  sin: { least: 1, most: 1, of: (a: number) => Math.sin(a * DEGREES) },
  cos: { least: 1, most: 1, of: (a: number) => Math.cos(a * DEGREES) },
  tan: { least: 1, most: 1, of: (a: number) => Math.tan(a * DEGREES) },
  asin: { least: 1, most: 1, of: (a: number) => Math.asin(a) / DEGREES },
  acos: { least: 1, most: 1, of: (a: number) => Math.acos(a) / DEGREES },
  atan: { least: 1, most: 1, of: (a: number) => Math.atan(a) / DEGREES },
} as const;
type FunctionName = keyof typeof FUNCTIONS;
const TRIGONOMETRIC: ReadonlySet<FunctionName> = new Set(["sin", "cos", "tan"]);

const isFunctionName = (name: string): name is FunctionName => Object.hasOwn(FUNCTIONS, name);

const BINARY: Readonly<Record<string, BinaryOperator>> = {
  "+": "+",
  "-": "-",
  "*": "*",
  "/": "/",
  "^": "^",
  "<": "<",
  ">": ">",
  "<=": "<=",
  ">=": ">=",
  "==": "==",
  "!=": "!=",
  and: "and",
  or: "or",
  "&&": "and",
  "||": "or",
};

/** Names that can never be key sizes, since formulas give them a meaning. */
export const RESERVED_NAMES: ReadonlySet<string> = new Set([
  ...Object.keys(FUNCTIONS),
  ...[
    "if",
    "count",
    "and",
    "or",
    "not",
    "pi",
    "true",
    "false",
    "yes",
    "no",
    "mm",
    "cm",
    "m",
    "in",
    "inch",
    "inches",
    "ft",
    "foot",
    "feet",
    "deg",
    "this",
    "null",
  ],
]);

// `^` binds tighter than the product and to the right; `and`, `or`, `not` are words.
jsep.addBinaryOp("^", 15, true);
jsep.addBinaryOp("or", 1);
jsep.addBinaryOp("and", 2);
jsep.addUnaryOp("not");

class Refused extends Error {
  readonly problem: Problem;
  constructor(problem: Problem) {
    super(problem.kind);
    this.problem = problem;
  }
}

/** Reads a formula. The job's unit is needed for numbers that carry a unit of their own. */
export function parseFormula(text: string, unit: LengthUnit): Result<Formula, Problem> {
  const source = text.trim();
  if (source === "") return err({ kind: "emptyText", what: "The formula" });
  if (source.length > GREATEST_FORMULA_LENGTH) {
    return err({ kind: "formulaTooLong", length: source.length, greatest: GREATEST_FORMULA_LENGTH });
  }
  const names: string[] = [];
  const scanned = scanFormula(source, unit);
  if ("refused" in scanned) return err({ kind: "unreadableFormula", text: source, ...scanned.refused });
  try {
    const root = translate(jsep(scanned.text), source, names);
    return ok({ text: source, root, names });
  } catch (thrown) {
    if (thrown instanceof Refused) return err(thrown.problem);
    const message = thrown instanceof Error ? thrown.message : "";
    return err({ kind: "unreadableFormula", text: source, ...plainReason(message, scanned.places) });
  }
}

/** What the reader of the package says, with its place in the text as it was typed (1 for the first sign). */
function plainReason(
  message: string,
  places: readonly number[],
): { readonly why: string; readonly place: number | null } {
  const found = /at character (\d+)/.exec(message);
  const what = message.replace(/ at character \d+/, "").replace(/["`]/g, "'");
  const why = `${what.charAt(0).toLowerCase()}${what.slice(1)}` || "it is not complete";
  if (!found) return { why, place: null };
  const at = Number(found[1]);
  return { why, place: (places[at] ?? (places.at(-1) ?? -1) + 1) + 1 };
}

/** Whether a formula gives an angle where it is no part of a trigonometric function: `35 deg`, `90° - tilt`. */
export const isAngleFormula = (formula: Formula): boolean => holdsAngle(formula.root);

function holdsAngle(node: Node): boolean {
  switch (node.kind) {
    case "constant":
    case "name":
      return false;
    case "degrees":
      return true;
    case "negate":
    case "not":
      return holdsAngle(node.of);
    case "choose":
      return holdsAngle(node.yes) || holdsAngle(node.otherwise);
    case "call":
      return !TRIGONOMETRIC.has(node.name) && node.parts.some(holdsAngle);
    case "binary":
      return holdsAngle(node.left) || holdsAngle(node.right);
    default:
      return unreachable(node);
  }
}

function translate(node: jsep.Expression, text: string, names: string[]): Node {
  const refuse = (what: string): never => {
    throw new Refused({ kind: "notAllowedInFormula", what, text });
  };
  const of = (child: unknown) => translate(child as jsep.Expression, text, names);
  switch (node.type) {
    case "Literal":
      return constantOf(node as jsep.Literal, refuse);
    case "Identifier":
      return nameOf((node as jsep.Identifier).name, names);
    case "UnaryExpression": {
      const operator = (node as jsep.UnaryExpression).operator;
      const inner = of((node as jsep.UnaryExpression).argument);
      if (operator === "-") return { kind: "negate", of: inner };
      if (operator === "+") return inner;
      if (operator === "!" || operator === "not") return { kind: "not", of: inner };
      return refuse(`the operator ${operator}`);
    }
    case "BinaryExpression": {
      const operator = BINARY[(node as jsep.BinaryExpression).operator];
      if (!operator) return refuse(`the operator ${(node as jsep.BinaryExpression).operator}`);
      const left = of((node as jsep.BinaryExpression).left);
      // The reader drops brackets, so -a^2 and (-a)^2 would look alike: neither is guessed.
      if (operator === "^" && left.kind === "negate")
        return refuse("a minus before ^ (write 0 - a^b, or a*a)");
      return { kind: "binary", operator, left, right: of((node as jsep.BinaryExpression).right) };
    }
    case "ConditionalExpression": {
      const choice = node as jsep.ConditionalExpression;
      return {
        kind: "choose",
        when: of(choice.test),
        yes: of(choice.consequent),
        otherwise: of(choice.alternate),
      };
    }
    case "CallExpression":
      return callOf(node as jsep.CallExpression, { text, names, of, refuse });
    case "Compound":
      throw new Refused({
        kind: "unreadableFormula",
        text,
        why: "an operator (+ - * /) is missing between two parts",
        place: null,
      });
    default:
      return refuse("square brackets, dots or lists");
  }
}

function constantOf(node: jsep.Literal, refuse: (what: string) => never): Node {
  const value = node.value;
  if (typeof value === "number" || typeof value === "boolean" || typeof value === "string") {
    return { kind: "constant", value };
  }
  return refuse("an empty value");
}

function nameOf(name: string, names: string[]): Node {
  if (name === "pi") return { kind: "constant", value: Math.PI };
  if (name === "yes") return { kind: "constant", value: true };
  if (name === "no") return { kind: "constant", value: false };
  if (!names.includes(name)) names.push(name);
  return { kind: "name", name };
}

type CallReading = {
  readonly text: string;
  readonly names: string[];
  readonly of: (child: unknown) => Node;
  readonly refuse: (what: string) => never;
};

/** The name under which a scope holds the count of things with a name: `count("Slat")`. */
export const countName = (name: string) => `count("${name}")`;

/** The names of the things that a formula counts. */
export const countedNames = (text: string): readonly string[] =>
  [...text.matchAll(/\bcount\(\s*["']([^"']+)["']\s*\)/g)].flatMap(([, name]) => name ?? []);

function callOf(node: jsep.CallExpression, { text, names, of, refuse }: CallReading): Node {
  if (node.callee.type !== "Identifier") return refuse("a call of that kind");
  const name = (node.callee as jsep.Identifier).name;
  const parts = node.arguments.map(of);
  if (name === "if") {
    const [when, yes, otherwise] = parts;
    if (!when || !yes || !otherwise || parts.length > 3) {
      throw new Refused({
        kind: "wrongArguments",
        what: "if needs three parts: condition, then, otherwise",
        text,
      });
    }
    return { kind: "choose", when, yes, otherwise };
  }
  if (name === "count") {
    const [named] = parts;
    if (named?.kind !== "constant" || typeof named.value !== "string" || parts.length > 1)
      throw new Refused({ kind: "wrongArguments", what: "count takes one name in quotation marks", text });
    return nameOf(countName(named.value), names);
  }
  if (name === "deg") {
    const [degrees] = parts;
    if (!degrees || parts.length > 1)
      throw new Refused({ kind: "wrongArguments", what: "deg takes 1 value", text });
    return { kind: "degrees", of: degrees };
  }
  if (!isFunctionName(name)) return refuse(`the function ${name}`);
  const { least, most } = FUNCTIONS[name];
  if (parts.length < least || parts.length > most) {
    const needs = least === most ? `${least}` : `${least} to ${most}`;
    throw new Refused({ kind: "wrongArguments", what: `${name} takes ${needs} values`, text });
  }
  return { kind: "call", name, parts };
}

/** Computes a formula with the values of its names. */
export function evaluateFormula(formula: Formula, scope: FormulaScope): Result<FormulaValue, Problem> {
  try {
    const value = computed(formula.root, formula, scope);
    if (typeof value === "number" && !Number.isFinite(value)) {
      return err({ kind: "notANumber", text: formula.text });
    }
    return ok(value === 0 ? 0 : value);
  } catch (thrown) {
    if (thrown instanceof Refused) return err(thrown.problem);
    throw thrown;
  }
}

function computed(node: Node, formula: Formula, scope: FormulaScope): FormulaValue {
  switch (node.kind) {
    case "constant":
      return node.value;
    case "name": {
      const value = scope.get(node.name);
      if (value === undefined) {
        throw new Refused({ kind: "unknownName", name: node.name, text: formula.text });
      }
      return value;
    }
    case "negate":
      return -numberOf(node.of, formula, scope);
    case "degrees":
      return numberOf(node.of, formula, scope);
    case "not":
      return !truthOf(node.of, formula, scope);
    case "choose":
      return truthOf(node.when, formula, scope)
        ? computed(node.yes, formula, scope)
        : computed(node.otherwise, formula, scope);
    case "call": {
      const parts = node.parts.map((part) => numberOf(part, formula, scope));
      return (FUNCTIONS[node.name].of as (...v: number[]) => number)(...parts);
    }
    case "binary":
      return binaryOf(node, formula, scope);
    default:
      return unreachable(node);
  }
}

function binaryOf(
  node: Extract<Node, { kind: "binary" }>,
  formula: Formula,
  scope: FormulaScope,
): FormulaValue {
  const { operator, left, right } = node;
  if (operator === "and") return truthOf(left, formula, scope) && truthOf(right, formula, scope);
  if (operator === "or") return truthOf(left, formula, scope) || truthOf(right, formula, scope);
  if (operator === "==") return computed(left, formula, scope) === computed(right, formula, scope);
  if (operator === "!=") return computed(left, formula, scope) !== computed(right, formula, scope);
  const a = numberOf(left, formula, scope);
  const b = numberOf(right, formula, scope);
  switch (operator) {
    case "+":
      return a + b;
    case "-":
      return a - b;
    case "*":
      return a * b;
    case "/":
      if (b === 0) throw new Refused({ kind: "divisionByZero", text: formula.text });
      return a / b;
    case "^":
      return a ** b;
    case "<":
      return a < b;
    case ">":
      return a > b;
    case "<=":
      return a <= b;
    case ">=":
      return a >= b;
    default:
      return unreachable(operator);
  }
}

function numberOf(node: Node, formula: Formula, scope: FormulaScope): number {
  const value = computed(node, formula, scope);
  if (typeof value === "number") return value;
  throw new Refused({
    kind: "wrongArguments",
    what: "a number is needed where there is a yes/no or a choice",
    text: formula.text,
  });
}

function truthOf(node: Node, formula: Formula, scope: FormulaScope): boolean {
  const value = computed(node, formula, scope);
  if (typeof value === "boolean") return value;
  throw new Refused({
    kind: "wrongArguments",
    what: "a comparison is needed as condition",
    text: formula.text,
  });
}
