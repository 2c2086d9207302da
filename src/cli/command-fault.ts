/** Why a command cannot do what it was asked for, as data, and the one place where that is put into words. */
import { type Err, err, type Problem, sentence } from "@/core/kernel";

export type CommandFault =
  /** What the core says of what was read. */
  | { readonly kind: "problem"; readonly problem: Problem }
  | { readonly kind: "unknownCommand"; readonly command: string }
  | { readonly kind: "unknownOption"; readonly option: string }
  | { readonly kind: "noValue"; readonly option: string }
  | {
      readonly kind: "notAmong";
      readonly option: string;
      readonly value: string;
      readonly choices: readonly string[];
    }
  | { readonly kind: "notANumber"; readonly option: string; readonly value: string }
  | { readonly kind: "noFile" }
  | { readonly kind: "tooManyFiles"; readonly extra: string }
  | { readonly kind: "cannotBeOpened"; readonly file: string }
  | { readonly kind: "notJson"; readonly file: string }
  /** What a schema, or the laws of a layout, say of the content of a file. */
  | { readonly kind: "badContent"; readonly file: string; readonly why: string }
  | { readonly kind: "noVariant" | "noPiece"; readonly name: string }
  | {
      readonly kind: "noList" | "noPage" | "noAssembly";
      readonly name: string;
      readonly there: readonly string[];
    }
  | { readonly kind: "noPages" }
  | { readonly kind: "onePageOnly"; readonly format: string; readonly there: readonly string[] };

export const fault = (found: CommandFault): Err<CommandFault> => err(found);
/** What the core refused, as a command gives it back. */
export const ofCore = (problem: Problem): Err<CommandFault> => err({ kind: "problem", problem });

/** One line for whoever typed the command. */
export function commandWords(found: CommandFault): string {
  switch (found.kind) {
    case "problem":
      return sentence(found.problem);
    case "unknownCommand":
      return `unknown command "${found.command}". Run: rustic-tally help`;
    case "unknownOption":
      return `unknown option --${found.option}`;
    case "noValue":
      return `--${found.option} needs a value`;
    case "notAmong":
      return `--${found.option} must be one of: ${found.choices.join(", ")} (got "${found.value}")`;
    case "notANumber":
      return `--${found.option} must be a number, not "${found.value}"`;
    case "noFile":
      return "missing FILE";
    case "tooManyFiles":
      return `too many files: "${found.extra}"`;
    case "cannotBeOpened":
      return `${found.file} cannot be opened`;
    case "notJson":
      return `${found.file} is not JSON`;
    case "badContent":
      return `${found.file}: ${found.why}`;
    case "noVariant":
      return `the job has no variant "${found.name}"`;
    case "noPiece":
      return `the job has no piece "${found.name}"; say a mark or a name of its cut list`;
    case "noList":
      return `there is no list "${found.name}"; there are ${found.there.join(", ")}`;
    case "noPage":
      return `there is no page "${found.name}"; there are ${found.there.join(", ")}`;
    case "noAssembly":
      return `the job has no assembly "${found.name}"; it has ${found.there.join(", ")}`;
    case "noPages":
      return "the job has no pages";
    case "onePageOnly":
      return `${found.format} holds one page; say which with --page: ${found.there.join(", ")}`;
    default:
      return found satisfies never;
  }
}
