/**
 * What can be taken back on a desk, in the order in which it was done: edits, which the server keeps for ever, and changes of
 * layouts, which this desk keeps while it is open. For the person both are one history.
 */
import type { VariantId } from "@/core/job";
import { isReleased, type SavedLayout } from "@/core/layout";

export type LayoutStep = {
  readonly kind: "layout";
  readonly variant: VariantId | null;
  /** What was laid out, in words. */
  readonly name: string;
  readonly before: SavedLayout;
  readonly after: SavedLayout;
};
type Step = { readonly kind: "edit" } | LayoutStep;

export type History = {
  readonly past: readonly Step[];
  readonly future: readonly Step[];
  /** Nothing was done since the desk opened, so that what the server can redo comes next. */
  readonly untouched: boolean;
};

export const NO_HISTORY: History = { past: [], future: [], untouched: true };

const MOST_STEPS = 200;

/** With a step that was just done; what had been taken back before it is gone. */
export const withStep = ({ past }: History, step: Step): History => ({
  past: [...past.slice(1 - MOST_STEPS), step],
  future: [],
  untouched: false,
});

/** What the server would take back and do again, in words; null: nothing. */
export type ServerSteps = { readonly undo: string | null; readonly redo: string | null };

export type Offered = { readonly step: Step; readonly words: string } | null;

/**
 * What comes next in a direction; null: nothing. Layouts that were released since cannot change, so changes of them are
 * passed over.
 */
export function offered(
  history: History,
  which: "undo" | "redo",
  server: ServerSteps,
  layouts: readonly SavedLayout[],
): Offered {
  const step = nextIn(history, which, layouts);
  if (step?.kind === "layout") return { step, words: layoutWords(step) };
  const words = server[which];
  if (words === null) return null;
  if (which === "redo" && step === undefined && !history.untouched) return null;
  return { step: { kind: "edit" }, words };
}

/** What steps back would take back one after the other, in words: `edits` are those that the server has, the newest first. */
export function stepsBack(
  { past }: History,
  edits: readonly string[],
  layouts: readonly SavedLayout[],
): readonly string[] {
  const words: string[] = [];
  let next = 0;
  for (const step of [...past].reverse()) {
    if (step.kind === "layout") {
      if (!isFrozen(step, layouts)) words.push(layoutWords(step));
      continue;
    }
    const edit = edits[next++];
    if (edit !== undefined) words.push(edit);
  }
  return [...words, ...edits.slice(next)];
}

const layoutWords = ({ name }: LayoutStep) => `layout of ${name}`;

const stackOf = (history: History, which: "undo" | "redo") =>
  which === "undo" ? history.past : history.future;

function nextIn(history: History, which: "undo" | "redo", layouts: readonly SavedLayout[]): Step | undefined {
  return stackOf(history, which).findLast((step) => step.kind === "edit" || !isFrozen(step, layouts));
}

function isFrozen({ after }: LayoutStep, layouts: readonly SavedLayout[]): boolean {
  const now = layouts.find(({ taskId }) => taskId === after.taskId);
  return now !== undefined && isReleased(now);
}

/** The history after what was offered has been taken back or done again. */
export function stepped(history: History, which: "undo" | "redo", step: Step): History {
  const { past, future } = history;
  const from = stackOf(history, which);
  const place = from.lastIndexOf(step);
  // An edit of an earlier sitting stands in no stack; what was passed over is forgotten.
  const found = place < 0 && step.kind === "edit" ? from.findLastIndex((one) => one.kind === "edit") : place;
  const rest = found < 0 ? from : from.slice(0, found);
  return which === "undo"
    ? { ...history, past: rest, future: [...future, step] }
    : { ...history, past: [...past, step], future: rest };
}
