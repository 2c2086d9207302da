/**
 * The whole way from a job document to its lists, each stage remembered by the identity of what it was
 * made from. The browser, the server and the command line run this same function.
 */

import {
  type Job,
  type JobInfo,
  resolveSizes,
  type Sizes,
  TABLES,
  type TableName,
  type VariantId,
} from "./job";
import { remembersEach, remembersLast } from "./kernel";
import { type LayoutTask, layoutTasks, type SavedLayout } from "./layout";
import { type BuyingStyle, buyingList, createCutLister, type ListTable } from "./lists";
import type { LengthStyle } from "./measure";
import { type Quantities, quantitiesOf } from "./quantities";
import { createShaper, type Shape } from "./shape";
import { EMPTY_RACK, type Rack, type Stockroom } from "./stockroom";
import { createTallier, type Tally } from "./tally";

export type Results = {
  readonly sizes: Sizes;
  readonly shape: Shape;
  readonly tally: Tally;
  readonly tasks: readonly LayoutTask[];
  readonly quantities: Quantities;
  readonly cutList: ListTable;
  readonly buyingList: ListTable;
};

export type Pipeline = (
  job: Job,
  variant: VariantId | null,
  stockroom: Stockroom,
  saved: readonly SavedLayout[],
  rack?: Rack,
) => Results;

/** Tables that say how lists and pages look, and nothing about what is made. */
const PAPER_TABLES: ReadonlySet<TableName> = new Set([
  "lists",
  "ownColumns",
  "listCells",
  "pages",
  "pageItems",
]);

/** The same document object as long as nothing but its lists and pages changes, so that an edit of these computes nothing anew. */
export function remembersDesign(): (job: Job) => Job {
  let last: Job | null = null;
  return (job) => {
    const before = last;
    const same =
      before !== null && TABLES.every((table) => PAPER_TABLES.has(table) || before[table] === job[table]);
    if (!same) last = job;
    return same ? before : job;
  };
}

/** Sizes hang on nothing but the key sizes, the variants and the unit: other edits leave them the same object. */
export function remembersSizes(): (job: Job, variant: VariantId | null) => Sizes {
  const memory = remembersEach<object, Sizes>();
  return (job, variant) =>
    memory(memory, [job.keySizes, job.variants, job.info.job.unit, job.info.job.format, variant], () =>
      resolveSizes(job, variant),
    );
}

/** A pipeline with its own memory: stages whose inputs are identical are not run again. */
export function createPipeline(): Pipeline {
  const sizes = remembersSizes();
  const shape = remembersLast(createShaper());
  const tally = remembersLast(createTallier());
  const tasks = remembersLast(
    (
      rows: Tally,
      stockroom: Stockroom,
      layoutSettings: Job["layoutSettings"],
      blankGroups: Job["blankGroups"],
      rack: Rack,
      shown: string,
      style: LengthStyle,
    ) => layoutTasks(rows, stockroom, { layoutSettings, blankGroups, style }, rack, shown),
  );
  const quantities = remembersLast(quantitiesOf);
  const cut = createCutLister();
  const buying = remembersLast(buyingList);
  // The same objects as long as the job's details are the same, so that nothing that takes them is computed again.
  const style = remembersLast((info: JobInfo): LengthStyle => ({ unit: info.unit, format: info.format }));
  const buyingStyle = remembersLast(
    (info: JobInfo): BuyingStyle => ({ unit: info.unit, format: info.format, feet: info.feet }),
  );
  const design = remembersDesign();
  return (document, variant, stockroom, saved, rack = EMPTY_RACK) => {
    const job = design(document);
    const resolved = sizes(job, variant);
    const solids = shape(job, resolved, stockroom);
    const rows = tally(job, solids, stockroom);
    const { layoutSettings, blankGroups } = job;
    const laid = tasks(
      rows,
      stockroom,
      layoutSettings,
      blankGroups,
      rack,
      variant ?? "",
      style(job.info.job),
    );
    const sums = quantities(job, rows, stockroom, saved, laid);
    const results = { sizes: resolved, shape: solids, tally: rows, tasks: laid, quantities: sums };
    return {
      ...results,
      // Its setup is of the lists, which are no part of the design.
      cutList: cut({ job: document, stockroom, ...results }),
      buyingList: buying(sums, buyingStyle(job.info.job)),
    };
  };
}
