/**
 * A sheet problem as exact integers. A piece l × w becomes (l + kerf) × (w + kerf) and a sheet
 * (L − 2·trim + kerf) × (W − 2·trim + kerf): after that the kerf can be forgotten, and nothing is lost, for every cut runs
 * right across. Panels that are kept together are one larger piece; sheets with locked panels are begun already.
 */
import { at, fromNm, toNm } from "../../kernel";
import { scaledInteger } from "../../measure";
import type { UnplacedReason } from "../stock";
import { type Block, blocksOn } from "./blocks";
import type { LockedPlacement, Placement, SheetProblem, UnplacedPanel } from "./problem";

/** A panel turned or not, as its inflated sizes along x and y. */
export type Turn = {
  readonly length: number;
  readonly width: number;
  readonly rotated: boolean;
  /** The way in which the panels of a keep-together group follow one another. */
  readonly inner: "x" | "y" | null;
};

/** Panels of one size and grain together. `turns[t]` are the ways in which it may lie on sheet type t. */
export type PanelClass = {
  readonly area: number;
  readonly demand: number;
  /** One for each that is wanted; empty for a group. */
  readonly panels: readonly number[];
  /** The keep-together group that it is; null: single panels. */
  readonly group: number | null;
  readonly turns: readonly (readonly Turn[])[];
};

export type SheetType = {
  readonly stock: number;
  readonly length: number;
  readonly width: number;
  readonly cost: number;
  readonly available: number;
  readonly rack: boolean;
};

/** A sheet with locked panels, inflated. */
export type BegunSheet = {
  readonly type: number;
  readonly locked: readonly LockedPlacement[];
  readonly rects: readonly Block[];
  readonly area: number;
};

export type SheetInstance = {
  readonly classes: readonly PanelClass[];
  readonly types: readonly SheetType[];
  readonly stages: number;
  readonly priced: boolean;
  readonly begun: readonly BegunSheet[];
  /** Cost of the sheets that hold locked panels: spent whatever else is done. */
  readonly sunk: number;
};

function turnsOn(panel: Blank, grain: "length" | "width" | null, kerfNm: number): readonly Turn[] {
  const along: Turn = {
    length: toNm(panel.length) + kerfNm,
    width: toNm(panel.width) + kerfNm,
    rotated: false,
    inner: null,
  };
  const across: Turn = { ...along, length: along.width, width: along.length, rotated: true };
  if (panel.grain && grain === "length") return [along];
  if (panel.grain && grain === "width") return [across];
  return panel.length === panel.width ? [along] : [along, across];
}

