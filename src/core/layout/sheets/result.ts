/** From a plan of inflated blocks to the sheets of a layout: panels dealt out, groups opened, kerf and trim put back. */
import { at, fromNm, invariant, toNm } from "../../kernel";
import { boughtCount, costOf as sumOfPrices } from "../stock";
import { offcutsOf } from "./cut-tree";
import type { PlacedBlock } from "./fill";
import type { SheetInstance } from "./instance";
import { costOf, type Plan, type PlanSheet } from "./plan";
import type { CutSheet, Placement, SheetLayout, SheetProblem, UnplacedPanel } from "./problem";

export type Outcome = {
  readonly bound: number;
  readonly proven: boolean;
  readonly unplaced: readonly UnplacedPanel[];
};

export function toLayout(
  problem: SheetProblem,
  instance: SheetInstance,
  plan: Plan,
  outcome: Outcome,
): SheetLayout {
  const queues = instance.classes.map((one) => [...one.panels]);
  const sheets = plan.sheets.map((fill) => withOffcuts(problem, toSheet(problem, instance, fill, queues)));
  // A sheet with locked panels stands even when no plan was made at all.
  const missing = instance.begun
    .map((_, i) => i)
    .filter((i) => !plan.sheets.some((sheet) => sheet.begun === i));
  for (const begun of missing) sheets.push(withOffcuts(problem, lockedSheet(problem, instance, begun)));
  return layoutOf(problem, sheets, {
    cost: instance.sunk + costOf(instance, plan),
    bound: instance.sunk + outcome.bound,
    priced: instance.priced,
    unit: Math.max(1, ...instance.types.map((type) => type.cost)),
    proven: outcome.proven,
    unplaced: [...outcome.unplaced, ...shortOf(instance, plan, queues, problem)],
  });
}

type Facts = {
  readonly cost: number;
  readonly bound: number;
  readonly priced: boolean;
  readonly unit: number;
  readonly proven: boolean;
  readonly unplaced: readonly UnplacedPanel[];
};

function layoutOf(problem: SheetProblem, sheets: readonly CutSheet[], facts: Facts): SheetLayout {
  const bought = boughtCount(sheets.map((sheet) => at(problem.stock, sheet.stock)));
  return {
    sheets,
    count: sheets.length,
    cost: facts.priced
      ? facts.cost / 10_000
      : sumOfPrices(sheets.map((sheet) => [at(problem.stock, sheet.stock).price, 1])),
    lowerBound: facts.priced
      ? facts.bound / 10_000
      : facts.proven
        ? bought
        : Math.min(bought, Math.ceil(facts.bound / facts.unit)),
    lowerBoundOf: facts.priced ? "cost" : "count",
    proven: facts.proven,
    utilisation: utilisationOf(problem, sheets),
    unplaced: facts.unplaced,
  };
}

/** Area of panels ÷ area of the sheets used. */
export function utilisationOf(problem: SheetProblem, sheets: readonly CutSheet[]): number {
  const area = sheets.flatMap((sheet) => sheet.placements).reduce((sum, p) => sum + p.length * p.width, 0);
  const whole = sheets.reduce(
    (sum, sheet) => sum + at(problem.stock, sheet.stock).length * at(problem.stock, sheet.stock).width,
    0,
  );
  return whole === 0 ? 0 : area / whole;
}

function shortOf(
  instance: SheetInstance,
  plan: Plan,
  queues: readonly number[][],
  problem: SheetProblem,
): readonly UnplacedPanel[] {
  const counts = new Map<number, number>();
  const add = (panel: number, qty: number) => counts.set(panel, (counts.get(panel) ?? 0) + qty);
  for (const panel of queues.flat()) add(panel, 1);
  instance.classes.forEach(({ group }, c) => {
    if (group === null) return;
    for (const panel of at(problem.together, group).panels) add(panel, at(plan.rest, c));
  });
  const why = instance.types.every((type) => type.available !== Number.POSITIVE_INFINITY)
    ? ({ kind: "usedUp" } as const)
    : ({ kind: "usedUpOrStages" } as const);
  return [...counts].filter(([, qty]) => qty > 0).map(([panel, qty]) => ({ panel, qty, why }));
}

