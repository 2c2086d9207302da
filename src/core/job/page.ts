/**
 * A page of the drawings: a sheet of paper of a given size and turn. What stands on it are records of their own
 * (`page-item.ts`), each with its place in millimetres from the upper left corner of the sheet, right and down.
 */
import * as v from "valibot";
import { LENGTH_UNITS, type LengthStyle } from "../measure";
import { entity } from "./entity";
import { type JobInfo, jobStyle } from "./job-info";
import { LengthFormatSchema } from "./length-format";
import { recordId, shortName } from "./text";

/** Sheets by their usual names; their sizes stand with the drawings. */
export const PAPERS = ["a4", "a3", "a2", "a1", "letter", "tabloid", "ansiC", "ansiD"] as const;
export type Paper = (typeof PAPERS)[number];

/** How views that follow one another are placed: ISO 5456-2, first- and third-angle projection. */
export const PROJECTIONS = ["first", "third"] as const;
export type Projection = (typeof PROJECTIONS)[number];

/** Millimetres on paper for one of the design. */
export const pageScale = v.pipe(
  v.number(),
  v.finite(),
  v.minValue(0.001, "is below 1:1000"),
  v.maxValue(100, "is above 100:1"),
);

export const PageSchema = v.object({
  id: v.pipe(recordId, v.brand("PageId")),
  heading: shortName,
  paper: v.picklist(PAPERS),
  /** On its long side. */
  lying: v.boolean(),
  border: v.boolean(),
  titleBlock: v.boolean(),
  /** Of all views on it that have none of their own. */
  scale: pageScale,
  projection: v.picklist(PROJECTIONS),
  /** How lengths and scales are written on it; null: as in the job. */
  lengths: v.optional(
    v.nullable(v.object({ unit: v.picklist(LENGTH_UNITS), format: LengthFormatSchema })),
    null,
  ),
  /** With a bar beside what changed since it was put out. */
  marksChanges: v.optional(v.boolean(), false),
  position: v.pipe(v.number(), v.finite()),
});
export type Page = v.InferOutput<typeof PageSchema>;
export type PageId = Page["id"];
export const pages = entity(PageSchema, { since: 9 });

/** A page as it is before anybody changes it: A3 on its long side, with all that belongs to it. */
export const plainPage = (own: Pick<Page, "id"> & Partial<Page>): Page => ({
  heading: "Page",
  paper: "a3",
  lying: true,
  border: true,
  titleBlock: true,
  scale: 0.1,
  projection: "first",
  lengths: null,
  marksChanges: false,
  position: 0,
  ...own,
});

/** How lengths are written on a page. */
export const pageStyle = (
  { lengths }: Pick<Page, "lengths">,
  job: { readonly info: { readonly job: JobInfo } },
): LengthStyle => lengths ?? jobStyle(job);
