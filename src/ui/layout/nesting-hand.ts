/** Sheets whose pieces are cut along their outlines, as a bench moves them. */
import { boxOfPoints, type Vec2 } from "@/core/geometry";
import { at } from "@/core/kernel";
import type { SavedNesting } from "@/core/layout";
import {
  lyingOutline,
  moveShape,
  NestingBench,
  type NestingLayout,
  type ShapePlacement,
  type ShapeSpot,
  setShapeAside,
  setShapeLock,
} from "@/core/layout/nesting";
import {
  type Direction,
  everySheet,
  type Held,
  type PlacedAt,
  type PlaneHand,
  type Tried,
} from "./plane-hand";

const WAYS: Readonly<Record<Direction, Vec2>> = {
  left: [-1, 0],
  right: [1, 0],
  // Drawn with y upwards.
  up: [0, 1],
  down: [0, -1],
};

type Posture = Pick<ShapeSpot, "angle" | "mirrored">;

export function shapeHand({ problem, layout }: SavedNesting): PlaneHand<NestingLayout, ShapeSpot> {
  const bench = new NestingBench(problem);
  const placed = (where: PlacedAt) => layout.sheets[where.sheet]?.placements[where.index];
  const posture = (from: Held): Posture => {
    const one = "waiting" in from ? undefined : placed(from);
    return { angle: one?.angle ?? 0, mirrored: one?.mirrored ?? false };
  };
  const boxIn = (from: Held, how: Posture = posture(from)) => {
    const shape = "waiting" in from ? from.waiting : (placed(from)?.shape ?? 0);
    return boxOfPoints(lyingOutline(problem, { shape, x: 0, y: 0, ...how }));
  };
  const followed = (after: NestingLayout, from: PlacedAt, to: number): PlacedAt => {
    if (to === from.sheet) return from;
    const emptied = layout.sheets[from.sheet]?.placements.length === 1;
    const sheet = emptied && to > from.sheet ? to - 1 : to;
    return { sheet, index: (after.sheets[sheet]?.placements.length ?? 1) - 1 };
  };
  const moved = (from: Held, spot: ShapeSpot | null): NestingLayout | null => {
    const changed = spot && moveShape(problem, layout, from, spot);
    return changed?.ok ? changed.value : null;
  };
  /** The shape the other way, its middle where it was: there, at the nearest place beside it, or anywhere on its sheet. */
  const changedAbout = (
    from: PlacedAt,
    one: ShapePlacement,
    how: Posture,
  ): Tried<NestingLayout, ShapeSpot> | string => {
    const [was, will] = [boxIn(from), boxIn(from, how)];
    const spot: ShapeSpot = {
      ...how,
      sheet: from.sheet,
      x: one.x + (was.x0 + was.x1) / 2 - (will.x0 + will.x1) / 2,
      y: one.y + (was.y0 + was.y1) / 2 - (will.y0 + will.y1) / 2,
    };
    const size = Math.max(was.x1 - was.x0, was.y1 - was.y0);
    const near = bench.snapped(layout, from, spot, size);
    for (const place of [spot, near]) {
      const changed = moveShape(problem, layout, from, place);
      if (changed.ok || changed.problem.kind === "against" || changed.problem.kind === "hand")
        return { spot: place, changed };
    }
    const first = bench.firstSpot(layout, from, { ...how, sheet: from.sheet });
    const changed = first && moveShape(problem, layout, from, first);
    return first && changed ? { spot: first, changed } : "Turned, it finds no room on this sheet.";
  };
  return {
    sheetCount: layout.sheets.length,
    stockSize: (stock) => at(problem.stock, stock),
    stockOf: (sheet) => at(layout.sheets, sheet).stock,
    pieceAt: (where) => placed(where)?.shape ?? null,
    isLocked: (where) => placed(where)?.locked ?? false,
    carried: (from) => {
      const { x0, y0, x1, y1 } = boxIn(from);
      return { length: x1 - x0, width: y1 - y0 };
    },
    spotAt: (from, target, [x, y], reach) => {
      const { x0, y0 } = boxIn(from);
      return bench.snapped(layout, from, { ...target, ...posture(from), x: x - x0, y: y - y0 }, reach);
    },
    tried: (from, spot) => moveShape(problem, layout, from, spot),
    knowingly: (spot) => ({ ...spot, against: true }),
    toSheet: (from, target) => moved(from, bench.anySpot(layout, from, { ...target, ...posture(from) })),
    turned: (from) => {
      const one = placed(from);
      if (!one) return "This piece is no longer in the layout.";
      if (problem.step === 0) return "The settings of this stock allow no rotation.";
      return changedAbout(from, one, { ...posture(from), angle: (one.angle + problem.step) % 360 });
    },
    turnedOver: (from) => {
      const one = placed(from);
      return one
        ? changedAbout(from, one, { ...posture(from), mirrored: !one.mirrored })
        : "This piece is no longer in the layout.";
    },
    pushed: (from, direction) => moved(from, bench.nextSpot(layout, from, WAYS[direction])),
    aside: (from) => setShapeAside(problem, layout, from),
    locked: (from, locked) => setShapeLock(layout, from, locked),
    followed,
    broughtBack: (waiting, further) => {
      for (const where of everySheet(layout.sheets.length, further))
        for (const mirrored of [false, true]) {
          const back = moved(
            { waiting },
            bench.anySpot(layout, { waiting }, { ...where, angle: 0, mirrored }),
          );
          if (back) return back;
        }
      return null;
    },
  };
}
