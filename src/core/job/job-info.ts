/** What holds for the job as a whole, and the small records that have no file of their own. */
import * as v from "valibot";
import { LENGTH_UNITS, type LengthStyle } from "../measure";
import { entity } from "./entity";
import { LengthFormatSchema } from "./length-format";
import { keyText, recordId } from "./text";
import { DefaultsSchema, NOTHING_USUAL } from "./usual";

export const JobInfoSchema = v.object({
  id: v.literal("job"),
  code: v.pipe(v.string(), v.trim(), v.minLength(1, "needs a code"), v.maxLength(24)),
  title: v.pipe(v.string(), v.trim(), v.minLength(1, "needs a title"), v.maxLength(80)),
  unit: v.picklist(LENGTH_UNITS),
  format: LengthFormatSchema,
  /** How many times the whole job is made. */
  batch: v.pipe(v.number(), v.integer(), v.minValue(1, "must be at least 1"), v.maxValue(10_000)),
  /** Added to net lengths and areas when material is bought by rule. */
  wastePercent: v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(200)),
  /** Where quantities are rounded to three places of m and m². */
  rounding: v.picklist(["piece", "line", "end"]),
  usual: DefaultsSchema,
  /** How the buying list writes feet in a job in inches or feet. */
  feet: v.optional(v.picklist(["decimal", "feetAndInches"]), "decimal"),
  /** Who answers for the drawings, in their title blocks; empty: it is written in by hand. */
  drawnBy: v.optional(v.pipe(v.string(), v.trim(), v.maxLength(60, "is longer than 60 characters")), ""),
});
export type JobInfo = v.InferOutput<typeof JobInfoSchema>;
/** In version 3 members and panels could take what is usual; before, each said it itself. */
export const info = entity(JobInfoSchema, { added: { 3: { usual: NOTHING_USUAL } } });

/** How a job's lengths are written. */
export const jobStyle = (job: { readonly info: { readonly job: JobInfo } }): LengthStyle => ({
  unit: job.info.job.unit,
  format: job.info.job.format,
});

/** The mark that a piece was last given; kept so that marks stay over edits. */
export const KeptMarkSchema = v.object({
  id: recordId,
  mark: v.pipe(v.string(), v.minLength(1), v.maxLength(12)),
  /** Somebody typed it: the row keeps it whatever else changes. */
  held: v.optional(v.boolean()),
});
export type KeptMark = v.InferOutput<typeof KeptMarkSchema>;
export const marks = entity(KeptMarkSchema);

/** Two marks whose small difference somebody looked at and meant. */
export const meant = entity(v.object({ id: keyText(130) }));
