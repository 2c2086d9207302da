/**
 * Layouts that are kept, with the problem that they answer and the fingerprint of what they were made from: as soon as any
 * of that has changed, they are outdated and say why.
 */
import { at, byKey, byNumber, reversed } from "../kernel";
import { PLAIN_MM } from "../measure";
import { pieceIds } from "../tally";
import { layoutKind, type Rest, type Taken } from "./kinds";
import { reasonWords, type UnplacedReason } from "./stock";
import {
  type LaidPiece,
  type LayoutKind,
  type LayoutOf,
  type LayoutTask,
  type ProblemOf,
  type SavedLayout,
  stockOfTask,
  type TaskStock,
} from "./types";

/** What has changed since a layout was made. */
export type OutdatedReason =
  /** Straight through instead of along outlines, or the other way round. */
  | { readonly kind: "cutOtherwise" }
  /** It was made before anybody wrote down from what. */
  | { readonly kind: "unknown" }
  | { readonly kind: "rackTaken"; readonly rack: string }
  | {
      readonly kind: "changed";
      /** Fields of the problem. */
      readonly settings: readonly string[];
      readonly design: boolean;
      readonly marks: boolean;
    };

export type FoundLayout = {
  readonly saved: SavedLayout;
  /** null: nothing has changed since. */
  readonly outdated: OutdatedReason | null;
};

/** The layout that was kept for a task, and what has changed since. */
export function savedFor(task: LayoutTask, saved: readonly SavedLayout[]): FoundLayout | null {
  const found = saved.find((layout) => layout.taskId === task.id);
  return found ? { saved: found, outdated: outdatedBy(task, found) } : null;
}

