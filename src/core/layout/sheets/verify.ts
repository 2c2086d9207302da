/** The check of sheet layouts that tests, benchmark and the product itself call: null, or what is wrong. */
import { toNm } from "../../kernel";
import { type CutRect, inflated, runsNeeded } from "./cuts";
import type { CutSheet, Placement, SheetLayout, SheetProblem } from "./problem";

export function verifySheets(problem: SheetProblem, layout: SheetLayout): string | null {
  const placed = problem.panels.map(() => 0);
  const used = problem.stock.map(() => 0);
  for (const [index, sheet] of layout.sheets.entries()) {
    if (!problem.stock[sheet.stock]) return `sheet names stock ${sheet.stock}`;
    used[sheet.stock] = (used[sheet.stock] ?? 0) + 1;
    const fault = sheetFault(problem, sheet);
    if (fault) return `sheet ${index}: ${fault.words}`;
    for (const { panel } of sheet.placements) placed[panel] = (placed[panel] ?? 0) + 1;
  }
  for (const { panel, qty } of layout.unplaced) placed[panel] = (placed[panel] ?? 0) + qty;
  const lost = problem.panels.findIndex((panel, i) => placed[i] !== panel.qty);
  if (lost >= 0) return `panel ${lost} is placed ${placed[lost]} times of ${problem.panels[lost]?.qty}`;
  const over = problem.stock.findIndex((stock, i) => stock.count !== null && (used[i] ?? 0) > stock.count);
  if (over >= 0) return `stock ${over} is used ${used[over]} times`;
  const value = layout.lowerBoundOf === "cost" ? layout.cost : layout.count;
  if (layout.unplaced.length === 0 && value !== null && value < layout.lowerBound - 1e-9)
    return "the layout is below its bound";
  return lockFault(problem, layout) ?? togetherFault(problem, layout);
}

/** What is wrong with a sheet: `words` are the end of a sentence. */
export type SheetFault = {
  readonly kind: "unknown" | "off" | "against" | "taken" | "uncuttable" | "stages";
  readonly words: string;
};

/** What is wrong with one sheet: a panel off it, upon another or against the grain, or no way to cut it; null: nothing. */
export function sheetFault(problem: SheetProblem, sheet: CutSheet): SheetFault | null {
  const stock = problem.stock[sheet.stock];
  if (!stock) return { kind: "unknown", words: `there is no stock ${sheet.stock}` };
  for (const check of [sizeFault, offFault, grainFault]) {
    for (const placement of sheet.placements) {
      const fault = check(problem, stock, placement);
      if (fault) return fault;
    }
  }
  const [region, rects] = inflated(problem, stock, sheet.placements);
  if (hasOverlap(rects)) return { kind: "taken", words: "two panels lie nearer than a kerf" };
  const runs = runsNeeded(region, rects);
  if (runs === Number.POSITIVE_INFINITY)
    return { kind: "uncuttable", words: "it cannot be cut by cuts that run right across" };
  return runs > (problem.stages ?? Number.MAX_SAFE_INTEGER)
    ? { kind: "stages", words: `it needs ${runs} stages of cuts, and ${problem.stages} are set` }
    : null;
}

/** Every locked panel stands where it was locked, with the others of its sheet. */
function lockFault(problem: SheetProblem, layout: SheetLayout): string | null {
  const key = (one: { panel: number; x: number; y: number; rotated: boolean }) =>
    `${one.panel}@${toNm(one.x)},${toNm(one.y)},${one.rotated}`;
  const rest = layout.sheets.map((sheet) => ({
    stock: sheet.stock,
    keys: new Set(sheet.placements.filter((one) => one.locked).map(key)),
  }));
  for (const fixed of problem.fixed) {
    const wanted = fixed.placements.map(key);
    const found = rest.findIndex(
      (sheet) => sheet.stock === fixed.stock && wanted.every((one) => sheet.keys.has(one)),
    );
    if (found < 0) return `locked panel ${fixed.placements[0]?.panel} is not where it was locked`;
    rest.splice(found, 1);
  }
  return null;
}

/** Runs of a keep-together group lie in order, a kerf apart, and no panel of one lies outside a run. */
function togetherFault(problem: SheetProblem, layout: SheetLayout): string | null {
  const kerf = toNm(problem.kerf);
  for (const [group, { panels, along }] of problem.together.entries()) {
    for (const sheet of layout.sheets) {
      const runs = new Map<number, Placement[]>();
      for (const one of sheet.placements) {
        if (one.together?.group !== group) continue;
        runs.set(one.together.run, [...(runs.get(one.together.run) ?? []), one]);
      }
      for (const run of runs.values()) {
        if (run.map((one) => one.panel).join() !== panels.join()) return `group ${group} is not in its order`;
        const alongX = (along === "length") !== run[0]?.rotated;
        const apart = run.some((one, i) => {
          const next = run[i + 1];
          if (!next) return false;
          return alongX
            ? toNm(next.x) !== toNm(one.x) + toNm(one.length) + kerf || next.y !== one.y
            : toNm(next.y) !== toNm(one.y) + toNm(one.width) + kerf || next.x !== one.x;
        });
        if (apart) return `group ${group} is not one blank`;
      }
    }
  }
  return null;
}

type Stock = SheetProblem["stock"][number];

function sizeFault(
  problem: SheetProblem,
  _: Stock,
  { panel, rotated, length, width }: Placement,
): SheetFault | null {
  const size = problem.panels[panel];
  if (!size) return { kind: "unknown", words: `there is no panel ${panel}` };
  const [along, across] = rotated ? [size.width, size.length] : [size.length, size.width];
  return along === length && across === width
    ? null
    : { kind: "unknown", words: `panel ${panel} has another size` };
}

function offFault(problem: SheetProblem, stock: Stock, placement: Placement): SheetFault | null {
  const inside =
    toNm(placement.x) >= toNm(problem.trim) &&
    toNm(placement.y) >= toNm(problem.trim) &&
    toNm(placement.x) + toNm(placement.length) <= toNm(stock.length) - toNm(problem.trim) &&
    toNm(placement.y) + toNm(placement.width) <= toNm(stock.width) - toNm(problem.trim);
  return inside ? null : { kind: "off", words: `panel ${placement.panel} lies in the trim or off the sheet` };
}

function grainFault(problem: SheetProblem, stock: Stock, placement: Placement): SheetFault | null {
  const { panel, rotated, against } = placement;
  const wrongWay =
    problem.panels[panel]?.grain &&
    !against &&
    ((stock.grain === "length" && rotated) || (stock.grain === "width" && !rotated));
  return wrongWay ? { kind: "against", words: `panel ${panel} lies against the grain` } : null;
}

/** The sheet and its panels with the kerf added on their far sides, in nanometres from the trimmed corner. */
function hasOverlap(rects: readonly CutRect[]): boolean {
  const sorted = [...rects].sort((a, b) => a.x - b.x);
  return sorted.some((a, i) => {
    for (const b of sorted.slice(i + 1)) {
      if (b.x >= a.x + a.length) return false;
      if (a.y < b.y + b.width && b.y < a.y + a.width) return true;
    }
    return false;
  });
}
