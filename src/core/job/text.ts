/** Valibot parts that the entities of the job document share. */
import * as v from "valibot";
import { canBeKey, GREATEST_LENGTH_MM } from "../kernel";

const freeName = v.check(canBeKey, "is a name that every table has already; choose another");
/** The key of a record, or a name that values are kept under: at most `most` signs. */
export const keyText = (most: number) => v.pipe(v.string(), v.minLength(1), v.maxLength(most), freeName);
export const recordId = keyText(60);
export const shortName = v.pipe(v.string(), v.trim(), v.minLength(1, "needs a name"), v.maxLength(80));
export const materialName = v.nullable(v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(60)));
/** The text of a length field or formula, as it was typed. Whether it can be computed is told by checks. */
export const formulaText = v.pipe(v.string(), v.trim(), v.minLength(1, "needs a value"), v.maxLength(500));
/** Condition under which a record is part of the design, a formula for yes or no; null: always. */
export const condition = v.nullable(formulaText);
export const edgeChoice = v.nullable(recordId);
export const positiveLength = v.pipe(
  v.number(),
  v.finite(),
  v.gtValue(0, "must be above zero"),
  v.maxValue(GREATEST_LENGTH_MM, "is longer than 100 m"),
);
/** mm. A place in space, no farther out than anything can be long. */
export const coordinate = v.pipe(
  v.number(),
  v.finite(),
  v.minValue(-GREATEST_LENGTH_MM, "is farther out than 100 m"),
  v.maxValue(GREATEST_LENGTH_MM, "is farther out than 100 m"),
);
/** Width, depth and height as texts of lengths or formulas; for directions and turns, of numbers. */
export const placeTexts = v.tuple([formulaText, formulaText, formulaText]);
