/**
 * The results of a job computed in another thread, for jobs that are too large to be computed while somebody types. The
 * thread holds the document and its own memory; it is told what changed and answers with what came of it. Nothing here
 * knows what a thread is: the page and the worker post these messages, and tests hand them over.
 */
import { applyDiff, type Diff, type Job, type SimpleEdit, type VariantId, withEdit } from "./job";
import { invariant } from "./kernel";
import type { SavedLayout } from "./layout";
import { createPipeline, type Results } from "./pipeline";
import { indexStockroom, type Rack, type Stockroom, type StockroomData } from "./stockroom";
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

/** A job as the server hands it out with what its results hang on; it may hold more. */
export type Found = {
  readonly opened: {
    readonly job: Job;
    readonly layouts: readonly SavedLayout[];
    readonly rack: Rack;
  };
  readonly stockroom: StockroomData;
};

/** A job that was read in the thread, and its results; null: it is small, and the page computes it. */
export type Opened<F extends Found> = { readonly found: F; readonly results: Results | null };

/** What the results hang on. What is not there is as it was before; the first message has all. */
export type Asked = {
  readonly number: number;
  /** The text of a `Found`, as it came from the server: all at once, and the answer is an `Opened`. */
  readonly bytes?: ArrayBuffer;
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
  /** `Results`, or the `Opened` of what was sent as bytes. */
  readonly parcel: Parcel;
};

/** What results hang on. */
export type Inputs = {
  readonly job: Job;
  readonly variant: VariantId | null;
  readonly stockroom: Stockroom;
  readonly layouts: readonly SavedLayout[];
  readonly rack: Rack;
};

/** Results of a job, and the edit that keeps the marks that it newly gives out (null where all are kept), with a memory of its own. */
export function createComputing(): {
  readonly results: (inputs: Inputs) => Results;
  readonly marks: (inputs: Inputs) => SimpleEdit | null;
} {
  const shown = createPipeline();
  const base = createPipeline();
  const results = ({ job, variant, stockroom, layouts, rack }: Inputs) =>
    shown(job, variant, stockroom, layouts, rack);
  return {
    results,
    marks: (inputs) => {
      // Marks are the job's own; with no variant shown, what is computed here is what will be shown.
      const { tally } =
        inputs.variant === null ? results(inputs) : base(inputs.job, null, inputs.stockroom, []);
      const { newMarks } = tally;
      return newMarks.length === 0 ? null : { kind: "keepMarks", marks: [...newMarks], drop: [] };
    },
  };
}

/** Answers one message after the other. Throws where the first does not say all. `decode`: the text of bytes in UTF-8. */
export function createAnswering(decode: (bytes: ArrayBuffer) => string): (asked: Asked) => Answer {
  const computing = createComputing();
  const send = createSender();
  let known: Partial<Inputs> = {};

  const open = (bytes: ArrayBuffer): Opened<Found> => {
    const found = JSON.parse(decode(bytes)) as Found;
    const { job, layouts, rack } = found.opened;
    if (!isLarge(job)) return { found, results: null };
    const inputs = { job, variant: null, stockroom: indexStockroom(found.stockroom), layouts, rack };
    known = inputs;
    return { found, results: computing.results(inputs) };
  };

  return ({ number, bytes, diff, keepMarks, stockroom: stock, ...given }) => {
    if (bytes) return { number, marks: null, parcel: send(open(bytes)) };
    const told = { ...known, ...given, ...(stock ? { stockroom: indexStockroom(stock) } : {}) };
    const { job, variant, stockroom, layouts, rack } = told;
    invariant(job && variant !== undefined && stockroom && layouts && rack, "the job was not sent");
    const now = { job: diff ? applyDiff(job, diff) : job, variant, stockroom, layouts, rack };
    const marks = keepMarks ? computing.marks(now) : null;
    const marked = marks ? withEdit(now.job, marks) : null;
    const after = marked?.ok ? { ...now, job: marked.value } : now;
    known = after;
    return { number, marks: marked?.ok ? marks : null, parcel: send(computing.results(after)) };
  };
}
