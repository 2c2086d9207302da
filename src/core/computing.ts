/**
 * The results of a job computed in another thread, for jobs that are too large to be computed while somebody types. The
 * thread holds the document and its own memory; it is told what changed and answers with what came of it. Nothing here
 * knows what a thread is: the page and the worker post these messages, and tests hand them over.
 */
import { applyDiff, type Diff, type Job, type SimpleEdit, type VariantId, withEdit } from "./job";
import { invariant } from "./kernel";
import type { SavedLayout } from "./layout";
import { createPipeline, type Pipeline, type Results } from "./pipeline";
import { indexStockroom, type Rack, type StockroomData } from "./stockroom";
import { createSender, type Parcel } from "./transfer";

/** From how many records of pieces and placements on a job is computed in another thread. */
const LARGE_FROM = 4_000;

/** Whether a job is computed away from the page. */
export function isLarge({ members, panels, boughtParts, placements, typedPieces }: Job): boolean {
  return (
    [members, panels, boughtParts, placements, typedPieces].reduce(
      (sum, table) => sum + Object.keys(table).length,
      0,
    ) >= LARGE_FROM
  );
}

/** What the results hang on. What is not there is as it was before; the first message has all. */
export type Asked = {
  readonly number: number;
  readonly job?: Job;
  readonly diff?: Diff;
  readonly variant?: VariantId | null;
  readonly stockroom?: StockroomData;
  readonly layouts?: readonly SavedLayout[];
  readonly rack?: Rack;
  /** Whether marks that are newly given are kept, as after an edit. */
  readonly keepMarks: boolean;
};

export type Answer = {
  readonly number: number;
  /** The marks that were newly given: the results are those of the document with them. */
  readonly marks: SimpleEdit | null;
  /** `Results`. */
  readonly parcel: Parcel;
};

/** The edit that keeps the marks that a job newly gives out; null where all are kept. Marks are those of the base design. */
export function marksEdit(results: Pick<Results, "tally">): SimpleEdit | null {
  const { newMarks } = results.tally;
  return newMarks.length === 0 ? null : { kind: "keepMarks", marks: [...newMarks], drop: [] };
}

/** Answers one message after the other. Throws where the first does not say all. */
export function createAnswering(): (asked: Asked) => Answer {
  const shown = createPipeline();
  const base = createPipeline();
  const send = createSender();
  let known: Omit<Required<Asked>, "number" | "diff" | "keepMarks" | "stockroom"> | null = null;
  let stockroom: ReturnType<typeof indexStockroom> | null = null;
  return ({ number, diff, keepMarks, ...given }) => {
    if (given.stockroom) stockroom = indexStockroom(given.stockroom);
    invariant(stockroom, "the stockroom was not sent");
    const { job, variant, layouts, rack } = { ...known, ...given };
    invariant(job && layouts && rack && variant !== undefined, "the job was not sent");
    let now = diff ? applyDiff(job, diff) : job;
    const input = [stockroom, layouts, rack] as const;
    let results = shown(now, variant, ...input);
    let marks: SimpleEdit | null = null;
    if (keepMarks) {
      marks = marksEdit(variant === null ? results : baseResults(base, now, stockroom));
      const marked = marks ? withEdit(now, marks) : null;
      if (marked?.ok) {
        now = marked.value;
        results = shown(now, variant, ...input);
      } else marks = null;
    }
    known = { job: now, variant, layouts, rack };
    return { number, marks, parcel: send(results) };
  };
}

const baseResults = (base: Pipeline, job: Job, stockroom: ReturnType<typeof indexStockroom>): Results =>
  base(job, null, stockroom, []);
