/**
 * Laying out free shapes: one after the other, each in the place nearest the start of the sheet that keeps it clear of all
 * others. Where a shape may lie is the room inside the sheet less the no-fit polygons of those that lie already (the
 * Minkowski sum of the one, grown by the gap, and the other turned about; Clipper 2 does the polygons). Orders are tried by
 * chance from a seed, starting with the largest first.
 */
import { Clipper, EndType, FillRule, JoinType, type Path64, type Paths64 } from "clipper2-ts";
import { at, invariant, type Random, seededRandom } from "../../kernel";
import { areaOf, boxOf, crossesItself, type Outline, turned } from "./outline";
import type { ShapeLayout, ShapePlacement, ShapeProblem, ShapeSheet, UnplacedShape } from "./problem";
import { verifyShapes } from "./verify";

export type ShapeOptions = {
  readonly seed: number;
  readonly now: () => number;
  readonly budgetMs: number;
  /** Orders that are tried; the budget may end them earlier. */
  readonly passes?: number;
  readonly onProgress?: (progress: { readonly best: ShapeLayout }) => void;
};

/** Clipper works on whole numbers: thousandths of a millimetre. */
const UNIT = 1000;
/** Arcs round corners are drawn outside the true ones by this at most, in mm. */
const ARC = 0.02;

type Turned = { readonly angle: number; readonly outline: Outline; readonly path: Path64 };
type Kind = { readonly shape: number; readonly area: number; readonly ways: readonly Turned[] };

/** Lays shapes out on sheets. The problem must have been read by `ShapeProblemSchema`. */
export function layOutShapes(problem: ShapeProblem, options: ShapeOptions): ShapeLayout {
  const { kinds, unplaced } = prepare(problem);
  const random = seededRandom(options.seed);
  const deadline = options.now() + options.budgetMs;
  const timeIsUp = () => options.now() > deadline;
  const bySize = kinds.flatMap((kind) =>
    Array.from({ length: at(problem.shapes, kind.shape).qty }, () => kind),
  );
  bySize.sort((a, b) => b.area - a.area || a.shape - b.shape);
  const bound = lowerBound(problem, bySize);
  const placer = new Placer(problem);
  let order = bySize;
  let best = placer.place(order);
  const told = () => toLayout(problem, best, { bound, unplaced });
  options.onProgress?.({ best: told() });
  for (let pass = 1; pass < (options.passes ?? 200) && !timeIsUp(); pass++) {
    if (best.left.length === 0 && best.sheets.length <= 1 && pass > 8) break;
    const next = shuffled(order, random);
    const plan = placer.place(next, timeIsUp);
    if (plan === null || compare(problem, plan, best) >= 0) continue;
    order = next;
    best = plan;
    options.onProgress?.({ best: told() });
  }
  const layout = told();
  const fault = verifyShapes(problem, layout);
  invariant(fault === null, `shape layout is not valid: ${fault}`);
  return layout;
}

/** A few neighbours changed about. */
function shuffled(order: readonly Kind[], random: Random): Kind[] {
  const next = [...order];
  for (let swaps = 1 + random.below(4); swaps > 0 && next.length > 1; swaps--) {
    const i = random.below(next.length);
    const [one] = next.splice(i, 1);
    if (one) next.splice(random.below(next.length + 1), 0, one);
  }
  return next;
}

function prepare(problem: ShapeProblem) {
  const unplaced: UnplacedShape[] = [];
  const kinds = problem.shapes.flatMap(({ outline, qty, grain }, shape): Kind[] => {
    if (qty === 0) return [];
    const forwards = areaOf(outline) < 0 ? [...outline].reverse() : outline;
    const area = Math.abs(areaOf(outline));
    if (area < 1e-6 || crossesItself(outline)) {
      unplaced.push({ shape, qty, why: "its outline crosses itself or encloses nothing; draw it anew" });
      return [];
    }
    const angles = anglesOf(problem.step).filter((angle) => !grain || angle % 180 === 0);
    const ways = angles.map((angle): Turned => {
      const own = turned(forwards, angle);
      return { angle, outline: own, path: pathOf(own) };
    });
    const fits = ways.some(({ outline: own }) => problem.stock.some((sheet) => holds(problem, sheet, own)));
    if (fits) return [{ shape, area, ways }];
    unplaced.push({ shape, qty, why: "larger than every sheet, however it is turned" });
    return [];
  });
  return { kinds, unplaced };
}

const anglesOf = (step: number): readonly number[] =>
  step === 0 ? [0] : Array.from({ length: Math.max(1, Math.round(360 / step)) }, (_, i) => i * step);

