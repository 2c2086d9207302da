/**
 * Sheet layouts: a shelf first-fit as the floor that nobody sees anything worse than, then sheet after
 * sheet by beam search with values that rise for panels on poor sheets, then a neighbourhood search that
 * empties sheets, then the last sheet squeezed together so that its rest is one large offcut.
 * Deterministic for the same input, seed and number of passes; the deadline only ends it early.
 */
import { at, fromNm, invariant, type Random, seededRandom, toNm } from "../../kernel";
import { sheetBound } from "./bound";
import { fillSheet, type PlacedBlock, type SheetFill } from "./fill";
import {
  type CutSheet,
  type Offcut,
  type Placement,
  prepare,
  type SheetInstance,
  type SheetLayout,
  type SheetProblem,
  type UnplacedPanel,
} from "./problem";
import { verifySheets } from "./verify";

export type SheetProgress = { readonly best: SheetLayout };

export type SheetOptions = {
  readonly seed: number;
  readonly now: () => number;
  readonly budgetMs: number;
  /** Passes of price correction and of neighbourhood search; the budget may end them earlier. */
  readonly passes?: number;
  readonly onProgress?: (progress: SheetProgress) => void;
};

type Plan = { readonly sheets: readonly SheetFill[]; readonly rest: readonly number[] };

/** Lays panels out on sheets. The problem must have been read by `SheetProblemSchema`. */
export function layOutSheets(problem: SheetProblem, options: SheetOptions): SheetLayout {
  const { instance, unplaced } = prepare(problem);
  const layout = new SheetSearch(problem, instance, unplaced, options).run();
  const fault = verifySheets(problem, layout);
  invariant(fault === null, `sheet layout is not valid: ${fault}`);
  return layout;
}

const DEFAULT_PASSES = 60;

class SheetSearch {
  private readonly problem: SheetProblem;
  private readonly instance: SheetInstance;
  private readonly unplaced: readonly UnplacedPanel[];
  private readonly options: SheetOptions;
  private readonly random: Random;
  private readonly deadline: number;
  private bound = 0;
  private best: Plan;

  constructor(
    problem: SheetProblem,
    instance: SheetInstance,
    unplaced: readonly UnplacedPanel[],
    options: SheetOptions,
  ) {
    this.problem = problem;
    this.instance = instance;
    this.unplaced = unplaced;
    this.options = options;
    this.random = seededRandom(options.seed);
    this.deadline = options.now() + options.budgetMs;
    this.best = { sheets: [], rest: instance.classes.map((one) => one.demand) };
  }

  private readonly timeIsUp = () => this.options.now() > this.deadline;

  run(): SheetLayout {
    const { instance } = this;
    if (instance.classes.length === 0) return this.layout();
    this.best = this.fillAll(null, 1, 0);
    this.offer(this.fillAll(null, 16, 0));
    this.raiseBound();
    this.options.onProgress?.({ best: this.layout() });
    const passes = this.options.passes ?? DEFAULT_PASSES;
    this.correctPrices(passes);
    this.searchNeighbours(passes * 4);
    this.squeezeLast();
    return this.layout();
  }

  /** A bound stands only on a layout that places everything: its cost is where the search for one ends. */
  private raiseBound(): void {
    if (this.bound === 0 && isServed(this.best))
      this.bound = sheetBound(this.instance, costOf(this.instance, this.best));
  }

  private isProven(): boolean {
    return isServed(this.best) && costOf(this.instance, this.best) <= this.bound;
  }

  private offer(plan: Plan): boolean {
    if (comparePlans(this.instance, plan, this.best) >= 0) return false;
    const cheaper = costOf(this.instance, plan) < costOf(this.instance, this.best);
    this.best = plan;
    this.raiseBound();
    if (cheaper) this.options.onProgress?.({ best: this.layout() });
    return true;
  }

