/** Plans of sheets: filling sheet after sheet, and which of two plans is the better one. */
import { at, type Random } from "../../kernel";
import { freeParts } from "./begun";
import { fillSheet, type SheetFill } from "./fill";
import type { SheetInstance } from "./instance";

/** A filled sheet of a plan; `begun` is the sheet with locked panels that it stands on. */
export type PlanSheet = SheetFill & { readonly begun: number | null };
export type Plan = { readonly sheets: readonly PlanSheet[]; readonly rest: readonly number[] };

export type FillRule = {
  readonly values: readonly number[] | null;
  readonly width: number;
  readonly noise: number;
  readonly random: Random;
  readonly stages: number;
};

export type Wanted = {
  readonly demand: readonly number[];
  /** How many sheets of each type may be used. */
  readonly stock: readonly number[];
  /** Sheets with locked panels that are filled first. */
  readonly begun: readonly number[];
  /** Whether rack pieces are taken before sheets are bought. */
  readonly rackFirst: boolean;
};

/** Sheet after sheet: those that are begun, then each time the type that gives the most area for its cost. */
export function fillPlan(instance: SheetInstance, wanted: Wanted, rule: FillRule): Plan {
  const rest = [...wanted.demand];
  const stock = [...wanted.stock];
  const sheets: PlanSheet[] = [];
  const put = (sheet: PlanSheet) => {
    sheet.placed.forEach((count, c) => {
      rest[c] = at(rest, c) - count;
    });
    sheets.push(sheet);
  };
  for (const begun of wanted.begun) put(fillBegun(instance, begun, rest, rule));
  while (rest.some((count) => count > 0)) {
    let best: { readonly fill: SheetFill; readonly score: number } | null = null;
    for (let type = 0; type < instance.types.length; type++) {
      if (at(stock, type) <= 0) continue;
      const fill = fillSheet(instance, type, rest, rule);
      if (fill.area === 0) continue;
      const { length, width, cost, rack } = at(instance.types, type);
      // Cost per area placed; the tiny share of sheet area lets the smaller of two free sheets win.
      const score = (cost + 1e-18 * length * width) / fill.area - (rack && wanted.rackFirst ? 1e9 : 0);
      if (best === null || score < best.score) best = { fill, score };
    }
    if (!best) break;
    stock[best.fill.type] = at(stock, best.fill.type) - 1;
    put({ ...best.fill, begun: null });
  }
  return { sheets, rest };
}

/** What is free on a sheet with locked panels, filled. */
function fillBegun(
  instance: SheetInstance,
  begun: number,
  rest: readonly number[],
  rule: FillRule,
): PlanSheet {
  const { type, rects } = at(instance.begun, begun);
  const { length, width } = at(instance.types, type);
  const free =
    freeParts({ x: 0, y: 0, length, width }, rects, { stages: rule.stages, random: rule.random }) ??
    freeParts({ x: 0, y: 0, length, width }, rects, { stages: instance.stages, random: rule.random });
  return { ...fillSheet(instance, type, rest, { ...rule, free: free ?? [] }), begun };
}

export const isServed = (plan: Plan) => plan.rest.every((count) => count === 0);

/** Cost of the sheets that are not begun. */
export const costOf = (instance: SheetInstance, plan: Plan) =>
  plan.sheets.reduce(
    (sum, sheet) => sum + (sheet.begun === null ? at(instance.types, sheet.type).cost : 0),
    0,
  );

/** Share of a sheet that is covered, locked panels included. */
export function fillRate(instance: SheetInstance, sheet: PlanSheet): number {
  const { length, width } = at(instance.types, sheet.type);
  const locked = sheet.begun === null ? 0 : at(instance.begun, sheet.begun).area;
  return (sheet.area + locked) / (length * width);
}

export const largestRest = (sheet: SheetFill) =>
  Math.max(0, ...sheet.waste.map((rect) => rect.length * rect.width));

/**
 * What is left unplaced first, then cost, then rack pieces that were used without need, then fullness of the full sheets
 * (so that the last one empties).
 */
export function comparePlans(instance: SheetInstance, rackFirst: boolean, a: Plan, b: Plan): number {
  const left = (plan: Plan) =>
    plan.rest.reduce((sum, count, c) => sum + count * at(instance.classes, c).area, 0);
  const unplaced = left(a) - left(b);
  if (unplaced !== 0) return unplaced;
  const cost = costOf(instance, a) - costOf(instance, b);
  if (cost !== 0) return cost;
  const rack = (plan: Plan) =>
    plan.sheets.reduce((sum, sheet) => {
      if (!at(instance.types, sheet.type).rack) return sum;
      return sum + (rackFirst ? -sheet.area : 1);
    }, 0);
  const used = rack(a) - rack(b);
  if (used !== 0) return used;
  return squares(instance, b) - squares(instance, a);
}

const squares = (instance: SheetInstance, plan: Plan) =>
  plan.sheets.reduce((sum, sheet) => sum + fillRate(instance, sheet) ** 2, 0);

/** Whether a plan places as much at no more cost, with a sum of squared fillings less by no more than `slack`. */
export function isNearlyAsGood(instance: SheetInstance, plan: Plan, than: Plan, slack: number): boolean {
  if (isServed(plan) !== isServed(than) || costOf(instance, plan) > costOf(instance, than)) return false;
  return squares(instance, plan) >= squares(instance, than) - slack;
}
