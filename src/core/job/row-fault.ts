/** Why a row of a cutting list cannot be read: a code with what stands there; its words are made here alone. */
import { counted, type Problem, sentence } from "../kernel";
import { type LengthUnit, PLAIN_MM, sayDifference } from "../measure";

type SizeColumn = "length" | "width" | "thickness";

export type RowFault =
  | { readonly kind: "formula"; readonly text: string }
  | { readonly kind: "fields"; readonly fields: number; readonly headings: number }
  | { readonly kind: "missing"; readonly what: "name" | "quantity" | "length" | "width" }
  | { readonly kind: "longMark"; readonly text: string }
  | { readonly kind: "unknownStock" | "unknownMaterial"; readonly text: string }
  | {
      readonly kind: "quantity";
      readonly text: string;
      readonly must: "number" | "positive" | "whole" | "below";
    }
  | { readonly kind: "size"; readonly column: SizeColumn; readonly problem: Problem }
  | { readonly kind: "notPositive"; readonly column: SizeColumn; readonly text: string }
  | {
      readonly kind: "otherThickness";
      /** mm. */
      readonly thickness: number;
      readonly board: string;
      readonly boardThickness: number;
      readonly unit: LengthUnit;
    }
  | { readonly kind: "coped" }
  | { readonly kind: "angle"; readonly text: string; readonly must: "number" | "below" }
  | { readonly kind: "manyAngles" | "direction" | "edges"; readonly text: string }
  /** A negative angle says the direction of the ends, which a column of its own has to say. */
  | { readonly kind: "negativeAngle" };

const MISSING = {
  name: "Name or mark is missing.",
  quantity: "Quantity is missing.",
  length: "Length is missing.",
  width: "It names a board but has no width.",
} as const;
const QUANTITY = {
  number: "is not a number",
  positive: "must be at least 1",
  whole: "must be a whole number",
  below: "is above 100,000",
} as const;
const ANGLE = { number: "is not a number of degrees", below: "must be below 89° from square" } as const;
const heading = (column: SizeColumn) => column.charAt(0).toUpperCase() + column.slice(1);

/** The sentence that a person reads beside the row. */
export function rowFaultWords(fault: RowFault): string {
  switch (fault.kind) {
    case "formula":
      return `"${fault.text}" is a formula; paste values.`;
    case "fields":
      return `It has ${counted(fault.fields, "field")}, but there are ${counted(fault.headings, "heading")}. Remove a comma too many, or put quotation marks around a text with a comma.`;
    case "missing":
      return MISSING[fault.what];
    case "longMark":
      return `The mark "${fault.text}" is longer than 12 characters.`;
    case "unknownStock":
      return `There is no section or board "${fault.text}" in the stockroom.`;
    case "unknownMaterial":
      return `Unknown material "${fault.text}". Check the spelling, or add it to the stockroom.`;
    case "quantity":
      return `The quantity "${fault.text}" ${QUANTITY[fault.must]}.`;
    case "size":
      return `${heading(fault.column)}: ${sentence(fault.problem)}`;
    case "notPositive":
      return `${heading(fault.column)}: "${fault.text}" must be above zero.`;
    case "otherThickness": {
      const say = (mm: number) => sayDifference(mm, { ...PLAIN_MM, unit: fault.unit });
      return `Its thickness ${say(fault.thickness)} is not that of ${fault.board}, ${say(fault.boardThickness)}.`;
    }
    case "coped":
      return "An end is coped. A typed-in piece has plane ends: draw it, or type 0 for a square end.";
    case "angle":
      return `The end angle "${fault.text}" ${ANGLE[fault.must]}.`;
    case "manyAngles":
      return `The end angles "${fault.text}" are more than two.`;
    case "direction":
      return `End direction "${fault.text}" is unknown. Write opposed, parallel, or turned and the degrees.`;
    case "edges":
      return `The edging "${fault.text}" does not name its edges. Write front, back, left, right, all, or 2L 1W.`;
    case "negativeAngle":
      return "It has a negative end angle; say in a column Stand whether the ends are opposed or parallel.";
    default:
      return fault satisfies never;
  }
}