  /** Sheet after sheet, each time the type that gives the most area for its cost. */
  private fillAll(values: readonly number[] | null, width: number, noise: number): Plan {
    return fillPlan(
      this.instance,
      this.instance.classes.map((one) => one.demand),
      this.freshStock(),
      {
        values,
        width,
        noise,
        random: this.random,
      },
    );
  }

  private freshStock(): number[] {
    return this.instance.types.map((type) => type.available);
  }

  /** Panels that ended on poor sheets are worth more the next time, so they are placed earlier. */
  private correctPrices(passes: number): void {
    const { classes } = this.instance;
    let values = classes.map((one) => one.area);
    for (let pass = 0; pass < passes && !this.isProven() && !this.timeIsUp(); pass++) {
      if (pass % 8 === 0) {
        const bias = this.random.next() * 0.3;
        values = classes.map((one) => one.area ** (1 + bias));
      }
      const plan = this.fillAll(values, this.width(), 0.03);
      this.offer(plan);
      const mean =
        plan.sheets.reduce((sum, sheet) => sum + fillRate(this.instance, sheet), 0) /
        Math.max(1, plan.sheets.length);
      values = values.map((value, c) => {
        const poor = plan.sheets.filter(
          (sheet) => at(sheet.placed, c) > 0 && fillRate(this.instance, sheet) < mean,
        );
        return poor.length > 0
          ? value * (1 + 0.15 * (mean - Math.min(...poor.map((sheet) => fillRate(this.instance, sheet)))))
          : value;
      });
    }
  }

  /** Beam width: wide for small jobs, narrow for large ones, so that a pass takes a like time. */
  private width(): number {
    const panels = this.instance.classes.reduce((sum, one) => sum + one.demand, 0);
    return Math.max(
      6,
      Math.min(
        64,
        Math.round((4000 / Math.max(1, panels)) * (12 / Math.max(1, this.instance.classes.length))),
      ),
    );
  }

  /** The emptiest sheet and one to three others are laid out anew; a better sum of squared fillings is kept. */
  private searchNeighbours(rounds: number): void {
    for (let round = 0; round < rounds && !this.isProven() && !this.timeIsUp(); round++) {
      const { sheets } = this.best;
      if (sheets.length < 2) return;
      const order = sheets
        .map((_, i) => i)
        .sort(
          (a, b) => fillRate(this.instance, at(sheets, a)) - fillRate(this.instance, at(sheets, b)) || a - b,
        );
      const chosen = new Set([at(order, round % 3 === 0 ? Math.min(1, order.length - 1) : 0)]);
      const wanted = Math.min(sheets.length, 2 + this.random.below(3));
      while (chosen.size < wanted) chosen.add(this.random.below(sheets.length));
      this.relay(chosen);
    }
  }

  private relay(chosen: ReadonlySet<number>): void {
    const kept = this.best.sheets.filter((_, i) => !chosen.has(i));
    const taken = this.best.sheets.filter((_, i) => chosen.has(i));
    const rest = this.instance.classes.map((_, c) =>
      taken.reduce((sum, sheet) => sum + at(sheet.placed, c), at(this.best.rest, c)),
    );
    const stock = this.freshStock().map(
      (available, t) => available - kept.filter((sheet) => sheet.type === t).length,
    );
    const bias = this.random.next() * 0.4;
    const values = this.instance.classes.map((one) => one.area ** (1 + bias));
    const again = fillPlan(this.instance, rest, stock, {
      values,
      width: this.width() * 2,
      noise: 0.05,
      random: this.random,
    });
    this.offer({ sheets: [...kept, ...again.sheets], rest: again.rest });
  }

