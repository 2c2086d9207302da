/**
 * Where the results of a desk come from: computed at once in the page, or, for a large job, in another thread. Then the
 * results of before stand until the new ones are there, and the page is never busy for long: what arrives is unpacked in
 * short stretches.
 */
import {
  type Answer,
  type Asked,
  createComputing,
  type Found,
  type Inputs,
  type Opened,
} from "@/core/computing";
import { diffBetween, isEmptyDiff, type Job, type SimpleEdit, withEdit } from "@/core/job";
import { invariant } from "@/core/kernel";
import type { Results } from "@/core/pipeline";
import { makeMeshes } from "@/core/shape";
import { indexStockroom, type Stockroom } from "@/core/stockroom";
import { createReceiver, type Plain } from "@/core/transfer";
import type { Thread, ThreadStart } from "../common/thread";

/** Marks that an edit gave out: the document with them, if it was `from`, and the edit that keeps them; null: none. */
export type GivenMarks = { readonly from: Job; readonly job: Job; readonly edit: SimpleEdit } | null;

export type Computer = {
  /** The results of the inputs; null where they come later, through `onResults`. */
  readonly compute: (inputs: Inputs) => Results | null;
  /** The marks that a document newly gives out; null where they are found together with its results, see `onMarks`. */
  readonly marksOf: ((inputs: Inputs) => SimpleEdit | null) | null;
  /** Calls back, once, when the marks of the inputs that are asked for next are known, before their results are told. */
  readonly onMarks: (told: (marks: GivenMarks) => void) => void;
  /** Told with results that came later, and whether they are of the inputs that were asked for last. */
  onResults: ((results: Results, newest: boolean) => void) | null;
  readonly end: () => void;
};

/** Computes in the page, at once. */
export function createLocalComputer(): Computer {
  const { results, marks } = createComputing();
  return {
    compute: results,
    marksOf: marks,
    onMarks: () => invariant(false, "marks are known at once"),
    onResults: null,
    end: () => undefined,
  };
}

/** A job that was read and computed in another thread; `computed` null: it is small, and computed where it is shown. */
export type OpenedThere<F extends Found> = {
  readonly found: F;
  readonly computed: { readonly results: Results; readonly stockroom: Stockroom } | null;
};

export type RemoteComputer = Computer & {
  /**
   * Begins with a job as its text came from the server, before anything is computed: read and computed there, so that the page
   * is not busy with a text of megabytes. The bytes change hands. Null: the thread ended.
   */
  readonly open: <F extends Found>(bytes: ArrayBuffer) => Promise<OpenedThere<F> | null>;
};

export type RemoteGround = {
  readonly start: ThreadStart<Asked, Answer>;
  /** Lets the page do something else, between stretches of unpacking. */
  readonly rest: () => Promise<void>;
  readonly now: () => number;
};

const STRETCH_MS = 8;

/** Goes through what is done in small steps without being busy for longer than a stretch. */
async function inStretches<T>(steps: Generator<void, T>, { rest, now }: RemoteGround): Promise<T> {
  let end = now() + STRETCH_MS;
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
    if (now() < end) continue;
    await rest();
    end = now() + STRETCH_MS;
  }
}

/**
 * Computes in another thread. One message is on its way at a time: what is asked for meanwhile is asked for when its answer
 * is there, and only the newest. A thread that ends is started once more; after that the page computes itself.
 */
