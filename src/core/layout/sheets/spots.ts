/** Places for panels that are moved by hand: where an edge snaps to, the next place in a direction, the first one free. */
import { at, fromNm, toNm } from "../../kernel";
import {
  type Box,
  boxOf,
  bringBack,
  freshSheet,
  isNear,
  movedTogether,
  movePanel,
  type PlacedAt,
  type Spot,
  waitingBlank,
} from "./by-hand";
import type { CutSheet, SheetLayout, SheetProblem } from "./problem";

/** Lines that an edge of a box can lie on: trims, and a kerf from a neighbour or level with it. */
function snapLines(
  problem: SheetProblem,
  sheet: CutSheet,
  others: readonly Box[],
  { axis, size }: { readonly axis: "x" | "y"; readonly size: number },
): readonly number[] {
  const extent = axis === "x" ? "length" : "width";
  const stock = at(problem.stock, sheet.stock)[extent];
  const [own, kerf] = [toNm(size), toNm(problem.kerf)];
  const places = new Set<number>([toNm(problem.trim), toNm(stock) - toNm(problem.trim) - own]);
  for (const other of others) {
    const [low, high] = [toNm(other[axis]), toNm(other[axis]) + toNm(other[extent])];
    for (const place of [high + kerf, low - kerf - own, low, high - own]) places.add(place);
  }
  const [least, most] = [toNm(problem.trim), toNm(stock) - toNm(problem.trim) - own];
  return [...places].filter((place) => place >= least && place <= most).map(fromNm);
}

const nearest = (lines: readonly number[], wanted: number, reach: number): number | null => {
  const best = lines.reduce<number | null>(
    (found, line) => (found === null || Math.abs(line - wanted) < Math.abs(found - wanted) ? line : found),
    null,
  );
  return best !== null && Math.abs(best - wanted) <= reach ? best : null;
};

/** Where a box let go at `wanted` comes to lie: at the nearest lines within `reach`, else on the tenth of a millimetre. */
export function snapped(
  problem: SheetProblem,
  sheet: CutSheet,
  wanted: Box,
  { except, reach }: { readonly except: readonly number[]; readonly reach: number },
): { readonly x: number; readonly y: number } {
  const others = sheet.placements.filter((_, i) => !except.includes(i));
  const tenth = (value: number) => Math.round(value * 10) / 10;
  const along = snapLines(problem, sheet, others, { axis: "x", size: wanted.length });
  const across = snapLines(problem, sheet, others, { axis: "y", size: wanted.width });
  return {
    x: nearest(along, wanted.x, reach) ?? tenth(wanted.x),
    y: nearest(across, wanted.y, reach) ?? tenth(wanted.y),
  };
}

export type Direction = "left" | "right" | "up" | "down";

/** The next place in a direction on its own sheet where a panel can lie; null when there is none. */
export function nextSpot(
  problem: SheetProblem,
  layout: SheetLayout,
  from: PlacedAt,
  direction: Direction,
): SheetLayout | null {
  const sheet = layout.sheets[from.sheet];
  const own = sheet?.placements[from.index];
  if (!sheet || !own) return null;
  const indices = movedTogether(sheet, from.index);
  const box = boxOf(indices.map((i) => at(sheet.placements, i)));
  const others = sheet.placements.filter((_, i) => !indices.includes(i));
  const axis = direction === "left" || direction === "right" ? "x" : "y";
  const sign = direction === "right" || direction === "up" ? 1 : -1;
  const lines = snapLines(problem, sheet, others, { axis, size: axis === "x" ? box.length : box.width })
    .filter((line) => sign * (toNm(line) - toNm(box[axis])) > 0)
    .sort((a, b) => sign * (a - b));
  for (const line of lines) {
    const spot: Spot = {
      sheet: from.sheet,
      x: box.x,
      y: box.y,
      [axis]: line,
      rotated: own.rotated,
      ...(own.against ? { against: true } : {}),
    };
    const moved = movePanel(problem, layout, from, spot);
    if (moved.ok) return moved.value;
  }
  return null;
}

/** The first place on a sheet, from its low corner on, where a panel can lie; null when there is none. */
export function firstSpot(
  problem: SheetProblem,
  layout: SheetLayout,
  panel: PlacedAt | { readonly waiting: number },
  {
    sheet: index,
    stock,
    rotated,
  }: { readonly sheet: number; readonly stock?: number; readonly rotated: boolean },
): SheetLayout | null {
  const sheet = layout.sheets[index] ?? freshSheet(problem, layout, stock);
  if (!sheet) return null;
  const source = "waiting" in panel ? null : layout.sheets[panel.sheet];
  const moved =
    "waiting" in panel || !source
      ? []
      : movedTogether(source, panel.index).map((i) => at(source.placements, i));
  const size = boxOf("waiting" in panel ? waitingBlank(problem, layout, panel.waiting) : moved);
  const turns = "waiting" in panel ? rotated : (moved[0]?.rotated ?? false) !== rotated;
  const [length, width] = turns ? [size.width, size.length] : [size.length, size.width];
  const own =
    "waiting" in panel || panel.sheet !== index || !source ? [] : movedTogether(source, panel.index);
  const others = sheet.placements.filter((_, i) => !own.includes(i));
  const ys = snapLines(problem, sheet, others, { axis: "y", size: width });
  const xs = snapLines(problem, sheet, others, { axis: "x", size: length });
  for (const y of [...ys].sort((a, b) => a - b)) {
    for (const x of [...xs].sort((a, b) => a - b)) {
      if (isNear(problem, { x, y, length, width }, others)) continue;
      const spot: Spot = { sheet: index, ...(stock === undefined ? {} : { stock }), x, y, rotated };
      const put =
        "waiting" in panel
          ? bringBack(problem, layout, panel.waiting, spot)
          : movePanel(problem, layout, panel, spot);
      if (put.ok) return put.value;
    }
  }
  return null;
}
