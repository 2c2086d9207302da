/** Sheets that are parted by straight cuts, as a bench moves their panels. */
import { at } from "@/core/kernel";
import type { SavedSheets } from "@/core/layout";
import {
  boxOf,
  bringBack,
  type CutSheet,
  firstSpot,
  movedTogether,
  movePanel,
  nextSpot,
  type SheetLayout,
  type Spot,
  setAside,
  setLock,
  snapped,
} from "@/core/layout/sheets";
import { everySheet, type Held, type PlacedAt, type PlaneHand } from "./plane-hand";

export function sheetHand({ problem, layout }: SavedSheets): PlaneHand<SheetLayout, Spot> {
  const placed = (at: PlacedAt) => layout.sheets[at.sheet]?.placements[at.index];
  /** The panels that a drag takes along. */
  const moved = (from: Held) => {
    const source = "waiting" in from ? undefined : layout.sheets[from.sheet];
    return source && !("waiting" in from)
      ? movedTogether(source, from.index).map((i) => at(source.placements, i))
      : [];
  };
  const followed = (after: SheetLayout, from: PlacedAt, to: number): PlacedAt => {
    if (to === from.sheet) return from;
    const source = layout.sheets[from.sheet];
    const emptied = source && movedTogether(source, from.index).length === source.placements.length;
    const sheet = emptied && to > from.sheet ? to - 1 : to;
    return { sheet, index: (after.sheets[sheet]?.placements.length ?? 1) - 1 };
  };
  return {
    sheetCount: layout.sheets.length,
    stockSize: (stock) => at(problem.stock, stock),
    stockOf: (sheet) => at(layout.sheets, sheet).stock,
    pieceAt: (where) => placed(where)?.panel ?? null,
    isLocked: (where) => placed(where)?.locked ?? false,
    carried: (from) => ("waiting" in from ? at(problem.panels, from.waiting) : boxOf(moved(from))),
    spotAt: (from, target, [x, y], reach) => {
      const sheet: CutSheet = layout.sheets[target.sheet] ?? {
        stock: target.stock,
        placements: [],
        offcuts: [],
      };
      const source = "waiting" in from ? null : layout.sheets[from.sheet];
      const { length, width } = "waiting" in from ? at(problem.panels, from.waiting) : boxOf(moved(from));
      const except = source === sheet && "index" in from ? movedTogether(source, from.index) : [];
      const place = snapped(problem, sheet, { x, y, length, width }, { except, reach });
      return { ...target, ...place, rotated: moved(from)[0]?.rotated ?? false };
    },
    tried: (from, spot) =>
      "waiting" in from
        ? bringBack(problem, layout, from.waiting, spot)
        : movePanel(problem, layout, from, spot),
    knowingly: (spot) => ({ ...spot, against: true }),
    toSheet: (from, target) =>
      firstSpot(problem, layout, from, { ...target, rotated: moved(from)[0]?.rotated ?? false }),
    turned: (from) => {
      const box = boxOf(moved(from));
      const rotated = !(placed(from)?.rotated ?? false);
      const spot: Spot = { sheet: from.sheet, x: box.x, y: box.y, rotated };
      const changed = movePanel(problem, layout, from, spot);
      if (changed.ok || changed.problem.kind === "against") return { spot, changed };
      const elsewhere = firstSpot(problem, layout, from, { sheet: from.sheet, rotated });
      return elsewhere
        ? { spot, changed: { ok: true, value: elsewhere } }
        : "Turned, it finds no room on this sheet.";
    },
    turnedOver: null,
    pushed: (from, direction) => nextSpot(problem, layout, from, direction),
    aside: (from) => setAside(problem, layout, from),
    locked: (from, locked) => setLock(layout, from, locked),
    followed,
    broughtBack: (waiting, further) => {
      for (const where of everySheet(layout.sheets.length, further))
        for (const rotated of [false, true]) {
          const back = firstSpot(problem, layout, { waiting }, { ...where, rotated });
          if (back) return back;
        }
      return null;
    },
  };
}
