/**
 * Locks that are taken over from a kept layout when it is made again: pieces are known by job and mark, stock by its size.
 * What has changed its size or is gone is let go, and each of those is told in a sentence.
 */
import { at, toNm } from "../kernel";
import { type BarLayout, type BarProblem, lockedBarFault } from "./bars";
import type { KeptBars, KeptLayout, KeptSheets } from "./kept";
import { lockedFault, type SheetLayout, type SheetProblem } from "./sheets";
import type { BarTask, LaidPiece, LayoutTask, SheetTask } from "./tasks";

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
      .map(({ panel, x, y, rotated, against = false }) => ({ panel, x, y, rotated, against }));
    return placements.length === 0 ? [] : [{ stock: sheet.stock, placements }];
  });
  return { ...problem, fixed };
}

export type Taken<P> = {
  readonly problem: P;
  /** What was let go, a sentence each. */
  readonly notes: readonly string[];
};

const samePiece = (a: LaidPiece, b: LaidPiece) => a.mark === b.mark && (a.job ?? "") === (b.job ?? "");
const nameOf = ({ mark, job }: LaidPiece) => (job === undefined ? mark : `${mark} of ${job}`);

/** A task's problem with the locks of the layout that was kept for it. */
export function withLocks(
  task: LayoutTask,
  kept: KeptLayout | null,
): Taken<BarProblem> | Taken<SheetProblem> {
  if (task.kind === "bars")
    return kept?.kind === "bars" ? barLocks(task, kept) : { problem: task.problem, notes: [] };
  return kept?.kind === "sheets" ? sheetLocks(task, kept) : { problem: task.problem, notes: [] };
}

function barLocks(task: BarTask, kept: KeptBars): Taken<BarProblem> {
  const notes: string[] = [];
  const left = task.problem.pieces.map((piece) => piece.qty);
  const stockLeft = task.problem.stock.map((bar) => bar.count ?? Number.POSITIVE_INFINITY);
  const fixed: BarProblem["fixed"] = [];
  for (const bar of lockedBars(kept.problem, kept.layout).fixed) {
    const old = at(kept.problem.stock, bar.stock);
    const stock = task.problem.stock.findIndex(
      (one, i) => one.length === old.length && one.rack === old.rack && at(stockLeft, i) > 0,
    );
    if (stock < 0) {
      const names = bar.pieces.map(({ piece }) => nameOf(at(kept.pieces, piece))).join(", ");
      notes.push(`${names}: their bar of ${old.length} is not in stock any more; they are free again.`);
      continue;
    }
    const pieces = bar.pieces.flatMap(({ piece, place }) => {
      const found = foundPiece(task.pieces, at(kept.pieces, piece), left);
      const size = found === null ? null : at(task.problem.pieces, found).length;
      const note = letGo(at(kept.pieces, piece), found, [at(kept.problem.pieces, piece).length], [size]);
      if (note !== null || found === null) {
        if (note !== null) notes.push(note);
        return [];
      }
      left[found] = at(left, found) - 1;
      return [{ piece: found, place }];
    });
    if (pieces.length === 0) continue;
    if (lockedBarFault({ ...task.problem, fixed: [{ stock, pieces }] }) !== null) {
      const names = pieces.map(({ piece }) => nameOf(at(task.pieces, piece))).join(", ");
      notes.push(
        `${names}: they do not fit one bar any more with kerf and trims as they are; they are free again.`,
      );
      for (const { piece } of pieces) left[piece] = at(left, piece) + 1;
      continue;
    }
    stockLeft[stock] = at(stockLeft, stock) - 1;
    fixed.push({ stock, pieces });
  }
  return { problem: { ...task.problem, fixed }, notes };
}

function sheetLocks(task: SheetTask, kept: KeptSheets): Taken<SheetProblem> {
  const notes: string[] = [];
  const left = task.problem.panels.map((panel) => panel.qty);
  const stockLeft = task.problem.stock.map((sheet) => sheet.count ?? Number.POSITIVE_INFINITY);
  const fixed: SheetProblem["fixed"] = [];
  for (const sheet of lockedSheets(kept.problem, kept.layout).fixed) {
    const old = at(kept.problem.stock, sheet.stock);
    const stock = task.problem.stock.findIndex(
      (one, i) =>
        one.length === old.length && one.width === old.width && one.rack === old.rack && at(stockLeft, i) > 0,
    );
    if (stock < 0) {
      const names = sheet.placements.map(({ panel }) => nameOf(at(kept.pieces, panel))).join(", ");
      notes.push(
        `${names}: the sheet of ${old.length} × ${old.width} is not in stock any more; they are free again.`,
      );
      continue;
    }
    const placements = sheet.placements.flatMap((one) => {
      const before = at(kept.problem.panels, one.panel);
      const found = foundPiece(task.pieces, at(kept.pieces, one.panel), left);
      const now = found === null ? null : at(task.problem.panels, found);
      const note = letGo(
        at(kept.pieces, one.panel),
        found,
        [before.length, before.width],
        [now?.length ?? null, now?.width ?? null],
      );
      if (note !== null || found === null) {
        if (note !== null) notes.push(note);
        return [];
      }
      left[found] = at(left, found) - 1;
      return [{ ...one, panel: found }];
    });
    if (placements.length === 0) continue;
    const fault = lockedFault({ ...task.problem, fixed: [{ stock, placements }] });
    if (fault !== null) {
      const names = placements.map(({ panel }) => nameOf(at(task.pieces, panel))).join(", ");
      notes.push(`${names}: locked, but ${fault.replace("on sheet 1 ", "")}; they are free again.`);
      for (const { panel } of placements) left[panel] = at(left, panel) + 1;
      continue;
    }
    stockLeft[stock] = at(stockLeft, stock) - 1;
    fixed.push({ stock, placements });
  }
  return { problem: { ...task.problem, fixed }, notes };
}

function foundPiece(pieces: readonly LaidPiece[], wanted: LaidPiece, left: readonly number[]): number | null {
  const found = pieces.findIndex((piece, i) => samePiece(piece, wanted) && at(left, i) > 0);
  return found < 0 ? null : found;
}

/** Why a locked piece is let go, or null: it is gone, or its size is another. */
function letGo(
  piece: LaidPiece,
  found: number | null,
  before: readonly number[],
  now: readonly (number | null)[],
): string | null {
  if (found === null)
    return `${nameOf(piece)} was locked and is gone, or there are fewer of it; its place is free.`;
  const same = before.every((size, i) => toNm(size) === toNm(now[i] ?? 0));
  return same
    ? null
    : `${nameOf(piece)} was locked at ${before.join(" × ")} and is ${now.join(" × ")} now; it is free again.`;
}
