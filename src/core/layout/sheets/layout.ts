/**
 * Sheet layouts: a shelf first-fit as the floor that nobody sees anything worse than, then sheet after
 * sheet by beam search with values that rise for panels on poor sheets, then a neighbourhood search that
 * empties sheets, then the last sheet squeezed together so that its rest is one large offcut.
 * Deterministic for the same input, seed and number of passes; the deadline only ends it early.
 */
import { at, invariant, type Random, seededRandom } from "../../kernel";
import { sheetBound } from "./bound";
import { type FreeRect, fillSheet } from "./fill";
import { asLaid, prepare, type SheetInstance } from "./instance";
import {
  comparePlans,
  costOf,
  fillPlan,
  fillRate,
  isNearlyAsGood,
  isServed,
  largestRest,
  type Plan,
  type PlanSheet,
} from "./plan";
import type { SheetLayout, SheetProblem, UnplacedPanel } from "./problem";
import { toLayout } from "./result";
import { tidied } from "./tidy";
import { type SheetFault, sheetFault, verifySheets } from "./verify";

export type SheetProgress = { readonly best: SheetLayout };

export type SheetOptions = {
  readonly seed: number;
  readonly now: () => number;
  readonly budgetMs: number;
  /** Without it, sheets stay as the search found them, however many settings they need. */
  readonly tidy?: boolean;
  /** Passes of price correction and of neighbourhood search; the budget may end them earlier. */
  readonly passes?: number;
  readonly onProgress?: (progress: SheetProgress) => void;
};

/**
 * Why the locked panels of a problem cannot stay where they are, as the end of a sentence, or null: they lie off the sheet,
 * against the grain or upon one another, or cannot be parted by cuts that run right across.
 */
export function lockedFault(problem: SheetProblem): string | null {
  const left = problem.panels.map((panel) => panel.qty);
  const sheets = problem.stock.map((sheet) => sheet.count ?? Number.POSITIVE_INFINITY);
  for (const [i, { stock, placements }] of problem.fixed.entries()) {
    sheets[stock] = at(sheets, stock) - 1;
    if (at(sheets, stock) < 0) return "there are fewer sheets than hold locked panels";
    for (const { panel } of placements) left[panel] = at(left, panel) - 1;
    const fault = lockedSheetFault(problem, { stock, placements });
    if (fault !== null) return `on sheet ${i + 1} ${fault.words}`;
  }
  const more = left.findIndex((count) => count < 0);
  return more < 0 ? null : `panel ${more} is locked more often than it is wanted`;
}

/** Why the locked panels of one sheet cannot stay where they are; null: they can. */
export function lockedSheetFault(
  problem: SheetProblem,
  { stock, placements }: SheetProblem["fixed"][number],
): SheetFault | null {
  const laid = placements.map((one) => asLaid(problem, one));
  return sheetFault(problem, { stock, placements: laid, offcuts: [] });
}

/** Lays panels out on sheets. The problem must have been read by `SheetProblemSchema`, and its locked panels be possible. */
export function layOutSheets(problem: SheetProblem, options: SheetOptions): SheetLayout {
  const { instance, unplaced } = prepare(problem);
  const layout = new SheetSearch(problem, instance, unplaced, options).run();
  const fault = verifySheets(problem, layout);
  invariant(fault === null, `sheet layout is not valid: ${fault}`);
  return layout;
}

const DEFAULT_PASSES = 60;
/** Panels times classes times beam width of one pass. */
const WIDTH_FOR = 60_000;
const RELAY_SHARE = 0.1;
/** How much worse the sum of squared fillings may get on the walk. */
const SLACK = 0.02;
const OFFCUT_SHARE = 0.4;
/** At least so long is spent on fewer settings, also when the search took all of its time. */
const TIDY_MS = 150;
const TIDY_WIDTH = 12;