  /** The emptiest sheet is laid out on ever less of its width or its length: what is left is one piece. */
  private squeezeLast(): void {
    const { sheets } = this.best;
    if (sheets.length === 0) return;
    const emptiest = sheets
      .map((_, i) => i)
      .reduce((a, b) =>
        fillRate(this.instance, at(sheets, b)) < fillRate(this.instance, at(sheets, a)) ? b : a,
      );
    const sheet = at(sheets, emptiest);
    const squeezed = (["width", "length"] as const)
      .map((side) => this.squeezed(sheet, side))
      .filter((fill) => fill !== null)
      .sort((a, b) => largestRest(b) - largestRest(a))[0];
    if (!squeezed || largestRest(squeezed) <= largestRest(sheet)) return;
    this.best = { ...this.best, sheets: sheets.map((one, i) => (i === emptiest ? squeezed : one)) };
  }

  private squeezed(sheet: SheetFill, side: "width" | "length"): SheetFill | null {
    const type = at(this.instance.types, sheet.type);
    let [low, high] = [0, type[side]];
    let found: SheetFill | null = null;
    for (let step = 0; step < 12 && !this.timeIsUp(); step++) {
      const middle = Math.floor((low + high) / 2);
      const size = { length: type.length, width: type.width, [side]: middle };
      const fill = fillSheet(this.instance, sheet.type, sheet.placed, {
        width: this.width() * 2,
        values: null,
        stages: side === "width" ? this.instance.stages : this.instance.stages - 2,
        random: this.random,
        noise: 0.02,
        size,
      });
      if (fill.placed.every((count, c) => count === at(sheet.placed, c))) {
        found = { ...fill, waste: [...fill.waste, restOf(type, size, side)] };
        high = middle;
      } else low = middle;
    }
    return found;
  }

  private layout(): SheetLayout {
    return toLayout(this.problem, this.instance, this.best, {
      bound: this.bound,
      proven: this.isProven(),
      unplaced: this.unplaced,
    });
  }
}

type Rest = SheetFill["waste"][number];

function restOf(
  type: { length: number; width: number },
  size: { length: number; width: number },
  side: "width" | "length",
): Rest {
  return side === "width"
    ? { x: 0, y: size.width, length: type.length, width: type.width - size.width, run: 1 }
    : { x: size.length, y: 0, length: type.length - size.length, width: type.width, run: 2 };
}

type FillRule = {
  readonly values: readonly number[] | null;
  readonly width: number;
  readonly noise: number;
  readonly random: Random;
};

function fillPlan(instance: SheetInstance, demand: readonly number[], stock: number[], rule: FillRule): Plan {
  const rest = [...demand];
  const sheets: SheetFill[] = [];
  while (rest.some((count) => count > 0)) {
    let best: { readonly fill: SheetFill; readonly score: number } | null = null;
    for (let type = 0; type < instance.types.length; type++) {
      if (at(stock, type) <= 0) continue;
      const fill = fillSheet(instance, type, rest, { ...rule, stages: instance.stages });
      if (fill.area === 0) continue;
      // Cost per area placed; the tiny share of sheet area lets the smaller of two free sheets win.
      const score =
        (at(instance.types, type).cost +
          1e-18 * at(instance.types, type).length * at(instance.types, type).width) /
        fill.area;
      if (best === null || score < best.score) best = { fill, score };
    }
    if (!best) break;
    best.fill.placed.forEach((count, c) => {
      rest[c] = at(rest, c) - count;
    });
    stock[best.fill.type] = at(stock, best.fill.type) - 1;
    sheets.push(best.fill);
  }
  return { sheets, rest };
}

const isServed = (plan: Plan) => plan.rest.every((count) => count === 0);
const costOf = (instance: SheetInstance, plan: Plan) =>
  plan.sheets.reduce((sum, sheet) => sum + at(instance.types, sheet.type).cost, 0);
const fillRate = (instance: SheetInstance, sheet: SheetFill) =>
  sheet.area / (at(instance.types, sheet.type).length * at(instance.types, sheet.type).width);
const largestRest = (sheet: SheetFill) => Math.max(0, ...sheet.waste.map((rect) => rect.length * rect.width));

