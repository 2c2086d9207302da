/**
 * Whether a set of rectangles can be cut out of a sheet by cuts that run right across, and in how many
 * runs of parallel cuts. In each run every clean cut is made: more cuts in one run never cost another.
 */
import { toNm } from "../../kernel";
import type { Placement, SheetProblem } from "./problem";

export type CutRect = {
  readonly x: number;
  readonly y: number;
  readonly length: number;
  readonly width: number;
};

/** A rectangle to be cut out; `inner` is the axis along which it is separated afterwards, as a keep-together blank is. */
export type ToCut = CutRect & { readonly inner?: "x" | "y" | null };

/** Runs of parallel cuts, the first along the length (rips); infinite when it cannot be cut that way. */
export const runsNeeded = (region: CutRect, rects: readonly ToCut[]): number =>
  lastRun(region, rects, 0, false);

/** The last run that is needed when `open` is the present one; `stuck`: the present one cut nothing. */
function lastRun(region: CutRect, rects: readonly ToCut[], open: number, stuck: boolean): number {
  const only = rects.length === 1 ? rects[0] : undefined;
  if (rects.length === 0) return open;
  if (only && sameRect(only, region)) {
    return partedRun(only, open);
  }
  const next = open + 1;
  const parts = next % 2 === 1 ? slices(region, rects, "y", "width") : slices(region, rects, "x", "length");
  if (parts.length === 1) return stuck ? Number.POSITIVE_INFINITY : lastRun(region, rects, next, true);
  return Math.max(next, ...parts.map((part) => lastRun(part.region, part.rects, next, false)));
}

/** The run in which a cut of a direction can be made next: rips are odd, cross-cuts even. */
export const ripRun = (run: number) => (run % 2 === 1 ? run : run + 1);
export const crossRun = (run: number) => (run % 2 === 0 ? run : run + 1);

/** The run that a rectangle is parted in at last, when run `open` is open: its own panels apart, if it is a blank. */
export function partedRun({ inner }: Pick<ToCut, "inner">, open: number): number {
  if (!inner) return open;
  return inner === "y" ? ripRun(Math.max(1, open)) : crossRun(Math.max(1, open));
}

const SLACK = 0.5;
export const sameRect = (a: CutRect, b: CutRect) =>
  Math.abs(a.x - b.x) < SLACK &&
  Math.abs(a.y - b.y) < SLACK &&
  Math.abs(a.length - b.length) < SLACK &&
  Math.abs(a.width - b.width) < SLACK;

export type Part<T extends CutRect> = { readonly region: CutRect; readonly rects: readonly T[] };

/** The region cut at every place along an axis where no rectangle is in the way. */
export function slices<T extends CutRect>(
  region: CutRect,
  rects: readonly T[],
  from: "x" | "y",
  size: "length" | "width",
): readonly Part<T>[] {
  const sorted = [...rects].sort((a, b) => a[from] - b[from]);
  const end = region[from] + region[size];
  const parts: Part<T>[] = [];
  let start = region[from];
  let group: T[] = [];
  let covered = region[from];
  const close = (to: number) => {
    if (to - start > SLACK)
      parts.push({ region: { ...region, [from]: start, [size]: to - start }, rects: group });
    start = to;
    group = [];
  };
  for (const rect of sorted) {
    if (rect[from] > covered - SLACK && group.length > 0) close(covered);
    if (group.length === 0 && rect[from] > start + SLACK) close(rect[from]);
    group.push(rect);
    covered = Math.max(covered, rect[from] + rect[size]);
  }
  close(Math.min(covered, end));
  if (end - covered > SLACK) close(end);
  return parts;
}

/** The trimmed sheet and its panels in nanometres, each larger by a kerf, from the corner of the trimmed sheet. */
export function inflated(
  problem: SheetProblem,
  stock: SheetProblem["stock"][number],
  placements: readonly Placement[],
): readonly [CutRect, readonly CutRect[]] {
  const kerf = toNm(problem.kerf);
  const trim = toNm(problem.trim);
  const region = {
    x: 0,
    y: 0,
    length: toNm(stock.length) - 2 * trim + kerf,
    width: toNm(stock.width) - 2 * trim + kerf,
  };
  const rects = placements.map((p) => ({
    x: toNm(p.x) - trim,
    y: toNm(p.y) - trim,
    length: toNm(p.length) + kerf,
    width: toNm(p.width) + kerf,
  }));
  return [region, rects];
}
