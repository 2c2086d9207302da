/**
 * Layouts that are kept, with the problem that they answer and the fingerprint of what they were made from: as soon as any
 * of that has changed, they are stale and say why.
 */
import type { BarLayout, BarProblem } from "./bars";
import type { ShapeLayout, ShapeProblem } from "./shapes";
import type { SheetLayout, SheetProblem } from "./sheets";
import { type LaidPiece, type LayoutTask, stockOfTask, type TaskStock } from "./tasks";

type Kept = {
  /** Names this layout alone, however it is changed by hand; one that is made again gets another. */
  readonly id?: string;
  readonly taskId: string;
  /** What it is cut from: the entry of the stockroom and the material. */
  readonly stock?: TaskStock;
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
  if (task.fingerprint !== kept.fingerprint) return changedWords(task.fingerprint, kept.fingerprint);
  // What was released has cut up its rack pieces itself.
  if (isReleased(kept)) return null;
  const lost = usedRack(kept).find((id) => !task.problem.stock.some((stock) => stock.rack === id));
  return lost === undefined ? null : "a rack piece that it uses is not free any more";
}

/** What each setting of a problem is called when it has changed. */
const SETTING_WORDS: Readonly<Record<string, string>> = {
  kerf: "the kerf",
  trim: "the trim",
  margin: "the margin",
  gap: "the gap",
  grip: "the clamp length",
  keep: "the smallest offcut to keep",
  share: "the shared cuts",
  rackFirst: "the use of the rack",
  stages: "the stages",
  step: "the rotation step",
  stock: "stock sizes or prices",
  together: "the panels kept together",
};

/** The settings that differ, in words: "the kerf, stock sizes or prices changed". */
function settingWords(now: unknown, then: unknown): string {
  const [a, b] = [now, then].map((one) => (typeof one === "object" && one !== null ? one : {})) as [
    Record<string, unknown>,
    Record<string, unknown>,
  ];
  const keys = [...new Set([...Object.keys(a), ...Object.keys(b)])];
  const changed = keys.filter((key) => JSON.stringify(a[key]) !== JSON.stringify(b[key]));
  const words = new Set(
    changed.map((key) => (Object.hasOwn(SETTING_WORDS, key) ? SETTING_WORDS[key] : "a setting")),
  );
  return `${[...words].join(", ")} changed`;
}

function changedWords(now: string, then: string): string {
  const [a, b] = [partsOf(now), partsOf(then)];
  if (a === null || b === null) return "the design or the stock changed";
  const words = [settingWords(a[0], b[0]), "the design changed", "marks changed"];
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
  {
    problem = task.problem as ProblemOf[T["kind"]],
    id,
  }: { readonly problem?: ProblemOf[T["kind"]]; readonly id?: string } = {},
): KeptLayout {
  const { kind, id: taskId, fingerprint, pieces, stock } = task;
  const named = id === undefined ? {} : { id };
  // The kind of the task says which problem and which layout they are.
  return { ...named, taskId, stock, fingerprint, revision, pieces, kind, problem, layout } as KeptLayout;
}

/** What a layout is cut from; those of before say it in the id of their task. */
export const stockOfKept = ({ stock, taskId }: Pick<KeptLayout, "stock" | "taskId">): TaskStock =>
  stock ?? stockOfTask(taskId);
