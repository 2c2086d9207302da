/** The words of a command line: one file and options with a value each. */
import { ok, type Result } from "@/core/kernel";
import { type CommandFault, fault } from "./command-fault";

export type Words = { readonly file: string; readonly options: ReadonlyMap<string, string> };

/** Reads `FILE --name value …`; the fault is told in one line (`commandWords`). */
export function readWords(
  words: readonly string[],
  allowed: Readonly<Record<string, readonly string[] | "any">>,
): Result<Words, CommandFault> {
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
    if (!choices) return fault({ kind: "unknownOption", option: name });
    const value = joined ?? words[++i];
    if (value === undefined) return fault({ kind: "noValue", option: name });
    if (choices !== "any" && !choices.includes(value))
      return fault({ kind: "notAmong", option: name, value, choices });
    options.set(name, value);
  }
  const [file, extra] = files;
  if (file === undefined) return fault({ kind: "noFile" });
  if (extra !== undefined) return fault({ kind: "tooManyFiles", extra });
  return ok({ file, options });
}

/** A positive number option, or its default. */
export function numberOption(
  options: ReadonlyMap<string, string>,
  name: string,
  otherwise: number,
): Result<number, CommandFault> {
  const text = options.get(name);
  if (text === undefined) return ok(otherwise);
  const value = Number(text);
  return Number.isFinite(value) && value >= 0
    ? ok(value)
    : fault({ kind: "notANumber", option: name, value: text });
}
