/**
 * Laying out free shapes: one after the other, each in the place nearest the start of the sheet that keeps it clear of all
 * others (bottom-left by no-fit polygons). Orders of shapes and of the stock that is begun are tried by chance from a seed,
 * starting with the largest first.
 */
import { crossesItself, type Polygon, type Vec2 } from "../../geometry";
import { at, invariant, type Random, seededRandom } from "../../kernel";
import type { UnplacedReason } from "../stock";
import {
  type NestingLayout,
  type NestingProblem,
  ownPolygon,
  type ShapePlacement,
  sizeOfShape,
  type UnplacedShape,
} from "./problem";
import { areaBound, areaOfShape, type BoundOf, isPriced, layoutOf } from "./result";
import { cornersOf, type Free, type Laid, Rooms, type Way } from "./room";
import { verifyNesting } from "./verify";

export type NestingOptions = {
  readonly seed: number;
  readonly now: () => number;
  readonly budgetMs: number;
  /** Orders that are tried; the budget may end them earlier. */
  readonly passes?: number;
  readonly onProgress?: (progress: { readonly best: NestingLayout }) => void;
};

/** Shapes of one kind and hand, with the ways in which they may lie. */
type Kind = {
  readonly shape: number;
  readonly area: number;
  /** The longer side of its box as it is drawn. */
  readonly longest: number;
  readonly ways: readonly Way[];
};

/** Lays shapes out on sheets. The problem must have been read by `ShapeProblemSchema`. */
export function layOutNesting(problem: NestingProblem, options: NestingOptions): NestingLayout {
  const rooms = new Rooms(problem);
  const { wanted, unplaced } = prepare(rooms);
  const random = seededRandom(options.seed);
  const deadline = options.now() + options.budgetMs;
  const timeIsUp = () => options.now() > deadline;
  const starts = startsOf(problem, wanted);
  let by = at(starts, 0);
  // Few ways at first: all of them take longer than anybody waits for a first answer.
  let best = placed(rooms, { ...by, order: by.order.map(byQuarters) });
  const told = (plan: Plan) => toLayout(problem, plan, unplaced);
  options.onProgress?.({ best: told(best) });
  for (let pass = 1; pass < (options.passes ?? 400) && !timeIsUp(); pass++) {
    if (isDone(problem, best, pass, starts.length)) break;
    // Every start once; then the best of them with shapes changed about.
    const next = pass <= starts.length ? at(starts, pass - 1) : { ...by, order: shuffled(by.order, random) };
    const plan = placed(rooms, next, timeIsUp);
    if (plan === null || compare(problem, plan, best) >= 0) continue;
    by = next;
    best = plan;
    options.onProgress?.({ best: told(best) });
  }
  const layout = told(best);
  const fault = verifyNesting(problem, layout);
  invariant(fault === null, `shape layout is not valid: ${fault}`);
  return layout;
}

/** An order of shapes and of the stock that is begun, and the way in which a sheet is filled: along its length or its width. */
type Start = {
  readonly order: readonly Kind[];
  readonly opening: readonly number[];
  readonly grow: "x" | "y";
};

/** Starts that are tried before chance: each order of stock, then shapes by area and by their longest side, along both ways. */
function startsOf(problem: NestingProblem, wanted: readonly Kind[]): readonly Start[] {
  const area = wanted.toSorted((a, b) => b.area - a.area || a.shape - b.shape);
  const longest = wanted.toSorted((a, b) => b.longest - a.longest || b.area - a.area || a.shape - b.shape);
  const [usual = [], ...others] = stockOrders(problem);
  return [
    { order: area, opening: usual, grow: "x" },
    ...others.map((opening): Start => ({ order: area, opening, grow: "x" })),
    { order: longest, opening: usual, grow: "x" },
    { order: area, opening: usual, grow: "y" },
    { order: longest, opening: usual, grow: "y" },
  ];
}