function holds({ margin }: ShapeProblem, sheet: ShapeProblem["stock"][number], outline: Outline): boolean {
  const { x0, y0, x1, y1 } = boxOf(outline);
  return x1 - x0 <= sheet.length - 2 * margin + 1e-9 && y1 - y0 <= sheet.width - 2 * margin + 1e-9;
}

const pathOf = (outline: Outline): Path64 =>
  outline.map(([x, y]) => ({ x: Math.round(x * UNIT), y: Math.round(y * UNIT) }));

type Plan = {
  readonly sheets: readonly ShapeSheet[];
  readonly left: readonly Kind[];
  readonly reach: number;
};

/** Fewest shapes left over, then cost, then sheets, then how far the last one is used. */
function compare(problem: ShapeProblem, a: Plan, b: Plan): number {
  const cost = (plan: Plan) =>
    plan.sheets.reduce((sum, { stock }) => sum + (at(problem.stock, stock).price ?? 0), 0);
  return (
    a.left.length - b.left.length ||
    cost(a) - cost(b) ||
    a.sheets.length - b.sheets.length ||
    Math.round(a.reach - b.reach)
  );
}

type Lying = ShapePlacement & { readonly kind: Kind; readonly way: number };

class Placer {
  private readonly problem: ShapeProblem;
  /** No-fit polygons by the two shapes and their turns. */
  private readonly noFit = new Map<string, Paths64>();

  constructor(problem: ShapeProblem) {
    this.problem = problem;
  }

  /** Places shapes in an order. */
  place(order: readonly Kind[]): Plan;
  place(order: readonly Kind[], timeIsUp: () => boolean): Plan | null;
  place(order: readonly Kind[], timeIsUp?: () => boolean): Plan | null {
    const sheets: { stock: number; lying: Lying[] }[] = [];
    const left: Kind[] = [];
    for (const kind of order) {
      if (timeIsUp?.()) return null;
      if (!this.put(kind, sheets)) left.push(kind);
    }
    const last = sheets.at(-1)?.lying ?? [];
    const reach = Math.max(0, ...last.map((one) => one.x + boxOf(at(one.kind.ways, one.way).outline).x1));
    return {
      sheets: sheets.map(({ stock, lying }) => ({
        stock,
        placements: lying.map(({ shape, angle, x, y }) => ({ shape, angle, x, y })),
      })),
      left,
      reach,
    };
  }

  private put(kind: Kind, sheets: { stock: number; lying: Lying[] }[]): boolean {
    for (const sheet of sheets) {
      const spot = this.spot(kind, sheet);
      if (!spot) continue;
      sheet.lying.push(spot);
      return true;
    }
    const { stock } = this.problem;
    const used = (i: number) => sheets.filter((sheet) => sheet.stock === i).length;
    const free = stock
      .map((_, i) => i)
      .filter((i) => at(stock, i).count === null || used(i) < (at(stock, i).count ?? 0))
      .sort((a, b) => (at(stock, a).price ?? 0) - (at(stock, b).price ?? 0));
    for (const i of free) {
      const fresh = { stock: i, lying: [] as Lying[] };
      const spot = this.spot(kind, fresh);
      if (!spot) continue;
      fresh.lying.push(spot);
      sheets.push(fresh);
      return true;
    }
    return false;
  }

  /** The place nearest the start of the sheet, over all turns. */
  private spot(kind: Kind, { stock, lying }: { stock: number; lying: readonly Lying[] }): Lying | null {
    let best: (Lying & { readonly end: number }) | null = null;
    kind.ways.forEach((way, w) => {
      const room = this.room(stock, way.outline);
      if (!room) return;
      const point = lying.length === 0 ? room[0] : this.nearest(room, lying, kind, w);
      if (!point) return;
      const [x, y] = [point.x / UNIT, point.y / UNIT];
      const end = x + boxOf(way.outline).x1;
      if (best !== null && (end > best.end + 1e-9 || (end > best.end - 1e-9 && y >= best.y))) return;
      best = { shape: kind.shape, angle: way.angle, x, y, kind, way: w, end };
    });
    return best;
  }

