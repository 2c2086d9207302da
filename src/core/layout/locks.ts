/**
 * Locks that are taken over from a kept layout when it is made again: pieces are known by job and mark, stock by its size.
 * What has changed its size or is gone is let go, and each of those is told in a sentence.
 */
import { at, toNm } from "../kernel";
import { type LengthStyle, PLAIN_MM, saySizes } from "../measure";
import { type BarLayout, type BarProblem, lockedBarFault } from "./bars";
import type { KeptBars, KeptLayout, KeptShapes, KeptSheets, ProblemOf } from "./kept";
import { type LockedShape, type ShapeLayout, type ShapeProblem, shapeFault, sizeOfShape } from "./shapes";
import { type LockedPlacement, lockedFault, type SheetLayout, type SheetProblem } from "./sheets";
import {
  type BarTask,
  type LaidPiece,
  type LayoutKind,
  type LayoutTask,
  pieceKey,
  type ShapeTask,
  type SheetTask,
} from "./tasks";

/** The problem with the locks that a layout carries itself. */
export function lockedBars(problem: BarProblem, layout: BarLayout): BarProblem {
  const fixed = layout.bars.flatMap((bar) => {
    const { locked = [] } = bar;
    return locked.length === 0
      ? []
      : [{ stock: bar.stock, pieces: locked.map((place) => ({ piece: at(bar.pieces, place), place })) }];
  });
  return { ...problem, fixed };
}

export function lockedSheets(problem: SheetProblem, layout: SheetLayout): SheetProblem {
  const fixed = layout.sheets.flatMap((sheet) => {
    const placements = sheet.placements
      .filter((one) => one.locked)
      .map(({ panel, x, y, rotated, against = false, together }) => ({
        panel,
        x,
        y,
        rotated,
        against,
        ...(together ? { together } : {}),
      }));
    return placements.length === 0 ? [] : [{ stock: sheet.stock, placements }];
  });
  return { ...problem, fixed };
}

function lockedShapes(problem: ShapeProblem, layout: ShapeLayout): ShapeProblem {
  const fixed = layout.sheets.flatMap((sheet) => {
    const placements = sheet.placements
      .filter((one) => one.locked)
      .map(({ shape, angle, x, y, mirrored = false, against = false }) => ({
        shape,
        angle,
        x,
        y,
        mirrored,
        against,
      }));
    return placements.length === 0 ? [] : [{ stock: sheet.stock, placements }];
  });
  return { ...problem, fixed };
}

/** The same layout, with a problem that knows the locks in it. */
export function withOwnLocks(kept: KeptLayout): KeptLayout {
  if (kept.kind === "bars") return { ...kept, problem: lockedBars(kept.problem, kept.layout) };
  return kept.kind === "sheets"
    ? { ...kept, problem: lockedSheets(kept.problem, kept.layout) }
    : { ...kept, problem: lockedShapes(kept.problem, kept.layout) };
}

export type Taken<P> = {
  readonly problem: P;
  /** What was let go, a sentence each. */
  readonly notes: readonly string[];
};

const nameOf = ({ mark, job }: LaidPiece) => (job === undefined ? mark : `${mark} of ${job}`);

/** A task's problem with the locks of the layout that was kept for it; a board that is cut another way now has none. */
export function withLocks(task: LayoutTask, kept: KeptLayout | null): Taken<ProblemOf[LayoutKind]> {
  if (task.kind === "bars" && kept?.kind === "bars") return barLocks(task, kept);
  if (task.kind === "sheets" && kept?.kind === "sheets") return sheetLocks(task, kept);
  if (task.kind === "shapes" && kept?.kind === "shapes") return shapeLocks(task, kept);
  return { problem: task.problem, notes: [] };
}

function barLocks(task: BarTask, kept: KeptBars): Taken<BarProblem> {
  const { problem } = task;
  const say = (sizes: readonly number[]) => saySizes(sizes, problem.style ?? PLAIN_MM);
  const { groups, notes } = takenOver<BarProblem["fixed"][number]["pieces"][number]>({
    groups: lockedBars(kept.problem, kept.layout).fixed.map(({ stock, pieces }) => ({
      stock,
      items: pieces,
    })),
    before: kept.pieces,
    now: task.pieces,
    wanted: problem.pieces.map(({ qty }) => qty),
    stock: problem.stock,
    isStock: (old, now) => {
      const [one, other] = [at(kept.problem.stock, old), at(problem.stock, now)];
      return one.length === other.length && one.rack === other.rack;
    },
    pieceOf: ({ piece }) => piece,
    as: (item, piece) => ({ ...item, piece }),
    sizeBefore: (piece) => [at(kept.problem.pieces, piece).length],
    sizeNow: (piece) => [at(problem.pieces, piece).length],
    style: problem.style ?? PLAIN_MM,
    stockWords: (stock) => `their bar of ${say([at(kept.problem.stock, stock).length])}`,
    faultWords: (stock, pieces) =>
      lockedBarFault({ ...problem, fixed: [{ stock, pieces: [...pieces] }] }) === null
        ? null
        : "they do not fit one bar any more with kerf and trims as they are",
  });
  const fixed = groups.map(({ stock, items }) => ({ stock, pieces: [...items] }));
  return { problem: { ...problem, fixed }, notes };
}