/** Splits off what fits no sheet and turns the rest into integers (nanometres, inflated by the kerf). */
export function prepare(problem: SheetProblem): {
  readonly instance: SheetInstance;
  readonly unplaced: readonly UnplacedPanel[];
} {
  const kerfNm = toNm(problem.kerf);
  const priced =
    problem.stock.every((sheet) => sheet.price !== null) && problem.stock.some((sheet) => sheet.price !== 0);
  const types = typesOf(problem, priced, kerfNm);
  const unplaced: UnplacedPanel[] = [];
  const classes = new Map<string, PanelClass & { demand: number; panels: number[] }>();
  const fitting = (one: Blank, inner: "length" | "width" | null) =>
    types.map((type) =>
      turnsOn(one, at(problem.stock, type.stock).grain, kerfNm)
        .filter((turn) => turn.length <= type.length && turn.width <= type.width)
        .map((turn): Turn => ({ ...turn, inner: innerWay(inner, turn.rotated) })),
    );
  const rest = problem.panels.map((panel) => panel.qty);
  for (const sheet of problem.fixed)
    for (const { panel } of sheet.placements) rest[panel] = at(rest, panel) - 1;
  problem.together.forEach((group, index) => {
    const whole = wholeBlank(problem, group);
    const turns = whole ? fitting(whole, group.along) : [];
    const runs = runsPossible({ ...group, qty: group.qty - lockedRuns(problem, index) }, rest);
    for (const panel of group.panels) rest[panel] = at(rest, panel) - runs;
    if (runs === 0) return;
    if (!whole || turns.every((ways) => ways.length === 0)) {
      const why: UnplacedReason = whole
        ? { kind: "blank", why: tooLarge(problem, whole, types, kerfNm) }
        : { kind: "blankUneven" };
      for (const [panel, times] of counted(group.panels)) unplaced.push({ panel, qty: runs * times, why });
      return;
    }
    classes.set(`group ${index}`, {
      demand: runs,
      panels: [],
      group: index,
      turns,
      area: areaOf(whole, kerfNm),
    });
  });
  problem.panels.forEach((panel, index) => {
    const qty = at(rest, index);
    if (qty <= 0) return;
    const turns = fitting(panel, null);
    if (turns.every((ways) => ways.length === 0)) {
      unplaced.push({ panel: index, qty, why: tooLarge(problem, panel, types, kerfNm) });
      return;
    }
    const key = `${panel.length}|${panel.width}|${panel.grain}`;
    const known = classes.get(key) ?? {
      demand: 0,
      panels: [],
      group: null,
      turns,
      area: areaOf(panel, kerfNm),
    };
    known.demand += qty;
    for (let i = 0; i < qty; i++) known.panels.push(index);
    classes.set(key, known);
  });
  const begun = begunSheets(problem, types);
  return {
    instance: {
      classes: [...classes.values()].sort((a, b) => b.area - a.area),
      types,
      stages: problem.stages ?? Number.POSITIVE_INFINITY,
      priced,
      begun,
      sunk: begun.reduce((sum, sheet) => sum + at(types, sheet.type).cost, 0),
    },
    unplaced: merged(unplaced),
  };
}

type Blank = { readonly length: number; readonly width: number; readonly grain: boolean };

const areaOf = (one: Blank, kerfNm: number) => (toNm(one.length) + kerfNm) * (toNm(one.width) + kerfNm);

/** In the sheet's axes: the way in which parts along a panel's length or width follow one another. */
function innerWay(inner: "length" | "width" | null, rotated: boolean): "x" | "y" | null {
  if (inner === null) return null;
  return (inner === "length") === rotated ? "y" : "x";
}

function typesOf(problem: SheetProblem, priced: boolean, kerfNm: number): readonly SheetType[] {
  const trimNm = toNm(problem.trim);
  return problem.stock.flatMap((sheet, stock): SheetType[] => {
    const length = toNm(sheet.length) - 2 * trimNm;
    const width = toNm(sheet.width) - 2 * trimNm;
    const begun = problem.fixed.filter((one) => one.stock === stock).length;
    if (length <= 0 || width <= 0 || sheet.count === 0) return [];
    return [
      {
        stock,
        length: length + kerfNm,
        width: width + kerfNm,
        cost: sheetCost(problem, sheet, priced),
        available: sheet.count === null ? Number.POSITIVE_INFINITY : sheet.count - begun,
        rack: sheet.rack !== null,
      },
    ];
  });
}

function begunSheets(problem: SheetProblem, types: readonly SheetType[]): readonly BegunSheet[] {
  return problem.fixed.map((sheet): BegunSheet => {
    const placements = sheet.placements.map((one) => asLaid(problem, one));
    const rects = blocksOn(problem, at(problem.stock, sheet.stock), placements).blocks;
    return {
      type: types.findIndex((type) => type.stock === sheet.stock),
      locked: sheet.placements,
      rects,
      area: rects.reduce((sum, rect) => sum + rect.length * rect.width, 0),
    };
  });
}

/** A locked panel with its sizes as it is laid. */
export function asLaid(problem: SheetProblem, one: LockedPlacement): Placement {
  const { length, width } = at(problem.panels, one.panel);
  return { ...one, ...(one.rotated ? { length: width, width: length } : { length, width }) };
}

const counted = (panels: readonly number[]) => {
  const counts = new Map<number, number>();
  for (const panel of panels) counts.set(panel, (counts.get(panel) ?? 0) + 1);
  return counts;
};