export function createRemoteComputer(ground: RemoteGround): RemoteComputer {
  let thread: Thread<Asked> | null = null;
  let receive = createReceiver();
  let starts = 0;
  /** What the thread has, as objects of the page; null: nothing yet. */
  let mirror: Inputs | null = null;
  let wanted: Inputs | null = null;
  let last: Results | null = null;
  let onItsWay: { readonly number: number; readonly inputs: Inputs; readonly marks: readonly Told[] } | null =
    null;
  let number = 0;
  let waiting: Told[] = [];
  let local: Computer | null = null;
  let opening: {
    readonly number: number;
    readonly tell: (opened: OpenedThere<Found> | null) => void;
  } | null = null;
  type Told = (marks: GivenMarks) => void;

  const computer: RemoteComputer = {
    open: <F extends Found>(bytes: ArrayBuffer) =>
      new Promise<OpenedThere<F> | null>((resolve) => {
        // What comes back is what was sent.
        opening = { number: ++number, tell: resolve as (opened: OpenedThere<Found> | null) => void };
        thread ??= start();
        thread.post({ number, bytes, keepMarks: false }, [bytes]);
      }),
    compute: (inputs) => {
      if (local) return local.compute(inputs);
      wanted = inputs;
      if (onItsWay === null && last && mirror && sameInputs(mirror, inputs)) return last;
      ask();
      return null;
    },
    get marksOf() {
      return local?.marksOf ?? null;
    },
    onMarks: (told) => {
      waiting.push(told);
    },
    onResults: null,
    end: () => thread?.end(),
  };

  const tellLocal = (by: Computer) => {
    const told = waiting;
    waiting = [];
    if (!wanted) return;
    const edit = by.marksOf?.(wanted) ?? null;
    tellAll(told, given(wanted.job, edit));
  };

  const ask = () => {
    if (onItsWay !== null || wanted === null) return;
    thread ??= start();
    const inputs = wanted;
    onItsWay = { number: ++number, inputs, marks: waiting };
    waiting = [];
    thread.post({ number, ...changes(mirror, inputs), keepMarks: onItsWay.marks.length > 0 });
  };

  const start = (): Thread<Asked> => {
    starts++;
    receive = createReceiver();
    mirror = null;
    return ground.start((answer) => void take(answer), failed);
  };

  const failed = () => {
    thread?.end();
    thread = null;
    mirror = null;
    opening?.tell(null);
    opening = null;
    if (onItsWay) waiting = [...onItsWay.marks, ...waiting];
    onItsWay = null;
    if (starts < 2) return ask();
    local = createLocalComputer();
    tellLocal(local);
    if (!wanted) return;
    const results = local.compute(wanted);
    if (results) computer.onResults?.(results, true);
  };

  const takeOpened = async (answer: Answer, tell: (opened: OpenedThere<Found>) => void) => {
    const { found, results } = (await inStretches(receive(answer.parcel), ground)) as Opened<Found>;
    opening = null;
    if (!results) return tell({ found, computed: null });
    await inStretches(makeMeshes(results.shape), ground);
    const { job, layouts, rack } = found.opened;
    const stockroom = indexStockroom(found.stockroom);
    mirror = { job, variant: null, stockroom, layouts, rack };
    wanted = mirror;
    last = results;
    tell({ found, computed: { results, stockroom } });
  };

  const take = async (answer: Answer) => {
    if (opening?.number === answer.number) return takeOpened(answer, opening.tell);
    const asked = onItsWay;
    if (asked?.number !== answer.number) return;
    // Whatever else the thread sends, its parcels are unpacked in their order: it has sent no other one yet.
    const unpacked: Plain = await inStretches(receive(answer.parcel), ground);
    const results = unpacked as Results;
    await inStretches(makeMeshes(results.shape), ground);
    if (onItsWay !== asked) return;
    const marks = given(asked.inputs.job, answer.marks);
    mirror = marks ? { ...asked.inputs, job: marks.job } : asked.inputs;
    last = results;
    onItsWay = null;
    const before = wanted;
    tellAll(asked.marks, marks);
    // Whoever took the marks has asked for the document with them, which is what was computed.
    const newest = wanted !== null && sameInputs(mirror, wanted);
    if (!newest || wanted === before) computer.onResults?.(results, newest);
    if (!newest) ask();
  };
  return computer;
}

const tellAll = (all: readonly ((marks: GivenMarks) => void)[], marks: GivenMarks) => {
  // Edits that were made before the answer came share it: the marks go with the last of them.
  for (const [i, told] of all.entries()) told(i === all.length - 1 ? marks : null);
};

function given(from: Job, edit: SimpleEdit | null): GivenMarks {
  if (edit === null) return null;
  const marked = withEdit(from, edit);
  return marked.ok ? { from, job: marked.value, edit } : null;
}

const sameInputs = (a: Inputs, b: Inputs): boolean =>
  a.job === b.job &&
  a.variant === b.variant &&
  a.stockroom === b.stockroom &&
  a.layouts === b.layouts &&
  a.rack === b.rack;

/** What differs from what the thread has. */
function changes(before: Inputs | null, after: Inputs): Partial<Asked> {
  const { job, variant, stockroom, layouts, rack } = after;
  if (!before) return { job, variant, stockroom, layouts, rack };
  const diff = diffBetween(before.job, job);
  return {
    ...(isEmptyDiff(diff) ? {} : { diff }),
    ...(before.variant === variant ? {} : { variant }),
    ...(before.stockroom === stockroom ? {} : { stockroom }),
    ...(before.layouts === layouts ? {} : { layouts }),
    ...(before.rack === rack ? {} : { rack }),
  };
}

/** Lets the page paint and take what was typed. A timer would wait four milliseconds each time. */
export function restAWhile(): Promise<void> {
  return new Promise((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });
}

/** The results of a job that opens. */
export function firstResults(computer: Computer, inputs: Inputs): Promise<Results> {
  return new Promise((resolve) => {
    computer.onResults = (results) => resolve(results);
    const atOnce = computer.compute(inputs);
    if (atOnce) resolve(atOnce);
  });
}
