/**
 * Shapes moved by hand: to another place or sheet, turned, turned over, locked, set aside and brought back. What is free for
 * a shape is known as a region, so that it slides along its neighbours with the gap kept and can be let go nowhere else.
 */
import { nearestOf, nearestOnEdges, norm2, type Polygon, subtract2, type Vec2 } from "../../geometry";
import { at, err, ok, type Result } from "../../kernel";
import { ASIDE, oneLess, oneMore } from "../stock";
import type { NestingLayout, NestingProblem, NestingSheet, ShapePlacement } from "./problem";
import { layoutOf } from "./result";
import { cornersOf, Rooms, ringsOf } from "./room";
import { nestingFault } from "./verify";

export type ShapeRefusal = {
  /** `against`: it could lie there if the grain is let be. */
  readonly kind: "against" | "off" | "taken" | "gone" | "hand";
  readonly message: string;
};
const refuse = (kind: ShapeRefusal["kind"], message: string) => err<ShapeRefusal>({ kind, message });

/** Which shape of a layout: its sheet and its place in the list of that sheet. */
export type ShapeAt = { readonly sheet: number; readonly index: number };

/** Where a shape is to lie. `stock` is needed for a sheet that is not in the layout yet. */
export type ShapeSpot = {
  readonly sheet: number;
  readonly stock?: number;
  readonly x: number;
  readonly y: number;
  readonly angle: number;
  readonly mirrored: boolean;
  readonly against?: boolean;
};

/** What is moved: a shape that lies somewhere, or one that waits. */
export type MovedShape = ShapeAt | { readonly waiting: number };

type Lifted = {
  readonly shape: number;
  readonly before: ShapePlacement | null;
  readonly layout: NestingLayout;
};

/** The layout without the shape that is moved. */
function lifted(layout: NestingLayout, from: MovedShape): Lifted | null {
  if ("waiting" in from) {
    const waiting = layout.unplaced.find((one) => one.shape === from.waiting);
    return waiting
      ? {
          shape: from.waiting,
          before: null,
          layout: { ...layout, unplaced: oneLess(layout.unplaced, waiting) },
        }
      : null;
  }
  const before = layout.sheets[from.sheet]?.placements[from.index];
  if (!before) return null;
  const sheets = layout.sheets.map((sheet, i) =>
    i === from.sheet ? { ...sheet, placements: sheet.placements.filter((_, k) => k !== from.index) } : sheet,
  );
  return { shape: before.shape, before, layout: { ...layout, sheets } };
}

/** The sheet that a spot names, or a further one of its stock; null: there is none left. */
function sheetOf(
  problem: NestingProblem,
  layout: NestingLayout,
  { sheet, stock }: { readonly sheet: number; readonly stock?: number },
): NestingSheet | null {
  const known = layout.sheets[sheet];
  if (known || stock === undefined) return known ?? null;
  const size = problem.stock[stock];
  const used = layout.sheets.filter((one) => one.stock === stock).length;
  return size && (size.count === null || used < size.count) ? { stock, placements: [], offcuts: [] } : null;
}

const SPOT_WORDS = {
  unknown: "This piece is no longer in the layout.",
  off: "It would lie off the sheet or in its margin.",
  against: "Its grain would run across that of the sheet.",
  taken: "There is no room: it would come nearer than the gap to a neighbour.",
} as const;

/** Moves a shape, or brings one back that waits; where it cannot lie there, says why. */
export function moveShape(
  problem: NestingProblem,
  layout: NestingLayout,
  from: MovedShape,
  spot: ShapeSpot,
): Result<NestingLayout, ShapeRefusal> {
  const up = lifted(layout, from);
  if (!up) return refuse("gone", "This piece is no longer in the layout.");
  const sheet = sheetOf(problem, up.layout, spot);
  if (!sheet) return refuse("gone", "There is no more sheet of that size in stock.");
  const { qty, opposite } = at(problem.shapes, up.shape);
  const ofHand = up.layout.sheets
    .flatMap(({ placements }) => placements)
    .filter((one) => one.shape === up.shape && (one.mirrored ?? false) === spot.mirrored).length;
  if (opposite !== null && ofHand >= (spot.mirrored ? opposite : qty - opposite))
    return refuse("hand", "Its good face must look up: turned over it would be the opposite hand.");
  const { x, y, angle, mirrored, against } = spot;
  const one: ShapePlacement = {
    shape: up.shape,
    angle,
    x,
    y,
    ...(mirrored ? { mirrored } : {}),
    ...(up.before?.locked || against ? { locked: true } : {}),
    ...(against ? { against: true } : {}),
  };
  const placements = [...sheet.placements];
  // On its own sheet a shape keeps its place in the list, so that whoever holds it still holds it.
  if ("index" in from && from.sheet === spot.sheet) placements.splice(from.index, 0, one);
  else placements.push(one);
  const fault = nestingFault(problem, sheet.stock, placements);
  if (fault) return refuse(fault.kind === "unknown" ? "gone" : fault.kind, SPOT_WORDS[fault.kind]);
  const filled = { ...sheet, placements };
  const sheets =
    spot.sheet < up.layout.sheets.length
      ? up.layout.sheets.map((other, i) => (i === spot.sheet ? filled : other))
      : [...up.layout.sheets, filled];
  return ok(layoutOf(problem, sheets, { bound: layout, unplaced: up.layout.unplaced }));
}

/** Sets a shape aside: it waits until it is brought back or filled in. */
export function setShapeAside(
  problem: NestingProblem,
  layout: NestingLayout,
  from: ShapeAt,
): Result<NestingLayout, ShapeRefusal> {
  const up = lifted(layout, from);
  if (!up) return refuse("gone", "This piece is no longer in the layout.");
  const { shape } = up;
  const unplaced = oneMore(layout.unplaced, { shape, qty: 1, why: ASIDE }, (one) => one.shape === shape);
  return ok(layoutOf(problem, up.layout.sheets, { bound: layout, unplaced }));
}

