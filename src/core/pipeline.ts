/**
 * The whole way from a job document to its lists, each stage remembered by the identity of what it was
 * made from. The browser, the server and the command line run this same function.
 */
import { type Job, resolveSizes, type Sizes, type VariantId } from "./job";
import { remembersEach, remembersLast } from "./kernel";
import { type KeptLayout, type LayoutTask, layoutTasks } from "./layout";
import { buyingList, cutList, type ListTable } from "./lists";
import { type Quantities, quantitiesOf } from "./quantities";
import { createShaper, type Shape } from "./shape";
import type { Stockroom } from "./stockroom";
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
  kept: readonly KeptLayout[],
) => Results;

/** A pipeline with its own memory: stages whose inputs are identical are not run again. */
export function createPipeline(): Pipeline {
  const memory = { sizes: remembersEach<object, Sizes>() };
  // Sizes hang on nothing but the key sizes, the variants and the unit: other edits leave them the same object.
  const sizes = (job: Job, variant: VariantId | null) =>
    memory.sizes(memory, [job.keySizes, job.variants, job.info.job.unit, variant], () =>
      resolveSizes(job, variant),
    );
  const shape = remembersLast(createShaper());
  const tally = remembersLast(createTallier());
  const tasks = remembersLast(layoutTasks);
  const quantities = remembersLast(quantitiesOf);
  const cut = remembersLast(cutList);
  const buying = remembersLast(buyingList);
  return (job, variant, stockroom, kept) => {
    const resolved = sizes(job, variant);
    const solids = shape(job, resolved, stockroom);
    const rows = tally(job, solids, stockroom);
    const sums = quantities(job, rows, stockroom, kept);
    return {
      sizes: resolved,
      shape: solids,
      tally: rows,
      tasks: tasks(rows, stockroom),
      quantities: sums,
      cutList: cut(job.info.job, rows, stockroom),
      buyingList: buying(sums),
    };
  };
}