function outdatedBy(task: LayoutTask, saved: SavedLayout): OutdatedReason | null {
  if (task.kind !== saved.kind) return { kind: "cutOtherwise" };
  if (task.fingerprint !== saved.fingerprint) return changedSince(task.fingerprint, saved.fingerprint);
  // What was released has cut up its rack pieces itself.
  if (isReleased(saved)) return null;
  const rack = usedRack(saved).find((id) => !task.problem.stock.some((stock) => stock.rack === id));
  return rack === undefined ? null : { kind: "rackTaken", rack };
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

/** The fields of a problem that differ. */
function changedFields(now: unknown, then: unknown): readonly string[] {
  const [a, b] = [now, then].map((one) => (typeof one === "object" && one !== null ? one : {})) as [
    Record<string, unknown>,
    Record<string, unknown>,
  ];
  const keys = [...new Set([...Object.keys(a), ...Object.keys(b)])];
  return keys.filter((key) => JSON.stringify(a[key]) !== JSON.stringify(b[key]));
}

function changedSince(now: string, then: string): OutdatedReason {
  const [a, b] = [partsOf(now), partsOf(then)];
  if (a === null || b === null) return { kind: "unknown" };
  const differs = (i: number) => JSON.stringify(a[i]) !== JSON.stringify(b[i]);
  return { kind: "changed", settings: changedFields(a[0], b[0]), design: differs(1), marks: differs(2) };
}

/** What has changed, as the end of a sentence. */
export function outdatedWords(reason: OutdatedReason): string {
  switch (reason.kind) {
    case "cutOtherwise":
      return "the way in which it is cut changed";
    case "unknown":
      return "the design or the stock changed";
    case "rackTaken":
      return "a rack piece that it uses is not free any more";
    case "changed": {
      const names = new Set(
        reason.settings.map((field) =>
          Object.hasOwn(SETTING_WORDS, field) ? SETTING_WORDS[field] : "a setting",
        ),
      );
      const words = [
        ...(names.size > 0 ? [`${[...names].join(", ")} changed`] : []),
        ...(reason.design ? ["the design changed"] : []),
      ];
      // A piece more changes marks as well: the design says it.
      return words.length === 0 ? "marks changed" : words.join(", and ");
    }
    default:
      return reason satisfies never;
  }
}

function partsOf(fingerprint: string): readonly unknown[] | null {
  try {
    const parts: unknown = JSON.parse(fingerprint);
    return Array.isArray(parts) && parts.length === 3 ? parts : null;
  } catch {
    return null;
  }
}

export const isReleased = ({ releasedAt }: SavedLayout) => releasedAt !== null && releasedAt !== undefined;

/** Ids of the rack pieces that a layout cuts from. */
export function usedRack(saved: SavedLayout): readonly string[] {
  return layoutKind(saved)
    .used(saved.layout)
    .flatMap(({ stock }) => saved.problem.stock[stock]?.rack ?? []);
}

/** A layout as it is kept; `problem` is the one that was solved, when it has locks that the task knows nothing of. */
export function savedLayout<T extends LayoutTask>(
  task: T,
  layout: LayoutOf[T["kind"]],
  revision: number,
  {
    problem = task.problem as ProblemOf[T["kind"]],
    id,
  }: { readonly problem?: ProblemOf[T["kind"]]; readonly id?: string } = {},
): SavedLayout {
  const { kind, id: taskId, fingerprint, stock } = task;
  const pieces = task.pieces.map((piece, i) => withIds(task, piece, i));
  const named = id === undefined ? {} : { id };
  // The kind of the task says which problem and which layout they are.
  return { ...named, taskId, stock, fingerprint, revision, pieces, kind, problem, layout } as SavedLayout;
}

/** A piece of a task with the names of those of the design that it stands for. */
function withIds(task: LayoutTask, piece: LaidPiece, index: number): LaidPiece {
  const row = task.rows[index];
  if (!row) return piece;
  const opposite = layoutKind(task).opposite(task.problem, index);
  return { ...piece, ids: pieceIds(row), ...(opposite === null ? {} : { opposite }) };
}

/** A bar or sheet that is cut, with what is cut from it. */
export type LaidStock = {
  /** Which bar pattern or sheet of the layout it is, from 0, and which of those that are cut alike. */
  readonly unit: number;
  readonly copy: number;
  readonly stock: number;
  /** By their places on it: which piece of the problem lies there, and its name in the design where the layout knows it. */
  readonly pieces: readonly { readonly index: number; readonly id: string | null }[];
};

/**
 * All bars or sheets of a layout, each with its pieces by name: identical pieces are given their names in the order in
 * which they lie, so that each stands once.
 */
export function laidStock(saved: SavedLayout): readonly LaidStock[] {
  const kind = layoutKind(saved);
  const next = saved.pieces.map(({ ids = [], opposite = 0 }) => ({
    plain: 0,
    mirrored: ids.length - opposite,
  }));
  const named = (index: number, mirrored: boolean): string | null => {
    const { ids = [], opposite } = at(saved.pieces, index);
    const hand = mirrored && opposite !== undefined ? "mirrored" : "plain";
    return ids[at(next, index)[hand]++] ?? null;
  };
  return kind.used(saved.layout).flatMap(({ stock, times, pieces, mirrored }, unit) =>
    Array.from({ length: times }, (_, copy) => ({
      unit,
      copy,
      stock,
      pieces: pieces.map((index, i) => ({ index, id: named(index, mirrored?.[i] ?? false) })),
    })),
  );
}

/** What a layout is cut from; those of before say it in the id of their task. */
export const stockOfSaved = ({ stock, taskId }: Pick<SavedLayout, "stock" | "taskId">): TaskStock =>
  stock ?? stockOfTask(taskId);

/** Rests no smaller than the least one worth keeping, the largest first; with no such size said, none is kept. */
export function restsToKeep(saved: SavedLayout): readonly Rest[] {
  const { keep } = saved.problem;
  if (keep <= 0) return [];
  return layoutKind(saved)
    .rests(saved.layout)
    .filter(({ length, width }) => Math.min(length, width ?? length) >= keep)
    .sort(reversed(byKey((rest: Rest) => rest.length * (rest.width ?? 1), byNumber)));
}

/** The same layout, with a problem that knows the locks in it. */
export function withOwnLocks(saved: SavedLayout): SavedLayout {
  const problem = layoutKind(saved).withOwnLocks(saved.problem, saved.layout);
  return { ...saved, problem } as SavedLayout;
}

/** A task's problem with the locks of the layout that was kept for it; a board that is cut another way now has none. */
export function withLocks(task: LayoutTask, saved: SavedLayout | null): Taken<ProblemOf[LayoutKind]> {
  return saved?.kind === task.kind
    ? layoutKind(task).withLocks(task, saved)
    : { problem: task.problem, notes: [] };
}

export type PieceWithoutPlace = {
  /** Which piece, panel or shape of the problem it is. */
  readonly index: number;
  readonly qty: number;
  readonly reason: UnplacedReason["kind"];
  /** The reason and what would help, each as a part of a sentence. */
  readonly why: string;
  readonly advice: string;
};

/** What a layout has no place for, with why and what would help. */
export function piecesWithoutPlace(saved: SavedLayout): readonly PieceWithoutPlace[] {
  const kind = layoutKind(saved);
  const style = saved.problem.style ?? PLAIN_MM;
  return kind.unplaced(saved.layout).map(({ index, qty, why }) => ({
    index,
    qty,
    reason: why.kind,
    why: reasonWords(why, style),
    advice: why.kind === "aside" ? "Drag it back, or fill again" : kind.advice(saved.problem, index, why),
  }));
}

/** What is wrong with a layout, as the end of a sentence; null: nothing. */
export const savedFault = (saved: SavedLayout): string | null =>
  layoutKind(saved).fault(saved.problem, saved.layout);
