/** Why a field of the stockroom refuses what was typed, as data, and the one place where that is put into words. */
import { type Err, err, type Problem, sentence } from "@/core/kernel";
import { type ShapeFault, shapeFaultWords } from "@/core/stockroom";

export type EntryFault =
  | { readonly kind: "problem"; readonly problem: Problem }
  | { readonly kind: "noName" }
  | { readonly kind: "tooLong"; readonly most: number }
  | { readonly kind: "notPositive" }
  | { readonly kind: "negative" }
  | { readonly kind: "notANumber"; readonly text: string }
  | { readonly kind: "notWhole" }
  | { readonly kind: "notAnAngle"; readonly most: number }
  /** Its kind and sizes cannot be read, in the field for them or in the name of a new one. */
  | { readonly kind: "unknownSection"; readonly in: "field" | "name" }
  | { readonly kind: "impossibleSection"; readonly why: ShapeFault }
  /** A price by mass of something whose mass nobody knows. */
  | { readonly kind: "massNeeded"; readonly of: "section" | "board" }
  | { readonly kind: "sizeGone" };

export const entryFault = (fault: EntryFault): Err<EntryFault> => err(fault);

/** The sentence under the field. */
export function entryFaultWords(fault: EntryFault): string {
  switch (fault.kind) {
    case "problem":
      return sentence(fault.problem);
    case "noName":
      return "Enter a name.";
    case "tooLong":
      return `At most ${fault.most} characters.`;
    case "notPositive":
      return "It must be greater than 0.";
    case "negative":
      return "It must not be negative.";
    case "notANumber":
      return `"${fault.text}" is not a number of zero or more.`;
    case "notWhole":
      return "A whole number, or nothing for as many as wanted.";
    case "notAnAngle":
      return `An angle from 0 to ${fault.most} degrees.`;
    case "unknownSection":
      return fault.in === "field"
        ? "Name the kind and the sizes: angle 40 x 40 x 4, angle 2 x 2 x 1/8 in, flat 40 x 5."
        : "Its kind and sizes must be in the name: square tube 60 x 60 x 4, angle 2 x 2 x 1/8 in, flat 40 x 5, timber 88 x 18.";
    case "impossibleSection":
      return `That section cannot be: ${shapeFaultWords(fault.why)}.`;
    case "massNeeded":
      return `Enter its kg/m³${fault.of === "section" ? " or its kg/m" : ""} first; a price by mass needs it.`;
    case "sizeGone":
      return "This size was deleted.";
    default:
      return fault satisfies never;
  }
}