/** Locks a shape to its place, or lets it go; one that is let go lies with its grain again when it is filled in. */
export function setShapeLock(layout: NestingLayout, from: ShapeAt, locked: boolean): NestingLayout {
  const change = (one: ShapePlacement): ShapePlacement => {
    const { locked: _, ...open } = one;
    return locked ? { ...open, locked: true } : open;
  };
  return {
    ...layout,
    sheets: layout.sheets.map((sheet, i) =>
      i === from.sheet
        ? { ...sheet, placements: sheet.placements.map((one, k) => (k === from.index ? change(one) : one)) }
        : sheet,
    ),
  };
}

/** What a bench asks of one layout again and again while a shape is dragged: the no-fit polygons are remembered. */
export class NestingBench {
  private readonly rooms: Rooms;
  private readonly problem: NestingProblem;

  constructor(problem: NestingProblem) {
    this.problem = problem;
    this.rooms = new Rooms(problem, "round");
  }

  private freeOn(layout: NestingLayout, from: MovedShape, spot: Omit<ShapeSpot, "x" | "y">) {
    const up = lifted(layout, from);
    const sheet = up && sheetOf(this.problem, up.layout, spot);
    if (!up || !sheet) return null;
    const way = this.rooms.way(up.shape, spot.angle, spot.mirrored);
    const lying = sheet.placements.map((one) => this.rooms.laid(one));
    return { way, free: this.rooms.free(sheet.stock, way, lying), stock: sheet.stock };
  }

  /** The nearest place to the wanted one at which the shape may lie, if that is within `reach` mm; else the wanted one. */
  snapped(layout: NestingLayout, from: MovedShape, spot: ShapeSpot, reach: number): ShapeSpot {
    const found = this.freeOn(layout, from, spot);
    if (!found) return spot;
    const wanted: Vec2 = [spot.x, spot.y];
    const reached = (places: readonly Vec2[]): Vec2 | null => {
      if (places.length === 0) return null;
      const place = nearestOf(places, wanted);
      return norm2(subtract2(place, wanted)) <= reach ? place : null;
    };
    // Into a corner before along an edge.
    const near =
      reached(cornersOf(found.free)) ??
      reached(ringsOf(found.free).map((ring) => nearestOnEdges(ring, wanted)));
    return near ? { ...spot, x: near[0], y: near[1] } : spot;
  }

  /** The place nearest the start of a sheet; with `stock` a further sheet of it. */
  firstSpot(layout: NestingLayout, from: MovedShape, where: Omit<ShapeSpot, "x" | "y">): ShapeSpot | null {
    const found = this.freeOn(layout, from, where);
    if (!found || !this.rooms.mayLie(found.stock, found.way)) return null;
    const best = cornersOf(found.free).toSorted((a, b) => a[0] - b[0] || a[1] - b[1])[0];
    return best ? { ...where, x: best[0], y: best[1] } : null;
  }

  /** The first spot over all angles of the step, the present one first. */
  anySpot(layout: NestingLayout, from: MovedShape, where: Omit<ShapeSpot, "x" | "y">): ShapeSpot | null {
    const { step } = this.problem;
    const count = step === 0 ? 1 : Math.round(360 / step);
    for (let i = 0; i < count; i++) {
      const spot = this.firstSpot(layout, from, { ...where, angle: (where.angle + i * step) % 360 });
      if (spot) return spot;
    }
    return null;
  }

  /**
   * Where a shape comes to when it is pushed one way: on until something stops it, or, where it stands against something
   * already, to the next place behind that.
   */
  nextSpot(layout: NestingLayout, from: ShapeAt, [dx, dy]: Vec2): ShapeSpot | null {
    const one = layout.sheets[from.sheet]?.placements[from.index];
    if (!one) return null;
    const spot: ShapeSpot = { ...one, sheet: from.sheet, mirrored: one.mirrored ?? false };
    const found = this.freeOn(layout, from, spot);
    if (!found) return null;
    const start: Vec2 = [one.x, one.y];
    const along = ringsOf(found.free)
      .flatMap((ring) => crossings(ring, start, [dx, dy]))
      .filter((distance) => distance > 0.002)
      .sort((a, b) => a - b);
    const fits = (distance: number) => {
      const to: ShapeSpot = { ...spot, x: start[0] + dx * distance, y: start[1] + dy * distance };
      const kept = { ...to, ...(one.against ? { against: true } : {}) };
      return moveShape(this.problem, layout, from, kept).ok ? kept : null;
    };
    // The way ahead is free up to the first edge of a region, or begins again at one that follows.
    for (const distance of along) {
      const to = fits(distance);
      if (to) return to;
    }
    return null;
  }
}

/** How far along a direction (of length one, along x or y) the edges of a ring are met. */
function crossings(ring: Polygon, [x, y]: Vec2, [dx, dy]: Vec2): readonly number[] {
  return ring.flatMap(([ax, ay], i): readonly number[] => {
    const [bx, by] = at(ring, (i + 1) % ring.length);
    // How far the two ends lie beside the ray. An edge that runs along it is met where its neighbours meet it.
    const [p, q] = [(ax - x) * dy - (ay - y) * dx, (bx - x) * dy - (by - y) * dx];
    const ahead = (px: number, py: number) => (px - x) * dx + (py - y) * dy;
    if (p * q > 0 || p === q) return [];
    const t = p / (p - q);
    return [ahead(ax + t * (bx - ax), ay + t * (by - ay))];
  });
}