function sheetLocks(task: SheetTask, kept: KeptSheets): Taken<SheetProblem> {
  const { problem } = task;
  const say = (sizes: readonly number[]) => saySizes(sizes, problem.style ?? PLAIN_MM);
  const { groups, notes } = takenOver<LockedPlacement>({
    groups: lockedSheets(kept.problem, kept.layout).fixed.map(({ stock, placements }) => ({
      stock,
      items: placements,
    })),
    before: kept.pieces,
    now: task.pieces,
    wanted: problem.panels.map(({ qty }) => qty),
    stock: problem.stock,
    isStock: (old, now) => isSameSheet(at(kept.problem.stock, old), at(problem.stock, now)),
    pieceOf: ({ panel }) => panel,
    as: (item, panel) => ({ ...item, panel }),
    sizeBefore: (panel) => sizeOf(at(kept.problem.panels, panel)),
    sizeNow: (panel) => sizeOf(at(problem.panels, panel)),
    style: problem.style ?? PLAIN_MM,
    stockWords: (stock) => `the sheet of ${say(sizeOf(at(kept.problem.stock, stock)))}`,
    faultWords: (stock, placements) => {
      const fault = lockedFault({ ...problem, fixed: [{ stock, placements: [...placements] }] });
      return fault === null ? null : `locked, but ${fault.replace("on sheet 1 ", "")}`;
    },
  });
  const fixed = groups.map(({ stock, items }) => ({ stock, placements: withRuns(problem, items) }));
  return { problem: { ...problem, fixed }, notes };
}

/** Locked runs with the group that keeps them together now; panels that no group keeps together any more are single. */
function withRuns(problem: SheetProblem, items: readonly LockedPlacement[]): LockedPlacement[] {
  const panelsOf = (one: LockedPlacement) =>
    items
      .filter(
        ({ together }) => together?.group === one.together?.group && together?.run === one.together?.run,
      )
      .map(({ panel }) => panel);
  return items.map((one): LockedPlacement => {
    const { together, ...single } = one;
    if (!together) return one;
    const wanted = panelsOf(one).join();
    const group = problem.together.findIndex(({ panels }) => panels.join() === wanted);
    // Runs of one sheet keep their numbers apart also where two groups have become one.
    return group < 0 ? single : { ...single, together: { group, run: together.run + 1000 * together.group } };
  });
}

function shapeLocks(task: ShapeTask, kept: KeptShapes): Taken<ShapeProblem> {
  const { problem } = task;
  const say = (sizes: readonly number[]) => saySizes(sizes, problem.style ?? PLAIN_MM);
  const tenth = (value: number) => Math.round(value * 10) / 10;
  const size = (of: ShapeProblem, shape: number) => {
    const { length, width } = sizeOfShape(of, shape);
    return [tenth(length), tenth(width)];
  };
  const { groups, notes } = takenOver<LockedShape>({
    groups: lockedShapes(kept.problem, kept.layout).fixed.map(({ stock, placements }) => ({
      stock,
      items: placements,
    })),
    before: kept.pieces,
    now: task.pieces,
    wanted: problem.shapes.map(({ qty }) => qty),
    stock: problem.stock,
    isStock: (old, now) => isSameSheet(at(kept.problem.stock, old), at(problem.stock, now)),
    pieceOf: ({ shape }) => shape,
    as: (item, shape) => ({ ...item, shape }),
    sizeBefore: (shape) => size(kept.problem, shape),
    sizeNow: (shape) => size(problem, shape),
    style: problem.style ?? PLAIN_MM,
    stockWords: (stock) => `the sheet of ${say(sizeOf(at(kept.problem.stock, stock)))}`,
    faultWords: (stock, placements) => {
      const fault = shapeFault(problem, stock, placements);
      return fault === null ? null : `locked, but ${LOCK_WORDS[fault.kind]}`;
    },
  });
  const fixed = groups.map(({ stock, items }) => ({ stock, placements: [...items] }));
  const hands = ofTheirHand(task, fixed);
  return { problem: { ...problem, fixed: hands.fixed }, notes: [...notes, ...hands.notes] };
}