/** Nothing is left to gain: all on one sheet, after a few orders for a longer rest. */
const isDone = ({ stock }: NestingProblem, plan: Plan, pass: number, starts: number) =>
  plan.left.length === 0 && stock.length === 1 && plan.sheets.length <= 1 && pass > starts + 24;

/** As drawn and turned by quarters, not turned over; where that leaves nothing, all ways. */
function byQuarters(kind: Kind): Kind {
  const ways = kind.ways.filter(({ angle, mirrored }) => angle % 90 === 0 && !mirrored);
  return ways.length === 0 ? kind : { ...kind, ways };
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

/** Orders in which sizes of stock are begun: what costs least, what costs least for its area, and without the rack. */
function stockOrders(problem: NestingProblem): readonly (readonly number[])[] {
  const all = problem.stock.map((_, i) => i);
  const price = (i: number) => at(problem.stock, i).price ?? 0;
  const area = (i: number) => at(problem.stock, i).length * at(problem.stock, i).width;
  const isRack = (i: number) => at(problem.stock, i).rack !== null;
  const rackAhead = (a: number, b: number) => Number(isRack(b)) - Number(isRack(a));
  const orders = [
    all.toSorted((a, b) => rackAhead(a, b) || price(a) - price(b) || area(b) - area(a)),
    all.toSorted((a, b) => rackAhead(a, b) || price(a) / area(a) - price(b) / area(b)),
    ...(problem.rackFirst ? [] : [all.toSorted((a, b) => rackAhead(b, a) || price(a) - price(b))]),
  ];
  return orders.filter((one, i) => orders.findIndex((other) => other.join() === one.join()) === i);
}

/** So many are laid out at once: each takes milliseconds, and nobody waits for more. */
const MOST_PIECES = 5_000;

function prepare(rooms: Rooms): {
  readonly wanted: readonly Kind[];
  readonly unplaced: readonly UnplacedShape[];
} {
  const { problem } = rooms;
  const unplaced: UnplacedShape[] = [];
  const locked = lockedCounts(problem);
  let room = MOST_PIECES;
  const wanted = problem.shapes.flatMap(({ qty, opposite }, shape): Kind[] => {
    const fixed = at(locked, shape);
    const left = qty - fixed.plain - fixed.mirrored;
    if (left <= 0) return [];
    room -= left;
    if (room < 0) {
      unplaced.push({
        shape,
        qty: left,
        why: { kind: "tooMany", most: MOST_PIECES },
      });
      return [];
    }
    const polygon = ownPolygon(problem, shape, false);
    const area = areaOfShape(problem, shape);
    const { length, width } = sizeOfShape(problem, shape);
    const longest = Math.max(length, width);
    // One that goes out and comes back the same way crosses nothing, and encloses nothing either.
    if (area < 1e-6 || crossesItself(polygon)) {
      unplaced.push({
        shape,
        qty: left,
        why: { kind: "badOutline" },
      });
      return [];
    }
    const hands: readonly (readonly [number, readonly boolean[]])[] =
      opposite === null
        ? [[left, [false, true]]]
        : [
            [Math.max(0, qty - opposite - fixed.plain), [false]],
            [Math.max(0, opposite - fixed.mirrored), [true]],
          ];
    return hands.flatMap(([times, mirrored]) => {
      if (times === 0) return [];
      const ways = waysOf(rooms, shape, mirrored);
      const fits = ways.some((way) =>
        problem.stock.some((_, stock) => rooms.mayLie(stock, way) && rooms.inside(stock, way) !== null),
      );
      if (fits) return Array.from({ length: times }, (): Kind => ({ shape, area, longest, ways }));
      unplaced.push({ shape, qty: times, why: tooLarge(rooms, shape) });
      return [];
    });
  });
  return { wanted, unplaced };
}

/** Whether it is the grain alone that is in the way. */
function tooLarge(rooms: Rooms, shape: number): UnplacedReason {
  const { problem } = rooms;
  const turned = [0, 90].some((angle) =>
    problem.stock.some((_, stock) => rooms.inside(stock, rooms.way(shape, angle, false)) !== null),
  );
  return at(problem.shapes, shape).grain && turned ? { kind: "grainOnly" } : { kind: "tooLargeTurned" };
}

function lockedCounts(problem: NestingProblem) {
  const counts = problem.shapes.map(() => ({ plain: 0, mirrored: 0 }));
  for (const { placements } of problem.fixed)
    for (const { shape, mirrored } of placements) at(counts, shape)[mirrored ? "mirrored" : "plain"]++;
  return counts;
}

/** Ways that differ: a square has one, a right-angled gusset all of them. */
export function waysOf(rooms: Rooms, shape: number, hands: readonly boolean[]): readonly Way[] {
  const { step, shapes } = rooms.problem;
  const turns =
    step === 0 ? [0] : Array.from({ length: Math.max(1, Math.round(360 / step)) }, (_, i) => i * step);
  // With grain it lies along it: as drawn or by half a turn, or square to that on sheets whose grain runs across.
  const angles = at(shapes, shape).grain ? (step === 0 ? [0, 90] : [0, 90, 180, 270]) : turns;
  const known = new Set<string>();
  return hands
    .flatMap((mirrored) => angles.map((angle) => rooms.way(shape, angle, mirrored)))
    .filter((way) => {
      // Across the grain and along it are not the same way, even of a square.
      const key = `${at(shapes, shape).grain ? way.angle % 180 : ""}${fromLowCorner(way.outline)}`;
      return known.size < known.add(key).size;
    });
}

/** The corners of a polygon about the low corner of its box, in an order of their own. */
function fromLowCorner(outline: Polygon): string {
  const [x0, y0] = [Math.min(...outline.map(([x]) => x)), Math.min(...outline.map(([, y]) => y))];
  const written = ([x, y]: Vec2) => `${Math.round((x - x0) * 1000)},${Math.round((y - y0) * 1000)}`;
  return outline.map(written).sort().join(" ");
}

type Plan = {
  readonly sheets: readonly { readonly stock: number; readonly placements: readonly ShapePlacement[] }[];
  readonly left: readonly Kind[];
  /** How far the least filled sheet reaches, as a share of it. */
  readonly reach: number;
};

/** Fewest shapes left over, then cost, then the rack as it is wished, then sheets, then the longest rest. */
function compare(problem: NestingProblem, a: Plan, b: Plan): number {
  const sum = (plan: Plan, of: (stock: NestingProblem["stock"][number]) => number) =>
    plan.sheets.reduce((total, { stock }) => total + of(at(problem.stock, stock)), 0);
  const cost = (plan: Plan) => sum(plan, ({ price }) => price ?? 0);
  const rack = (plan: Plan) => sum(plan, (one) => (one.rack === null ? 0 : 1)) * (problem.rackFirst ? -1 : 1);
  return (
    a.left.length - b.left.length ||
    Math.round((cost(a) - cost(b)) * 1e4) ||
    rack(a) - rack(b) ||
    a.sheets.length - b.sheets.length ||
    Math.round((a.reach - b.reach) * 1e4)
  );
}

/** A sheet that is being filled, with what is free on it for each way as far as that was asked. */
class Filling {
  readonly stock: number;
  readonly laid: Laid[];
  readonly placements: ShapePlacement[];
  private readonly rooms: Rooms;
  private readonly known = new Map<number, { readonly seen: number; readonly free: Free }>();

  constructor(rooms: Rooms, stock: number, fixed: readonly ShapePlacement[] = []) {
    this.rooms = rooms;
    this.stock = stock;
    this.placements = fixed.map((one) => ({ ...one, locked: true }));
    this.laid = fixed.map((one) => rooms.laid(one));
  }

  /** Only what came to lie there since it was last asked is taken off. */
  private free(way: Way): Free {
    const { seen, free } = this.known.get(way.id) ?? { seen: 0, free: this.rooms.begin(this.stock, way) };
    const now = this.rooms.less(free, way, this.laid.slice(seen));
    this.known.set(way.id, { seen: this.laid.length, free: now });
    return now;
  }

  /** Lays a shape where it reaches least far along the way in which the sheet is filled, over all its ways; false: it has no room. */
  put({ ways }: Kind, grow: Start["grow"]): boolean {
    let best: (Laid & { readonly end: number; readonly low: number }) | null = null;
    for (const way of ways) {
      if (!this.rooms.mayLie(this.stock, way)) continue;
      for (const [x, y] of cornersOf(this.free(way))) {
        const [end, low] = grow === "x" ? [x + way.box.x1, y + way.box.y0] : [y + way.box.y1, x + way.box.x0];
        if (best !== null && (end > best.end + 1e-9 || (end > best.end - 1e-9 && low >= best.low - 1e-9)))
          continue;
        best = { way, x, y, end, low };
      }
    }
    if (best === null) return false;
    const { way, x, y } = best;
    this.laid.push({ way, x, y });
    const { shape, angle, mirrored } = way;
    this.placements.push({ shape, angle, x, y, ...(mirrored ? { mirrored } : {}) });
    return true;
  }

  /** How far it is filled, as a share of its length. */
  reach(): number {
    const { length } = at(this.rooms.problem.stock, this.stock);
    return Math.max(0, ...this.laid.map(({ way, x }) => x + way.box.x1)) / length;
  }
}

function placed(rooms: Rooms, start: Start): Plan;
function placed(rooms: Rooms, start: Start, timeIsUp: () => boolean): Plan | null;
function placed(rooms: Rooms, { order, opening, grow }: Start, timeIsUp?: () => boolean): Plan | null {
  const { stock, fixed } = rooms.problem;
  const sheets = fixed.map((one) => new Filling(rooms, one.stock, one.placements));
  const left: Kind[] = [];
  const begin = (kind: Kind): boolean => {
    for (const i of opening) {
      const { count } = at(stock, i);
      if (count !== null && sheets.filter((sheet) => sheet.stock === i).length >= count) continue;
      const fresh = new Filling(rooms, i);
      if (!fresh.put(kind, grow)) continue;
      sheets.push(fresh);
      return true;
    }
    return false;
  };
  for (const kind of order) {
    if (timeIsUp?.()) return null;
    if (!sheets.some((sheet) => sheet.put(kind, grow)) && !begin(kind)) left.push(kind);
  }
  return {
    sheets: sheets.map((sheet) => ({ stock: sheet.stock, placements: sheet.placements })),
    left,
    reach: sheets.length === 0 ? 0 : Math.min(...sheets.map((sheet) => sheet.reach())),
  };
}

function toLayout(
  problem: NestingProblem,
  { sheets, left }: Plan,
  none: readonly UnplacedShape[],
): NestingLayout {
  const short = [...new Set(left.map(({ shape }) => shape))].map((shape) => ({
    shape,
    qty: left.filter((one) => one.shape === shape).length,
    why: { kind: "usedUp" } as const,
  }));
  const area = sheets
    .flatMap(({ placements }) => placements)
    .reduce((sum, { shape }) => sum + areaOfShape(problem, shape), 0);
  const whole = area + left.reduce((sum, one) => sum + one.area, 0);
  const priced = isPriced(problem);
  const used = sheets.reduce((sum, { stock }) => {
    const { price, rack } = at(problem.stock, stock);
    return sum + (priced ? (price ?? 0) : rack === null ? 1 : 0);
  }, 0);
  const bound: BoundOf = {
    lowerBound: areaBound(problem, whole, used),
    lowerBoundOf: priced ? "cost" : "count",
  };
  return layoutOf(problem, sheets, { bound, unplaced: [...none, ...short] });
}