/** A sheet as it is laid, before its offcuts are known. */
type LaidSheet = Pick<CutSheet, "stock" | "placements">;

/** A sheet with the offcuts that its tree of cuts leaves. */
export const withOffcuts = (problem: SheetProblem, { stock, placements }: LaidSheet): CutSheet => ({
  stock,
  placements,
  offcuts: offcutsOf(problem, { stock, placements }),
});

/** One sheet of a plan; takes its panels out of the queues of its classes. */
export function toSheet(
  problem: SheetProblem,
  instance: SheetInstance,
  fill: PlanSheet,
  queues: number[][],
): LaidSheet {
  const kerf = toNm(problem.kerf);
  const trim = toNm(problem.trim);
  const { stock } = at(instance.types, fill.type);
  const locked = fill.begun === null ? [] : lockedPlacements(problem, instance, fill.begun);
  const runs = new Map<number, number>();
  for (const { together } of locked)
    if (together) runs.set(together.group, Math.max(runs.get(together.group) ?? 0, together.run + 1));
  const placements = fill.blocks.flatMap((block) => {
    const { group } = at(instance.classes, block.panelClass);
    return Array.from({ length: block.count }, (_, i) => {
      const { turn, column } = block;
      const x = block.x + (column ? 0 : i * turn.length) + trim;
      const y = block.y + (column ? i * turn.width : 0) + trim;
      if (group === null) return [single(block, queues, { x, y, kerf })];
      const run = runs.get(group) ?? 0;
      runs.set(group, run + 1);
      return groupPlacements(problem, { group, run, x, y, rotated: turn.rotated });
    }).flat();
  });
  return { stock, placements: [...locked, ...placements] };
}

function single(
  block: PlacedBlock,
  queues: number[][],
  { x, y, kerf }: { readonly x: number; readonly y: number; readonly kerf: number },
): Placement {
  const panel = at(queues, block.panelClass).shift();
  invariant(panel !== undefined, "a panel was placed more often than it is wanted");
  return {
    panel,
    x: fromNm(x),
    y: fromNm(y),
    length: fromNm(block.turn.length - kerf),
    width: fromNm(block.turn.width - kerf),
    rotated: block.turn.rotated,
  };
}

/** The panels of a group in their order, a kerf apart, from the low corner of the blank on. */
export function groupPlacements(
  problem: SheetProblem,
  one: {
    readonly group: number;
    readonly run: number;
    readonly x: number;
    readonly y: number;
    readonly rotated: boolean;
  },
): readonly Placement[] {
  const { panels, along } = at(problem.together, one.group);
  const alongX = (along === "length") !== one.rotated;
  let [x, y] = [one.x, one.y];
  return panels.map((panel): Placement => {
    const size = at(problem.panels, panel);
    const [length, width] = one.rotated ? [size.width, size.length] : [size.length, size.width];
    const placement: Placement = {
      panel,
      x: fromNm(x),
      y: fromNm(y),
      length,
      width,
      rotated: one.rotated,
      together: { group: one.group, run: one.run },
    };
    if (alongX) x += toNm(length) + toNm(problem.kerf);
    else y += toNm(width) + toNm(problem.kerf);
    return placement;
  });
}

function lockedPlacements(
  problem: SheetProblem,
  instance: SheetInstance,
  begun: number,
): readonly Placement[] {
  return at(instance.begun, begun).locked.map(({ panel, x, y, rotated, against, together }): Placement => {
    const size = at(problem.panels, panel);
    const [length, width] = rotated ? [size.width, size.length] : [size.length, size.width];
    return {
      panel,
      x,
      y,
      length,
      width,
      rotated,
      locked: true,
      ...(against ? { against } : {}),
      ...(together ? { together } : {}),
    };
  });
}

function lockedSheet(problem: SheetProblem, instance: SheetInstance, begun: number): LaidSheet {
  const { type } = at(instance.begun, begun);
  return {
    stock: at(instance.types, type).stock,
    placements: lockedPlacements(problem, instance, begun),
  };
}
