/** The rack: offcuts of bars and sheets that lie in the shop, each with a label, and which job has set them aside. */
import * as v from "valibot";
import { size } from "./stockroom";

const words = (most: number) => v.pipe(v.string(), v.trim(), v.maxLength(most));

/** The layout that a rack piece is reserved for. */
const HolderSchema = v.object({
  job: v.string(),
  /** Code of that job, for messages. */
  code: v.string(),
  variant: v.string(),
  task: v.string(),
});
export type RackHolder = v.InferOutput<typeof HolderSchema>;

export const RackPieceSchema = v.object({
  id: v.pipe(v.string(), v.minLength(1), v.maxLength(60)),
  /** What is written on it: R-12. */
  label: v.pipe(words(12), v.minLength(1, "needs a label")),
  /** The section or board of the stockroom. */
  entry: v.pipe(v.string(), v.minLength(1), v.maxLength(60)),
  material: v.nullable(words(60)),
  length: size,
  /** null: a bar. `length` runs along the grain of a sheet. */
  width: v.nullable(size),
  place: words(60),
  note: words(200),
  /** The job whose rest it is; null: it was entered by hand. */
  from: v.nullable(words(60)),
  holder: v.nullable(HolderSchema),
});
export type RackPiece = v.InferOutput<typeof RackPieceSchema>;

/** The rack as one desk sees it. */
export type Rack = {
  /** The job that the desk is of; null: none, so that nothing that is held can be used. */
  readonly owner: string | null;
  readonly pieces: readonly RackPiece[];
};
export const EMPTY_RACK: Rack = { owner: null, pieces: [] };

/** The pieces of an entry that a layout task may use: free ones, and those that it holds itself. */
export function usableRack(
  rack: Rack,
  task: { readonly entry: string; readonly id: string; readonly variant: string },
): readonly RackPiece[] {
  return rack.pieces.filter(
    ({ entry, holder }) =>
      entry === task.entry &&
      (holder === null ||
        (holder.job === rack.owner && holder.variant === task.variant && holder.task === task.id)),
  );
}

/** The label after the greatest number that is given: R-13 after R-12. */
export function nextLabel(labels: Iterable<string>, further = 0): string {
  let greatest = 0;
  for (const label of labels) {
    const number = /^R-(\d+)$/.exec(label)?.[1];
    if (number !== undefined) greatest = Math.max(greatest, Number(number));
  }
  return `R-${greatest + 1 + further}`;
}
