/** A bought part of a job: so many of an entry of the stockroom, or so much length of it. */
import * as v from "valibot";
import { condition, formulaText, recordId, shortName } from "./text";

export const BoughtPartSchema = v.object({
  id: v.pipe(recordId, v.brand("BoughtPartId")),
  name: shortName,
  entry: v.nullable(recordId),
  /** How many, by value or formula; for parts bought by length, how many pieces of `length`. */
  count: formulaText,
  length: v.nullable(formulaText),
  note: v.pipe(v.string(), v.maxLength(200)),
  when: condition,
  leftOut: v.boolean(),
});
export type BoughtPart = v.InferOutput<typeof BoughtPartSchema>;
export type BoughtPartId = BoughtPart["id"];
