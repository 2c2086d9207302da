/**
 * The lines of views, drawn in another thread one after the other: those that are wanted first come first, and what stands is shown
 * until what follows is there. A thread that ends is started once more; after that the page draws them itself.
 */

import type { DrawnView, ViewAsked } from "@/core/drawing";
import { diffBetween, isEmptyDiff } from "@/core/job";
import { finished } from "@/core/kernel";
import { remembersDesign } from "@/core/pipeline";
import type { DocumentMessage } from "@/core/sent-document";
import { createReceiver } from "@/core/transfer";
import { createViews, type ViewAnswer, type ViewInputs, type ViewMessage } from "@/core/views";
import type { Thread, ThreadStart } from "../common/thread";

export type ShownViews = {
  readonly views: ReadonlyMap<string, DrawnView>;
  /** Views that are older than the design, or not there yet. */
  readonly waiting: ReadonlySet<string>;
};

export type ViewStore = ReturnType<typeof createViewStore>;

export function createViewStore(start: ThreadStart<ViewMessage, ViewAnswer>) {
  const design = remembersDesign();
  const listeners = new Set<() => void>();
  let shown: ShownViews = { views: new Map(), waiting: new Set() };
  let wanted: { readonly inputs: ViewInputs; readonly asked: readonly ViewAsked[] } | null = null;
  /** By view: what it was drawn from last. */
  const made = new Map<string, { readonly inputs: ViewInputs; readonly key: string }>();
  let thread: Thread<ViewMessage> | null = null;
  let receive = createReceiver();
  let starts = 0;
  let number = 0;
  let mirror: ViewInputs | null = null;
  let onItsWay: { readonly number: number; readonly asked: ViewAsked; readonly inputs: ViewInputs } | null =
    null;
  let here: ReturnType<typeof createViews> | null = null;

  const tell = (next: ShownViews) => {
    shown = next;
    for (const listener of listeners) listener();
  };
  const isMade = (asked: ViewAsked, inputs: ViewInputs) => {
    const before = made.get(asked.id);
    return before !== undefined && sameInputs(before.inputs, inputs) && before.key === keyOf(asked);
  };
  const waiting = (): ReadonlySet<string> => {
    if (!wanted) return new Set();
    const { inputs, asked } = wanted;
    return new Set(asked.filter((one) => !isMade(one, inputs)).map(({ id }) => id));
  };

  const keep = (asked: ViewAsked, inputs: ViewInputs, drawn: DrawnView) => {
    made.set(asked.id, { inputs, key: keyOf(asked) });
    const same = shown.views.get(asked.id) === drawn;
    tell({ views: same ? shown.views : new Map(shown.views).set(asked.id, drawn), waiting: waiting() });
  };

  const next = () => {
    if (!wanted || onItsWay) return;
    const { inputs, asked } = wanted;
    const one = asked.find((each) => !isMade(each, inputs));
    if (!one) return;
    if (here) {
      keep(one, inputs, here(inputs, one));
      setTimeout(next, 0);
      return;
    }
    thread ??= begin();
    onItsWay = { number: ++number, asked: one, inputs };
    thread.post({ number, asked: one, ...changes(mirror, inputs) });
    mirror = inputs;
  };

  const begin = (): Thread<ViewMessage> => {
    starts++;
    receive = createReceiver();
    mirror = null;
    return start(take, failed);
  };

  const take = (answer: ViewAnswer) => {
    if (onItsWay?.number !== answer.number) return;
    const { asked, inputs } = onItsWay;
    onItsWay = null;
    keep(asked, inputs, finished(receive(answer.parcel)) as DrawnView);
    next();
  };

  const failed = () => {
    thread?.end();
    thread = null;
    onItsWay = null;
    if (starts >= 2) here = createViews();
    next();
  };

  return {
    /** Says which views are wanted, the most urgent first, and of what. */
    want: (inputs: ViewInputs, asked: readonly ViewAsked[]) => {
      const of = { ...inputs, job: design(inputs.job) };
      wanted = { inputs: wanted && sameInputs(wanted.inputs, of) ? wanted.inputs : of, asked };
      const still = waiting();
      if (still.size !== shown.waiting.size || [...still].some((id) => !shown.waiting.has(id)))
        tell({ ...shown, waiting: still });
      next();
    },
    subscribe: (listener: () => void) => {
      listeners.add(listener);
      return () => {
        listeners.delete(listener);
      };
    },
    shown: () => shown,
    end: () => {
      thread?.end();
      thread = null;
      onItsWay = null;
      wanted = null;
    },
  };
}

const keyOf = ({ id: _, ...asked }: ViewAsked) => JSON.stringify(asked);

export const sameInputs = (a: ViewInputs, b: ViewInputs) =>
  a.job === b.job && a.stockroom === b.stockroom && a.assets === b.assets;

/** What differs from what the thread has. */
export function changes(before: ViewInputs | null, after: ViewInputs): DocumentMessage {
  const { job, stockroom, assets } = after;
  if (!before) return { job, stockroom, assets };
  const diff = diffBetween(before.job, job);
  return {
    ...(isEmptyDiff(diff) ? {} : { diff }),
    ...(before.stockroom === stockroom ? {} : { stockroom }),
    ...(before.assets === assets ? {} : { assets }),
  };
}