/** Locked shapes of which there are fewer in their hand now are let go. */
function ofTheirHand({ problem, pieces }: ShapeTask, groups: ShapeProblem["fixed"]) {
  const notes: string[] = [];
  const left = problem.shapes.map(({ qty, opposite }) =>
    opposite === null ? { plain: qty, mirrored: qty } : { plain: qty - opposite, mirrored: opposite },
  );
  const fixed = groups
    .map((group) => ({
      ...group,
      placements: group.placements.filter(({ shape, mirrored }) => {
        const hand = mirrored ? "mirrored" : "plain";
        if (at(left, shape)[hand]-- > 0) return true;
        notes.push(
          `${nameOf(at(pieces, shape))} was locked in a hand of which there are fewer now; it is free again.`,
        );
        return false;
      }),
    }))
    .filter(({ placements }) => placements.length > 0);
  return { fixed, notes };
}

const LOCK_WORDS = {
  unknown: "gone",
  off: "with the margin as it is one lies off the sheet",
  against: "one would lie against the grain",
  taken: "with outlines and gap as they are two lie too near to one another",
} as const;

type SheetSize = { readonly length: number; readonly width: number; readonly rack: string | null };
const isSameSheet = (a: SheetSize, b: SheetSize) =>
  a.length === b.length && a.width === b.width && a.rack === b.rack;

const sizeOf = ({ length, width }: { readonly length: number; readonly width: number }) => [length, width];

/** Pieces that are locked to one bar or sheet. */
type Group<T> = { readonly stock: number; readonly items: readonly T[] };

/** What bars and sheets have of their own when locks are taken over. */
type Side<T> = {
  readonly groups: readonly Group<T>[];
  readonly before: readonly LaidPiece[];
  readonly now: readonly LaidPiece[];
  readonly wanted: readonly number[];
  readonly stock: readonly { readonly count: number | null }[];
  readonly isStock: (old: number, now: number) => boolean;
  readonly pieceOf: (item: T) => number;
  readonly as: (item: T, piece: number) => T;
  /** How lengths are written in the notes. */
  readonly style: LengthStyle;
  readonly sizeBefore: (piece: number) => readonly number[];
  readonly sizeNow: (piece: number) => readonly number[];
  /** What is not in stock any more. */
  readonly stockWords: (stock: number) => string;
  /** Why the group cannot stay together, or null. */
  readonly faultWords: (stock: number, items: readonly T[]) => string | null;
};

function takenOver<T>(side: Side<T>): { groups: readonly Group<T>[]; notes: readonly string[] } {
  const notes: string[] = [];
  const groups: Group<T>[] = [];
  const left = [...side.wanted];
  const stockLeft = side.stock.map(({ count }) => count ?? Number.POSITIVE_INFINITY);
  for (const group of side.groups) {
    const names = (pieces: readonly LaidPiece[], items: readonly T[]) =>
      items.map((item) => nameOf(at(pieces, side.pieceOf(item)))).join(", ");
    const stock = side.stock.findIndex((_, i) => side.isStock(group.stock, i) && at(stockLeft, i) > 0);
    if (stock < 0) {
      const lost = side.stockWords(group.stock);
      notes.push(
        `${names(side.before, group.items)}: ${lost} is not in stock any more; they are free again.`,
      );
      continue;
    }
    const items = group.items.flatMap((item) => {
      const piece = side.pieceOf(item);
      const found = foundPiece(side.now, at(side.before, piece), left);
      const size = found === null ? null : side.sizeNow(found);
      const note = letGo(at(side.before, piece), side.sizeBefore(piece), size, side.style);
      if (note !== null) notes.push(note);
      if (note !== null || found === null) return [];
      left[found] = at(left, found) - 1;
      return [side.as(item, found)];
    });
    if (items.length === 0) continue;
    const fault = side.faultWords(stock, items);
    if (fault !== null) {
      notes.push(`${names(side.now, items)}: ${fault}; they are free again.`);
      for (const item of items) left[side.pieceOf(item)] = at(left, side.pieceOf(item)) + 1;
      continue;
    }
    stockLeft[stock] = at(stockLeft, stock) - 1;
    groups.push({ stock, items });
  }
  return { groups, notes };
}

function foundPiece(pieces: readonly LaidPiece[], wanted: LaidPiece, left: readonly number[]): number | null {
  const found = pieces.findIndex((piece, i) => pieceKey(piece) === pieceKey(wanted) && at(left, i) > 0);
  return found < 0 ? null : found;
}

/** Why a locked piece is let go, or null: it is gone (`now` is null), or its size is another. */
function letGo(
  piece: LaidPiece,
  before: readonly number[],
  now: readonly number[] | null,
  style: LengthStyle,
): string | null {
  if (now === null)
    return `${nameOf(piece)} was locked and is gone, or there are fewer of it; its place is free.`;
  const same = before.every((size, i) => toNm(size) === toNm(at(now, i)));
  return same
    ? null
    : `${nameOf(piece)} was locked at ${saySizes(before, style)} and is ${saySizes(now, style)} now; it is free again.`;
}