/** What is left unplaced first, then cost, then fullness of the full sheets (so that the last one empties). */
function comparePlans(instance: SheetInstance, a: Plan, b: Plan): number {
  const left = (plan: Plan) =>
    plan.rest.reduce((sum, count, c) => sum + count * at(instance.classes, c).area, 0);
  const unplaced = left(a) - left(b);
  if (unplaced !== 0) return unplaced;
  const cost = costOf(instance, a) - costOf(instance, b);
  if (cost !== 0) return cost;
  const squares = (plan: Plan) => plan.sheets.reduce((sum, sheet) => sum + fillRate(instance, sheet) ** 2, 0);
  return squares(b) - squares(a);
}

type Outcome = {
  readonly bound: number;
  readonly proven: boolean;
  readonly unplaced: readonly UnplacedPanel[];
};

function toLayout(problem: SheetProblem, instance: SheetInstance, plan: Plan, outcome: Outcome): SheetLayout {
  const queues = instance.classes.map((one) => [...one.panels]);
  const sheets = plan.sheets.map((fill) => toSheet(problem, instance, fill, queues));
  const left = queues.flat();
  const short = [...new Set(left)].map(
    (panel): UnplacedPanel => ({
      panel,
      qty: left.filter((one) => one === panel).length,
      why: shortWords(instance),
    }),
  );
  const area = sheets.flatMap((sheet) => sheet.placements).reduce((sum, p) => sum + p.length * p.width, 0);
  const sheetArea = sheets.reduce(
    (sum, sheet) => sum + at(problem.stock, sheet.stock).length * at(problem.stock, sheet.stock).width,
    0,
  );
  const unit = Math.max(1, ...instance.types.map((type) => type.cost));
  return {
    sheets,
    count: sheets.length,
    cost: instance.priced
      ? costOf(instance, plan) / 10_000
      : problem.stock.every((sheet) => sheet.price === 0)
        ? 0
        : null,
    lowerBound: instance.priced
      ? outcome.bound / 10_000
      : outcome.proven
        ? sheets.length
        : Math.min(sheets.length, Math.ceil(outcome.bound / unit)),
    lowerBoundOf: instance.priced ? "cost" : "count",
    proven: outcome.proven,
    utilisation: sheetArea === 0 ? 0 : area / sheetArea,
    unplaced: [...outcome.unplaced, ...short],
  };
}

const shortWords = (instance: SheetInstance) =>
  instance.types.every((type) => type.available !== Number.POSITIVE_INFINITY)
    ? "the limited stock is used up"
    : "the sheets that it fits are used up, or the stages do not allow it";

function toSheet(
  problem: SheetProblem,
  instance: SheetInstance,
  fill: SheetFill,
  queues: number[][],
): CutSheet {
  const kerf = toNm(problem.kerf);
  const trim = toNm(problem.trim);
  const { stock } = at(instance.types, fill.type);
  const placements = fill.blocks.flatMap((block) => blockPlacements(block, kerf, trim, queues));
  const offcuts = fill.waste
    .map(
      (rect): Offcut => ({
        x: fromNm(rect.x + trim),
        y: fromNm(rect.y + trim),
        length: fromNm(rect.length - kerf),
        width: fromNm(rect.width - kerf),
      }),
    )
    .filter((offcut) => offcut.length > 0 && offcut.width > 0);
  return { stock, placements, offcuts };
}

function blockPlacements(
  block: PlacedBlock,
  kerf: number,
  trim: number,
  queues: number[][],
): readonly Placement[] {
  const { turn, column } = block;
  return Array.from({ length: block.count }, (_, i): Placement => {
    const panel = at(queues, block.panelClass).shift();
    invariant(panel !== undefined, "a panel was placed more often than it is wanted");
    return {
      panel,
      x: fromNm(block.x + (column ? 0 : i * turn.length) + trim),
      y: fromNm(block.y + (column ? i * turn.width : 0) + trim),
      length: fromNm(turn.length - kerf),
      width: fromNm(turn.width - kerf),
      rotated: turn.rotated,
    };
  });
}