/** How many of a panel are wanted outside of the runs in which it is kept together with others. */
export function singlesOf(problem: SheetProblem, panel: number): number {
  const rest = problem.panels.map(({ qty }) => qty);
  let single = 0;
  for (const { placements } of problem.fixed)
    for (const one of placements) {
      if (one.together) continue;
      rest[one.panel] = at(rest, one.panel) - 1;
      if (one.panel === panel) single++;
    }
  for (const group of problem.together) {
    const runs = runsPossible(group, rest);
    for (const one of group.panels) rest[one] = at(rest, one) - runs;
  }
  return single + at(rest, panel);
}

/** How many runs of a group are locked to their place. */
function lockedRuns(problem: SheetProblem, group: number): number {
  return problem.fixed.reduce(
    (sum, sheet) =>
      sum +
      new Set(sheet.placements.flatMap(({ together }) => (together?.group === group ? [together.run] : [])))
        .size,
    0,
  );
}

/** How often a group can be made of what is wanted of its panels. */
function runsPossible(group: SheetProblem["together"][number], rest: readonly number[]): number {
  let runs = group.qty;
  for (const [panel, times] of counted(group.panels))
    runs = Math.min(runs, Math.floor(Math.max(0, at(rest, panel)) / times));
  return runs;
}

/** The blank that a group is cut as; null when its panels differ in the other direction. */
export function wholeBlank(
  problem: SheetProblem,
  group: SheetProblem["together"][number],
): (Blank & { readonly along: "length" | "width" }) | null {
  const panels = group.panels.map((panel) => at(problem.panels, panel));
  const [run, across] =
    group.along === "length" ? (["length", "width"] as const) : (["width", "length"] as const);
  const first = panels[0];
  if (!first || panels.some((panel) => toNm(panel[across]) !== toNm(first[across]))) return null;
  const sum = panels.reduce((total, panel) => total + toNm(panel[run]), 0);
  const whole = fromNm(sum + (panels.length - 1) * toNm(problem.kerf));
  const sizes = { length: first.length, width: first.width, [run]: whole };
  return { ...sizes, grain: panels.some((panel) => panel.grain), along: group.along };
}

function merged(unplaced: readonly UnplacedPanel[]): readonly UnplacedPanel[] {
  const byPanel = new Map<string, UnplacedPanel>();
  for (const one of unplaced) {
    const key = `${one.panel}:${JSON.stringify(one.why)}`;
    const known = byPanel.get(key);
    byPanel.set(key, known ? { ...known, qty: known.qty + one.qty } : one);
  }
  return [...byPanel.values()];
}

function tooLarge(problem: SheetProblem, panel: Blank, types: readonly SheetType[], kerfNm: number) {
  if (types.length === 0) return { kind: "noStock" } as const;
  const size = [panel.length, panel.width] as const;
  const freely = types.some((type) =>
    turnsOn({ ...panel, grain: false }, null, kerfNm).some(
      (turn) => turn.length <= type.length && turn.width <= type.width,
    ),
  );
  if (panel.grain && freely) return { kind: "againstGrain", size } as const;
  const best = types.reduce((a, b) => (b.length * b.width > a.length * a.width ? b : a));
  const largest = [fromNm(best.length - kerfNm), fromNm(best.width - kerfNm)] as const;
  return { kind: "tooLarge", size, largest, trimmed: problem.trim > 0 } as const;
}

/** Money in 1/10,000; without prices the number of sheets first, their area second. */
function sheetCost(problem: SheetProblem, sheet: SheetProblem["stock"][number], priced: boolean): number {
  if (priced) return Number(scaledInteger(sheet.price ?? 0, 4));
  // A rack piece is there already: it is not bought.
  if (sheet.rack !== null) return 0;
  const areas = problem.stock.map((one) => Math.round((one.length * one.width) / 100));
  const own = Math.round((sheet.length * sheet.width) / 100);
  return Math.max(...areas) * 500 + own;
}
