/** The check of sheet layouts that tests, benchmark and the product itself call: null, or what is wrong. */
import { addTo, at, toNm } from "../../kernel";
import { claimFault, leastPlain, reasonFault } from "../stock";
import { blocksOn } from "./blocks";
import { type CutRect, runsNeeded, sameRect, slices, type ToCut } from "./cuts";
import type { CutSheet, Placement, SheetLayout, SheetProblem } from "./problem";
import { walkFault } from "./walk";

export function verifySheets(problem: SheetProblem, layout: SheetLayout): string | null {
  for (const [index, sheet] of layout.sheets.entries()) {
    if (!problem.stock[sheet.stock]) return `sheet names stock ${sheet.stock}`;
    const fault =
      sheetFault(problem, sheet)?.words ?? offcutFault(problem, sheet) ?? walkFault(problem, sheet);
    if (fault) return `sheet ${index}: ${fault}`;
  }
  return (
    countFault(problem, layout) ??
    utilisationFault(problem, layout) ??
    lockFault(problem, layout) ??
    togetherFault(problem, layout) ??
    whyFault(problem, layout) ??
    claimFault(layout, {
      used: layout.sheets.map((sheet) => at(problem.stock, sheet.stock)),
      stock: problem.stock.map(({ price }) => price),
      isImpossible: (i) => isImpossible(problem, layout.unplaced[i]?.panel ?? -1),
      plain: () => plainLayout(problem, layout),
    })
  );
}

function countFault(problem: SheetProblem, layout: SheetLayout): string | null {
  const placed = problem.panels.map(() => 0);
  const used = problem.stock.map(() => 0);
  for (const { stock, placements } of layout.sheets) {
    used[stock] = at(used, stock) + 1;
    for (const { panel } of placements) placed[panel] = at(placed, panel) + 1;
  }
  for (const { panel, qty } of layout.unplaced) {
    if (!problem.panels[panel]) return `there is no panel ${panel}`;
    placed[panel] = at(placed, panel) + qty;
  }
  const lost = problem.panels.findIndex((panel, i) => placed[i] !== panel.qty);
  if (lost >= 0) return `panel ${lost} is placed ${placed[lost]} times of ${problem.panels[lost]?.qty}`;
  const over = problem.stock.findIndex((stock, i) => stock.count !== null && at(used, i) > stock.count);
  return over >= 0 ? `stock ${over} is used ${used[over]} times` : null;
}

function utilisationFault(problem: SheetProblem, layout: SheetLayout): string | null {
  let [panels, sheets] = [0, 0];
  for (const sheet of layout.sheets) {
    const { length, width } = at(problem.stock, sheet.stock);
    sheets += length * width;
    for (const one of sheet.placements) {
      const panel = at(problem.panels, one.panel);
      panels += panel.length * panel.width;
    }
  }
  const share = sheets === 0 ? 0 : panels / sheets;
  return Math.abs(share - layout.utilisation) > 1e-9
    ? `utilisation ${layout.utilisation} should be ${share}`
    : null;
}

/** Offcuts lie in the trimmed sheet, on nothing else, and nothing else that the blade leaves is untold. */
function offcutFault(problem: SheetProblem, sheet: CutSheet): string | null {
  const stock = at(problem.stock, sheet.stock);
  const { region, blocks } = blocksOn(problem, stock, sheet.placements);
  const [kerf, trim] = [toNm(problem.kerf), toNm(problem.trim)];
  const offcuts = sheet.offcuts.map(
    (one): ToCut => ({
      x: toNm(one.x) - trim,
      y: toNm(one.y) - trim,
      length: toNm(one.length) + kerf,
      width: toNm(one.width) + kerf,
    }),
  );
  for (const { x, y, length, width } of offcuts) {
    if (length <= kerf || width <= kerf) return "an offcut of nothing";
    if (x < 0 || y < 0 || x + length > region.length || y + width > region.width)
      return "an offcut off the sheet";
  }
  const all = [...blocks, ...offcuts];
  if (hasOverlap(all)) return "an offcut where something else is";
  if (runsNeeded(region, all) > (problem.stages ?? Number.MAX_SAFE_INTEGER))
    return "its offcuts cannot be cut off within the stages";
  return hasUntold(region, all, kerf, 0) ? "an offcut is not told" : null;
}

