/**
 * Which pieces the pages place, found in another thread: the last report stands until the next is there. Questions of a person go
 * before it. A thread that ends is started once more; after that nothing is checked, and that is said.
 */
import type {
  PlacingAnswer,
  PlacingInputs,
  PlacingMessage,
  PlacingQuestion,
  PlacingReport,
} from "@/core/placings";
import type { Thread, ThreadStart } from "../common/thread";
import { changes, sameInputs as sameDocument } from "./view-store";

export type ShownPlacing = {
  readonly report: PlacingReport | null;
  /** It is of a design before the last edit. */
  readonly isOld: boolean;
  readonly hasFailed: boolean;
};

export type PlacingStore = ReturnType<typeof createPlacingStore>;

type Asked = {
  readonly question: PlacingQuestion;
  readonly answered: (value: PlacingAnswer["value"]) => void;
};

export function createPlacingStore(start: ThreadStart<PlacingMessage, PlacingAnswer>) {
  const listeners = new Set<() => void>();
  let shown: ShownPlacing = { report: null, isOld: true, hasFailed: false };
  let wanted: PlacingInputs | null = null;
  let mayCheck = true;
  let reported: PlacingInputs | null = null;
  let thread: Thread<PlacingMessage> | null = null;
  let mirror: PlacingInputs | null = null;
  let starts = 0;
  let number = 0;
  let questions: Asked[] = [];
  let onItsWay: {
    readonly number: number;
    readonly inputs: PlacingInputs;
    readonly asked: Asked | null;
  } | null = null;

  const tell = (next: ShownPlacing) => {
    shown = next;
    for (const listener of listeners) listener();
  };

  const next = () => {
    if (!wanted || onItsWay || shown.hasFailed) return;
    const asked = questions.shift() ?? null;
    if (!asked && (!mayCheck || (reported && sameInputs(reported, wanted)))) return;
    thread ??= begin();
    onItsWay = { number: ++number, inputs: wanted, asked };
    const { variant } = wanted;
    thread.post({
      number,
      variant,
      question: asked?.question ?? { kind: "check" },
      ...changes(mirror, wanted),
    });
    mirror = wanted;
  };

  const begin = (): Thread<PlacingMessage> => {
    starts++;
    mirror = null;
    return start(take, failed);
  };

  const take = (answer: PlacingAnswer) => {
    if (onItsWay?.number !== answer.number) return;
    const { asked, inputs } = onItsWay;
    onItsWay = null;
    if (asked) asked.answered(answer.value);
    else {
      reported = inputs;
      const isOld = wanted !== null && !sameInputs(inputs, wanted);
      tell({ report: answer.value as PlacingReport, isOld, hasFailed: false });
    }
    next();
  };

  const failed = () => {
    thread?.end();
    thread = null;
    onItsWay?.asked?.answered(null);
    onItsWay = null;
    if (starts >= 2) {
      for (const { answered } of questions) answered(null);
      questions = [];
      tell({ ...shown, hasFailed: true });
    }
    next();
  };

  return {
    /** Says of which design; `now`: it may be checked, as nothing waits that is looked at: there may be few processors. */
    want: (inputs: PlacingInputs, now = true) => {
      wanted = inputs;
      mayCheck = now;
      const isOld = reported === null || !sameInputs(reported, inputs);
      if (isOld !== shown.isOld) tell({ ...shown, isOld });
      next();
    },
    /** Answers a question about the design as it is now; null where that cannot be done. */
    ask: (question: PlacingQuestion): Promise<PlacingAnswer["value"]> =>
      new Promise((resolve) => {
        if (shown.hasFailed) {
          resolve(null);
          return;
        }
        questions.push({ question, answered: resolve });
        next();
      }),
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

const sameInputs = (a: PlacingInputs, b: PlacingInputs) => sameDocument(a, b) && a.variant === b.variant;
