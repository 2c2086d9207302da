/**
 * Layouts that are kept, with the problem that they answer and the fingerprint of what they were made from: as soon as any
 * of that has changed, they are stale and say why.
 */
import type { BarLayout, BarProblem } from "./bars";
import type { ShapeLayout, ShapeProblem } from "./shapes";
import type { SheetLayout, SheetProblem } from "./sheets";
import type { LaidPiece, LayoutKind, LayoutTask } from "./tasks";

type Kept = {
  readonly taskId: string;
  readonly fingerprint: string;
  /** Revision of the job that it was made from. */
  readonly revision: number;
  readonly pieces: readonly LaidPiece[];
  /** When it went to the floor; null or not there: it has not. */
  readonly releasedAt?: number | null;
};
export type KeptBars = Kept & {
  readonly kind: "bars";
  readonly problem: BarProblem;
  readonly layout: BarLayout;
};
export type KeptSheets = Kept & {
  readonly kind: "sheets";
  readonly problem: SheetProblem;
  readonly layout: SheetLayout;
};
export type KeptShapes = Kept & {
  readonly kind: "shapes";
  readonly problem: ShapeProblem;
  readonly layout: ShapeLayout;
};
/** A layout that was kept, with the problem that it answers. */
export type KeptLayout = KeptBars | KeptSheets | KeptShapes;

/** The problem and the layout of each kind. */
export type ProblemOf = {
  readonly bars: BarProblem;
  readonly sheets: SheetProblem;
  readonly shapes: ShapeProblem;
};
export type LayoutOf = {
  readonly bars: BarLayout;
  readonly sheets: SheetLayout;
  readonly shapes: ShapeLayout;
};

export type FoundLayout = {
  readonly kept: KeptLayout;
  /** What has changed since, as the end of a sentence; null: nothing. */
  readonly stale: string | null;
};

/** The layout that was kept for a task, and what has changed since. */
export function keptFor(task: LayoutTask, kept: readonly KeptLayout[]): FoundLayout | null {
  const found = kept.find((layout) => layout.taskId === task.id);
  return found ? { kept: found, stale: staleWhy(task, found) } : null;
}

function staleWhy(task: LayoutTask, kept: KeptLayout): string | null {
  if (task.kind !== kept.kind) return "the way in which it is cut changed";
  if (task.fingerprint !== kept.fingerprint)
    return changedWords(task.kind, task.fingerprint, kept.fingerprint);
  // What was released has cut up its rack pieces itself.
  if (isReleased(kept)) return null;
  const lost = usedRack(kept).find((id) => !task.problem.stock.some((stock) => stock.rack === id));
  return lost === undefined ? null : "a rack piece that it uses is not free any more";
}

const SETTING_WORDS: Readonly<Record<LayoutKind, string>> = {
  bars: "kerf, trims or stock sizes changed",
  sheets: "kerf, trims or stock sizes changed",
  shapes: "gap, margin, turning or stock sizes changed",
};

function changedWords(kind: LayoutKind, now: string, then: string): string {
  const [a, b] = [partsOf(now), partsOf(then)];
  if (a === null || b === null) return "the design or the stock changed";
  const words = [SETTING_WORDS[kind], "the design changed", "marks changed"];
  const changed = words.filter((_, i) => JSON.stringify(a[i]) !== JSON.stringify(b[i]));
  // A piece more changes marks as well: the design says it.
  return changed.filter((word, _, all) => word !== "marks changed" || all.length === 1).join(", and ");
}

function partsOf(fingerprint: string): readonly unknown[] | null {
  try {
    const parts: unknown = JSON.parse(fingerprint);
    return Array.isArray(parts) && parts.length === 3 ? parts : null;
  } catch {
    return null;
  }
}

export const isReleased = ({ releasedAt }: KeptLayout) => releasedAt !== null && releasedAt !== undefined;

/** Ids of the rack pieces that a layout cuts from. */
export function usedRack({ problem, layout }: KeptLayout): readonly string[] {
  const used = "bars" in layout ? layout.bars : layout.sheets;
  return used.flatMap(({ stock }) => problem.stock[stock]?.rack ?? []);
}

/** A layout as it is kept; `problem` is the one that was solved, when it has locks that the task knows nothing of. */
export function keepLayout<T extends LayoutTask>(
  task: T,
  layout: LayoutOf[T["kind"]],
  revision: number,
  problem: ProblemOf[T["kind"]] = task.problem as ProblemOf[T["kind"]],
): KeptLayout {
  const { kind, id: taskId, fingerprint, pieces } = task;
  // The kind of the task says which problem and which layout they are.
  return { taskId, fingerprint, revision, pieces, kind, problem, layout } as KeptLayout;
}

/** Which piece of its problem it is that waits for a place. */
export function waitingPiece(one: KeptLayout["layout"]["unplaced"][number]): number {
  if ("piece" in one) return one.piece;
  return "panel" in one ? one.panel : one.shape;
}