/**
 * Whether cuts right across come to a part without anything told in it that is more than the blade takes. In another order of
 * cuts the blade may have passed on both sides of a sliver, of which nothing is left then: two passes wide is still nothing.
 */
function hasUntold(region: CutRect, all: readonly CutRect[], kerf: number, run: number): boolean {
  if (all.length === 0) return region.length > 2 * kerf && region.width > 2 * kerf;
  const [only] = all;
  if (run > 40 || (all.length === 1 && only && sameRect(only, region))) return false;
  const parts = run % 2 === 0 ? slices(region, all, "y", "width") : slices(region, all, "x", "length");
  return parts.some((part) => hasUntold(part.region, part.rects, kerf, run + 1));
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
  const { region, blocks } = blocksOn(problem, stock, sheet.placements);
  if (hasOverlap(blocks)) return { kind: "taken", words: "two panels lie nearer than a kerf" };
  const runs = runsNeeded(region, blocks);
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

/**
 * Runs of a keep-together group lie in order on one sheet, a kerf apart, and no more of its panels lie outside of runs than
 * are wanted outside of them.
 */
function togetherFault(problem: SheetProblem, layout: SheetLayout): string | null {
  for (const sheet of layout.sheets) {
    const runs = new Map<string, Placement[]>();
    for (const one of sheet.placements) {
      if (!one.together) continue;
      if (!problem.together[one.together.group]) return `there is no group ${one.together.group}`;
      const key = `${one.together.group} ${one.together.run}`;
      addTo(runs, key, one);
    }
    for (const run of runs.values()) {
      const fault = runFault(problem, run);
      if (fault) return fault;
    }
  }
  return apartFault(problem, layout);
}

function runFault(problem: SheetProblem, run: readonly Placement[]): string | null {
  const group = at(run, 0).together?.group ?? -1;
  const { panels, along } = at(problem.together, group);
  const kerf = toNm(problem.kerf);
  const { rotated } = at(run, 0);
  const alongX = (along === "length") !== rotated;
  const [from, size, across] = alongX ? (["x", "length", "y"] as const) : (["y", "width", "x"] as const);
  const sorted = [...run].sort((a, b) => a[from] - b[from]);
  // Turned round by hand it may lie the other way about.
  const order = sorted.map((one) => one.panel).join();
  if (order !== panels.join() && order !== [...panels].reverse().join())
    return `group ${group} is not in its order`;
  const apart = sorted.some((one, i) => {
    const next = sorted[i + 1];
    if (one.rotated !== rotated) return true;
    if (!next) return false;
    return (
      toNm(next[from]) !== toNm(one[from]) + toNm(one[size]) + kerf ||
      toNm(next[across]) !== toNm(one[across])
    );
  });
  return apart ? `group ${group} is not one blank` : null;
}

/** Panels that should be kept together with others and lie alone. */
function apartFault(problem: SheetProblem, layout: SheetLayout): string | null {
  const left = problem.panels.map(({ qty }) => qty);
  const single = problem.panels.map(() => 0);
  for (const { panel, together } of problem.fixed.flatMap(({ placements }) => placements)) {
    if (together) continue;
    left[panel] = at(left, panel) - 1;
    single[panel] = at(single, panel) + 1;
  }
  for (const { panels, qty } of problem.together) {
    let runs = qty;
    for (const panel of panels)
      runs = Math.min(
        runs,
        Math.floor(Math.max(0, at(left, panel)) / panels.filter((one) => one === panel).length),
      );
    for (const panel of panels) left[panel] = at(left, panel) - runs;
  }
  const alone = problem.panels.map(() => 0);
  for (const { panel, together } of layout.sheets.flatMap(({ placements }) => placements))
    if (!together) alone[panel] = at(alone, panel) + 1;
  const apart = alone.findIndex((count, i) => count > at(left, i) + at(single, i));
  return apart < 0 ? null : `panel ${apart} is not kept together with its group`;
}

/** Whether what is told of panels without a place is so. */
function whyFault(problem: SheetProblem, layout: SheetLayout): string | null {
  const trim = 2 * problem.trim;
  const free = problem.stock
    .filter(({ count }) => count !== 0)
    .map(({ length, width }) => [length - trim, width - trim] as const);
  const largest = free.reduce((a, b) => (b[0] * b[1] > a[0] * a[1] ? b : a), [0, 0] as const);
  const facts = (size: readonly number[]) => ({ size, largest, trimmed: trim > 0 });
  const blanksOf = (panel: number) =>
    problem.together
      .filter(({ panels }) => panels.includes(panel))
      .map(({ panels, along }) => {
        const whole = panels.reduce(
          (sum, one) => sum + at(problem.panels, one)[along] + problem.kerf,
          -problem.kerf,
        );
        const { length, width } = at(problem.panels, panel);
        return facts(along === "length" ? [whole, width] : [length, whole]);
      });
  for (const { panel, why } of layout.unplaced) {
    const { length, width } = at(problem.panels, panel);
    const fault = reasonFault(why, (blank) => (blank ? blanksOf(panel) : [facts([length, width])]));
    if (fault) return fault;
  }
  return null;
}

/** No turn of the panel fits any sheet, alone or as the blank that it must be part of. */
function isImpossible(problem: SheetProblem, index: number): boolean {
  const panel = at(problem.panels, index);
  if (problem.together.some(({ panels }) => panels.includes(index))) return true;
  return problem.stock.every(({ length, width, count, grain }) => {
    const [x, y] = [toNm(length) - 2 * toNm(problem.trim), toNm(width) - 2 * toNm(problem.trim)];
    const [l, w] = [toNm(panel.length), toNm(panel.width)];
    const along = l <= x && w <= y && !(panel.grain && grain === "width");
    const across = w <= x && l <= y && !(panel.grain && grain === "length");
    return count === 0 || !(along || across);
  });
}

/** Shelves, the highest first, on sheets of one stock: a layout in three stages that exists, against which bounds are held. */
function plainLayout(
  problem: SheetProblem,
  layout: SheetLayout,
): { readonly cost: number | null; readonly count: number } | null {
  if (problem.fixed.length > 0 || problem.together.length > 0 || (problem.stages ?? 3) < 3) return null;
  const out = new Set(layout.unplaced.map(({ panel }) => panel));
  const kerf = toNm(problem.kerf);
  const trim = 2 * toNm(problem.trim);
  const found = problem.stock.flatMap(({ length, width, price, count, grain, rack }) => {
    const [across, along] = [toNm(width) - trim + kerf, toNm(length) - trim + kerf];
    const panels = problem.panels
      .flatMap((panel, i) => {
        const size = [toNm(panel.length) + kerf, toNm(panel.width) + kerf] as const;
        const turned = panel.grain && grain === "width";
        const [l, w] = turned ? [size[1], size[0]] : size;
        return Array.from({ length: out.has(i) ? 0 : panel.qty }, () => ({ l, w }));
      })
      .sort((a, b) => b.w - a.w || b.l - a.l);
    if (panels.length > 3000 || panels.some(({ l, w }) => l > along || w > across)) return [];
    const sheets: { y: number; shelves: { x: number; w: number }[] }[] = [];
    for (const { l, w } of panels) {
      const shelf = sheets.flatMap((sheet) => sheet.shelves).find((one) => one.x + l <= along && w <= one.w);
      if (shelf) {
        shelf.x += l;
        continue;
      }
      let sheet = sheets.find(({ y }) => y + w <= across);
      if (!sheet) {
        sheet = { y: 0, shelves: [] };
        sheets.push(sheet);
      }
      sheet.y += w;
      sheet.shelves.push({ x: l, w });
    }
    return count !== null && sheets.length > count
      ? []
      : [{ cost: price === null ? null : price * sheets.length, count: rack === null ? sheets.length : 0 }];
  });
  return leastPlain(found);
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
  return toNm(along) === toNm(length) && toNm(across) === toNm(width)
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
  return wrongWay ? { kind: "against", words: `panel ${panel} lies across the grain` } : null;
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
