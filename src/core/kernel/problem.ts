/**
 * What a user can get wrong, as data, and the one place where it is put into words. A sentence says
 * what is wrong, where, and what to do about it.
 */
import { unreachable } from "./invariant";

export type Problem =
  | { readonly kind: "emptyText"; readonly what: string }
  | { readonly kind: "unreadableLength"; readonly text: string }
  | {
      readonly kind: "ambiguousComma";
      readonly text: string;
      readonly decimal: string;
      readonly whole: string;
    }
  | { readonly kind: "absurdLength"; readonly text: string; readonly greatestM: number }
  | {
      readonly kind: "unreadableFormula";
      readonly text: string;
      readonly why: string;
      readonly place: number | null;
    }
  | { readonly kind: "formulaTooLong"; readonly length: number; readonly greatest: number }
  | { readonly kind: "unknownName"; readonly name: string; readonly text: string }
  | { readonly kind: "notAllowedInFormula"; readonly what: string; readonly text: string }
  | { readonly kind: "wrongArguments"; readonly what: string; readonly text: string }
  | { readonly kind: "divisionByZero"; readonly text: string }
  | { readonly kind: "notANumber"; readonly text: string }
  | { readonly kind: "formulaLoop"; readonly names: readonly string[] }
  | { readonly kind: "dependsOnBroken"; readonly name: string }
  | {
      readonly kind: "outOfRange";
      readonly name: string;
      readonly value: string;
      readonly least: string | null;
      readonly greatest: string | null;
    }
  | { readonly kind: "emptyRange"; readonly name: string; readonly least: string; readonly greatest: string }
  | { readonly kind: "duplicateName"; readonly name: string }
  | { readonly kind: "badName"; readonly name: string }
  | { readonly kind: "locked"; readonly name: string }
  | { readonly kind: "missingRecord"; readonly what: string; readonly id: string }
  | { readonly kind: "changedMeanwhile"; readonly what: string }
  | { readonly kind: "laterRevision" }
  | { readonly kind: "nothingToUndo" }
  | { readonly kind: "nothingToRedo" }
  | { readonly kind: "badValue"; readonly what: string; readonly value: string; readonly must: string }
  | { readonly kind: "malformed"; readonly what: string; readonly why: string };

function rangeWords(least: string | null, greatest: string | null): string {
  if (least !== null && greatest !== null) return `must be from ${least} to ${greatest}`;
  if (least !== null) return `must be at least ${least}`;
  return `must be at most ${greatest}`;
}

function shortened(text: string): string {
  return text.length > 60 ? `${text.slice(0, 57)}...` : text;
}

/** The sentence for a problem: what, where, what to do. */
export function sentence(problem: Problem): string {
  switch (problem.kind) {
    case "emptyText":
      return `${problem.what} is empty; type a value.`;
    case "unreadableLength":
      return `"${shortened(problem.text)}" is not a length. Type it like 590.5, 23 1/4 in, 2'-3 1/2" or width/2 - 18.`;
    case "ambiguousComma":
      return `"${problem.text}" can mean ${problem.decimal} or ${problem.whole}; type it without the comma or with a point.`;
    case "absurdLength":
      return `"${shortened(problem.text)}" is longer than ${problem.greatestM} m; check the unit.`;
    case "unreadableFormula":
      return `"${shortened(problem.text)}" cannot be read as a formula: ${problem.why}${problem.place === null ? "" : ` at character ${problem.place}`}. Type it like width/2 - 18, 23 1/4 in + 2, 2' 6" or cos(35°).`;
    case "formulaTooLong":
      return `The formula has ${problem.length} characters; at most ${problem.greatest} are read. Split it into key sizes.`;
    case "unknownName":
      return `"${shortened(problem.text)}" uses ${problem.name}, which is no key size of this job; check the spelling or add it.`;
    case "notAllowedInFormula":
      return `"${shortened(problem.text)}" uses ${problem.what}, which formulas do not know.`;
    case "wrongArguments":
      return `"${shortened(problem.text)}": ${problem.what}.`;
    case "divisionByZero":
      return `"${shortened(problem.text)}" divides by zero with the present key sizes.`;
    case "notANumber":
      return `"${shortened(problem.text)}" has no numeric value with the present key sizes.`;
    case "formulaLoop":
      return `The formulas of ${problem.names.join(", ")} form a loop. Replace one by a value.`;
    case "dependsOnBroken":
      return `${problem.name} cannot be computed. Fix ${problem.name} first.`;
    case "outOfRange":
      return `${problem.name} would be ${problem.value}, but it ${rangeWords(problem.least, problem.greatest)}.`;
    case "emptyRange":
      return `${problem.name}: the minimum ${problem.least} is above the maximum ${problem.greatest}. Change one.`;
    case "duplicateName":
      return `There is already a key size named ${problem.name}; choose another name.`;
    case "badName":
      return `"${shortened(problem.name)}" cannot name a key size; use a letter first, then letters, digits or _.`;
    case "locked":
      return `${problem.name} is locked; unlock it to change it.`;
    case "missingRecord":
      return `The ${problem.what} ${problem.id} is no longer in this job; someone may have removed it.`;
    case "changedMeanwhile":
      return `${problem.what} was changed somewhere else in the meantime; look at the new value and try again.`;
    case "laterRevision":
      return "This page knows a later state of the job than the server has; perhaps a backup was restored. Load the page again.";
    case "nothingToUndo":
      return "There is nothing to undo in this job.";
    case "nothingToRedo":
      return "There is nothing to redo in this job.";
    case "badValue":
      return problem.value === ""
        ? `${problem.what} ${problem.must}.`
        : `${problem.what} "${shortened(problem.value)}" ${problem.must}.`;
    case "malformed":
      return `${problem.what} cannot be read: ${problem.why}.`;
    default:
      return unreachable(problem);
  }
}
