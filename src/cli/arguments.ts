/** The words of a command line: one file and options with a value each. */
import { err, ok, type Result } from "@/core/kernel";

export type Words = { readonly file: string; readonly options: ReadonlyMap<string, string> };

/** Reads `FILE --name value …`; the error is one line for the user. */
export function readWords(
  words: readonly string[],
  allowed: Readonly<Record<string, readonly string[] | "any">>,
): Result<Words, string> {
  const options = new Map<string, string>();
  const files: string[] = [];
  for (let i = 0; i < words.length; i++) {
    const word = words[i] ?? "";
    if (!word.startsWith("--")) {
      files.push(word);
      continue;
    }
    const [name = "", joined] = word.slice(2).split("=", 2);
    const choices = allowed[name];
    if (!choices) return err(`unknown option --${name}`);
    const value = joined ?? words[++i];
    if (value === undefined) return err(`--${name} needs a value`);
    if (choices !== "any" && !choices.includes(value))
      return err(`--${name} must be one of: ${choices.join(", ")} (got "${value}")`);
    options.set(name, value);
  }
  const [file, extra] = files;
  if (file === undefined) return err("missing FILE");
  if (extra !== undefined) return err(`too many files: "${extra}"`);
  return ok({ file, options });
}

/** A positive number option, or its default. */
export function numberOption(
  options: ReadonlyMap<string, string>,
  name: string,
  otherwise: number,
): Result<number, string> {
  const text = options.get(name);
  if (text === undefined) return ok(otherwise);
  const value = Number(text);
  return Number.isFinite(value) && value >= 0 ? ok(value) : err(`--${name} must be a number, not "${text}"`);
}