  /** Where the origin of a shape may lie for it to be inside the sheet: a rectangle, low corner first. */
  private room(stock: number, outline: Outline): Path64 | null {
    const { length, width } = at(this.problem.stock, stock);
    const { margin } = this.problem;
    const { x0, y0, x1, y1 } = boxOf(outline);
    // Rounded inwards, but for what double noise makes of an exact fit.
    const low = (value: number) => Math.ceil(value * UNIT - 0.01);
    const high = (value: number) => Math.floor(value * UNIT + 0.01);
    const [ax, ay, bx, by] = [
      low(margin - x0),
      low(margin - y0),
      high(length - margin - x1),
      high(width - margin - y1),
    ];
    if (bx < ax || by < ay) return null;
    return [
      { x: ax, y: ay },
      { x: bx, y: ay },
      { x: bx, y: by },
      { x: ax, y: by },
    ];
  }

  private nearest(room: Path64, lying: readonly Lying[], kind: Kind, way: number) {
    const blocked = lying.flatMap((one) =>
      Clipper.translatePaths(
        this.noFitOf(one.kind, one.way, kind, way),
        Math.round(one.x * UNIT),
        Math.round(one.y * UNIT),
      ),
    );
    // A room without height or length has no area to subtract from: its corners are tried themselves.
    const [low, , far] = room;
    if (!low || !far) return null;
    const flat = low.x === far.x || low.y === far.y;
    const free = flat ? [] : Clipper.difference([room], blocked, FillRule.NonZero);
    const corners = flat ? room.filter((point) => !this.isBlocked(point, blocked)) : free.flat();
    return corners.reduce<Path64[number] | null>(
      (found, point) =>
        found === null || point.x < found.x || (point.x === found.x && point.y < found.y) ? point : found,
      null,
    );
  }

  private isBlocked(point: Path64[number], blocked: Paths64): boolean {
    // Inside counts as blocked, the edge does not: 1 is inside, 0 on the edge, 2 outside.
    return blocked.some((path) => Clipper.pointInPolygon(point, path) === 1);
  }

  /** Positions of `b` about the origin of `a` at which they would come nearer than the gap. */
  private noFitOf(a: Kind, wayA: number, b: Kind, wayB: number): Paths64 {
    const key = `${a.shape}.${wayA}.${b.shape}.${wayB}`;
    const known = this.noFit.get(key);
    if (known) return known;
    const fixed = at(a.ways, wayA).path;
    const { gap } = this.problem;
    // A hair more than the gap, for the rounding to whole thousandths.
    const grown =
      gap === 0
        ? [fixed]
        : Clipper.inflatePaths([fixed], (gap + ARC) * UNIT, JoinType.Round, EndType.Polygon, 2, ARC * UNIT);
    const about = at(b.ways, wayB).path.map(({ x, y }) => ({ x: -x, y: -y }));
    const sums = grown.flatMap((path) => Clipper.minkowskiSum(about, path, true));
    // Holes of the sum are places inside the fixed shape, or pockets that are given up.
    const solid = Clipper.union(sums, FillRule.NonZero).filter((path) => Clipper.area(path) > 0);
    this.noFit.set(key, solid);
    return solid;
  }
}

function lowerBound(problem: ShapeProblem, all: readonly Kind[]): number {
  const area = all.reduce((sum, kind) => sum + kind.area, 0);
  const largest = Math.max(
    0,
    ...problem.stock.map(({ length, width }) =>
      Math.max(0, (length - 2 * problem.margin) * (width - 2 * problem.margin)),
    ),
  );
  return largest === 0 ? 0 : Math.ceil(area / largest - 1e-9);
}

function toLayout(
  problem: ShapeProblem,
  { sheets, left }: Plan,
  { bound, unplaced }: { readonly bound: number; readonly unplaced: readonly UnplacedShape[] },
): ShapeLayout {
  const prices = sheets.map(({ stock }) => at(problem.stock, stock).price);
  const short = [...new Set(left.map(({ shape }) => shape))].map((shape) => ({
    shape,
    qty: left.filter((one) => one.shape === shape).length,
    why: "the limited stock is used up",
  }));
  const areas = problem.shapes.map(({ outline }) => Math.abs(areaOf(outline)));
  const used = sheets
    .flatMap(({ placements }) => placements)
    .reduce((sum, one) => sum + at(areas, one.shape), 0);
  const whole = sheets.reduce((sum, { stock }) => {
    const { length, width } = at(problem.stock, stock);
    return sum + length * width;
  }, 0);
  const all = [...unplaced, ...short];
  return {
    sheets,
    count: sheets.length,
    cost: prices.some((price) => price === null)
      ? null
      : prices.reduce<number>((sum, price) => sum + (price ?? 0), 0),
    lowerBound: bound,
    proven: all.length === 0 && problem.stock.length === 1 && sheets.length <= bound,
    utilisation: whole === 0 ? 0 : used / whole,
    unplaced: all,
  };
}