class SheetSearch {
  private readonly problem: SheetProblem;
  private readonly instance: SheetInstance;
  private readonly unplaced: readonly UnplacedPanel[];
  private readonly options: SheetOptions;
  private readonly random: Random;
  private readonly deadline: number;
  private bound = 0;
  private bounded = false;
  /** When the present step of the search ends. */
  private until: number;
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
    this.until = this.deadline;
    this.best = { sheets: [], rest: instance.classes.map((one) => one.demand) };
  }

  private readonly timeIsUp = () => this.options.now() > this.until;

  run(): SheetLayout {
    const { instance } = this;
    if (instance.classes.length === 0) return this.layout();
    this.best = this.fillAll({ width: 1 });
    this.options.onProgress?.({ best: this.layout() });
    this.offer(this.fillAll({ width: 16 }));
    // A rack piece that saves no sheet stays in the rack: what can be done without any is looked at by itself.
    if (instance.types.some((type) => type.rack) && !this.problem.rackFirst)
      this.offer(this.fillAll({ width: 16, spareRack: true }));
    this.raiseBound();
    this.options.onProgress?.({ best: this.layout() });
    const passes = this.options.passes ?? DEFAULT_PASSES;
    const { budgetMs } = this.options;
    const start = this.deadline - budgetMs;
    this.until = start + budgetMs * 0.2;
    this.correctPrices(passes);
    this.until = start + budgetMs * 0.75;
    this.searchNeighbours(passes * 40);
    this.until = start + budgetMs * 0.82;
    this.squeezeLast();
    if (this.options.tidy ?? true) this.tidy();
    return this.layout();
  }

  /** Each sheet once more with the same panels: fewer settings of the fence, fewer cuts. */
  private tidy(): void {
    const { instance, random } = this;
    const until = Math.max(this.deadline, this.options.now() + TIDY_MS);
    const sheets = this.best.sheets.map((sheet) =>
      tidied(this.problem, instance, sheet, {
        random,
        width: TIDY_WIDTH,
        timeIsUp: () => this.options.now() > until,
      }),
    );
    this.best = { ...this.best, sheets };
  }

  /** A bound stands only on a layout that places everything: its cost is where the search for one ends. */
  private raiseBound(): void {
    if (!this.bounded && isServed(this.best)) {
      this.bounded = true;
      this.bound = sheetBound(this.instance, costOf(this.instance, this.best));
    }
  }

  private isProven(): boolean {
    return isServed(this.best) && costOf(this.instance, this.best) <= this.bound;
  }

  /** A proven cost ends the search, once a share of the time went into emptying the last sheet. */
  private isDone(): boolean {
    if (!this.isProven()) return false;
    const { sheets } = this.best;
    const spent = this.options.now() - (this.deadline - this.options.budgetMs);
    return sheets.length < 2 || spent > this.options.budgetMs * OFFCUT_SHARE;
  }

  private offer(plan: Plan): boolean {
    if (comparePlans(this.instance, this.problem.rackFirst, plan, this.best) >= 0) return false;
    const cheaper = costOf(this.instance, plan) < costOf(this.instance, this.best);
    this.best = plan;
    this.raiseBound();
    if (cheaper) this.options.onProgress?.({ best: this.layout() });
    return true;
  }

  /** All panels on fresh sheets. */
  private fillAll(rule: {
    readonly width: number;
    readonly values?: readonly number[];
    readonly noise?: number;
    readonly stages?: number;
    readonly spareRack?: boolean;
  }): Plan {
    const { instance } = this;
    const { spareRack = false } = rule;
    return fillPlan(
      instance,
      {
        demand: instance.classes.map((one) => one.demand),
        stock: this.freshStock().map((count, t) => (spareRack && at(instance.types, t).rack ? 0 : count)),
        begun: instance.begun.map((_, i) => i),
        rackFirst: this.problem.rackFirst,
      },
      { values: null, noise: 0, stages: instance.stages, ...rule, random: this.random },
    );
  }

  private freshStock(): number[] {
    return this.instance.types.map((type) => type.available);
  }

  /** Stage caps are mixed: a layout in few stages is found sooner, and some are only found without a cap. */
  private stages(): number {
    const caps = [3, 4, this.instance.stages];
    return Math.min(this.instance.stages, at(caps, this.random.below(caps.length)));
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
      const plan = this.fillAll({ values, width: this.width(), noise: 0.03, stages: this.stages() });
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

  /** Beam width: wide for few panels, narrow for many, so that a pass takes a like time. */
  private width(demand: readonly number[] = this.instance.classes.map((one) => one.demand)): number {
    const panels = demand.reduce((sum, count) => sum + count, 0);
    const classes = demand.filter((count) => count > 0).length;
    return Math.max(6, Math.min(160, Math.round(WIDTH_FOR / Math.max(1, panels * classes))));
  }

  /**
   * The emptiest sheet and one to three others are laid out anew. The walk goes on from a plan that is a little worse, too,
   * or it would stand still in the first hollow that it comes to; the best plan is kept apart.
   */
  private searchNeighbours(rounds: number): void {
    let here = this.best;
    let idle = 0;
    for (let round = 0; round < rounds && !this.isDone() && !this.timeIsUp(); round++) {
      const { sheets } = here;
      if (sheets.length < 2) return;
      const order = sheets
        .map((_, i) => i)
        .sort(
          (a, b) => fillRate(this.instance, at(sheets, a)) - fillRate(this.instance, at(sheets, b)) || a - b,
        );
      const chosen = new Set([at(order, round % 3 === 0 ? Math.min(1, order.length - 1) : 0)]);
      const wanted = Math.min(sheets.length, 2 + this.random.below(3));
      while (chosen.size < wanted) chosen.add(this.random.below(sheets.length));
      const next = this.relaid(here, chosen);
      idle = this.offer(next) ? 0 : idle + 1;
      if (isNearlyAsGood(this.instance, next, here, SLACK)) here = next;
      if (idle > 60) {
        here = this.best;
        idle = 0;
      }
    }
  }

  private relaid(plan: Plan, chosen: ReadonlySet<number>): Plan {
    const { instance } = this;
    const kept = plan.sheets.filter((_, i) => !chosen.has(i));
    const taken = plan.sheets.filter((_, i) => chosen.has(i));
    const demand = instance.classes.map((_, c) =>
      taken.reduce((sum, sheet) => sum + at(sheet.placed, c), at(plan.rest, c)),
    );
    const stock = this.freshStock().map(
      (available, t) => available - kept.filter((sheet) => sheet.type === t && sheet.begun === null).length,
    );
    const bias = this.random.next() * 0.4;
    const values = instance.classes.map((one) => one.area ** (1 + bias));
    const begun = taken.flatMap((sheet) => (sheet.begun === null ? [] : [sheet.begun]));
    // Most rounds are quick, a few are thorough: many tries matter more than the width of each.
    const share = RELAY_SHARE * (0.3 + 1.7 * this.random.next() ** 2);
    const again = fillPlan(
      instance,
      { demand, stock, begun, rackFirst: this.problem.rackFirst },
      {
        values,
        width: Math.max(4, Math.round(this.width(demand) * share)),
        noise: 0.05,
        random: this.random,
        stages: this.stages(),
      },
    );
    return { sheets: [...kept, ...again.sheets], rest: again.rest };
  }

  /** The emptiest sheet is laid out on ever less of its width or its length: what is left is one piece. */
  private squeezeLast(): void {
    const { sheets } = this.best;
    if (sheets.length === 0) return;
    const free = sheets.map((_, i) => i).filter((i) => at(sheets, i).begun === null);
    const [first] = free;
    if (first === undefined) return;
    const emptiest = free.reduce(
      (a, b) => (fillRate(this.instance, at(sheets, b)) < fillRate(this.instance, at(sheets, a)) ? b : a),
      first,
    );
    const sheet = at(sheets, emptiest);
    const squeezed = (["width", "length"] as const)
      .map((side) => this.squeezed(sheet, side))
      .filter((fill) => fill !== null)
      .sort((a, b) => largestRest(b) - largestRest(a))[0];
    if (!squeezed || largestRest(squeezed) <= largestRest(sheet)) return;
    this.best = { ...this.best, sheets: sheets.map((one, i) => (i === emptiest ? squeezed : one)) };
  }

  private squeezed(sheet: PlanSheet, side: "width" | "length"): PlanSheet | null {
    const type = at(this.instance.types, sheet.type);
    let [low, high] = [0, type[side]];
    let found: PlanSheet | null = null;
    for (let step = 0; step < 12 && !this.timeIsUp(); step++) {
      const middle = Math.floor((low + high) / 2);
      const size = { length: type.length, width: type.width, [side]: middle };
      const fill = fillSheet(this.instance, sheet.type, sheet.placed, {
        width: this.width(sheet.placed),
        values: null,
        stages: side === "width" ? this.instance.stages : this.instance.stages - 2,
        random: this.random,
        noise: 0.02,
        size,
      });
      if (fill.placed.every((count, c) => count === at(sheet.placed, c))) {
        found = { ...fill, begun: null, waste: [...fill.waste, restOf(type, size, side)] };
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

function restOf(
  type: { length: number; width: number },
  size: { length: number; width: number },
  side: "width" | "length",
): FreeRect {
  return side === "width"
    ? { x: 0, y: size.width, length: type.length, width: type.width - size.width, run: 1 }
    : { x: size.length, y: 0, length: type.length - size.length, width: type.width, run: 2 };
}
