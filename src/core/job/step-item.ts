/** Building steps: what comes in, and what is to be done. The steps of a home follow one another as their pages do. */
import * as v from "valibot";
import { place, placed } from "./item-parts";
import { recordId } from "./text";

/** What comes in with a step. */
const StepPartSchema = v.object({
  /** A piece, a bought part, or the placement of an assembly. */
  record: recordId,
  /** Which one of the repeats of a placement; null: all that no other step names by their numbers. */
  repeat: v.nullable(v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(10_000))),
  /** How many of a bought part that stands nowhere, in one of what is built; null: all that no other step takes. */
  count: v.nullable(v.pipe(v.number(), v.integer(), v.minValue(1, "is below 1"), v.maxValue(1_000_000))),
});
export type StepPart = v.InferOutput<typeof StepPartSchema>;

export const StepItemSchema = v.object({
  ...placed,
  kind: v.literal("step"),
  /** Its upper left corner. */
  at: place,
  width: v.pipe(v.number(), v.finite(), v.minValue(40, "is below 40 mm"), v.maxValue(600, "is above 600 mm")),
  /** What is built: an assembly, or the job itself. */
  home: v.nullable(v.pipe(recordId, v.brand("AssemblyId"))),
  heading: v.pipe(v.string(), v.trim(), v.minLength(1, "needs a heading"), v.maxLength(80)),
  text: v.pipe(v.string(), v.trim(), v.maxLength(2_000)),
  comes: v.pipe(v.array(StepPartSchema), v.maxLength(5_000)),
});
export type StepItem = v.InferOutput<typeof StepItemSchema>;

/** All of a record. */
export const allOf = (record: string): StepPart => ({ record, repeat: null, count: null });
