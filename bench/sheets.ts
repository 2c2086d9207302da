/**
 * Sheet layouts on the published classes and on shop-like jobs: sheets against the lower bound, against a general-purpose
 * packer that needs no guillotine cuts, and against shelves. Classes 1–6: J. O. Berkey and P. Y. Wang, "Two-dimensional
 * finite bin-packing algorithms", Journal of the Operational Research Society 38 (1987); classes 7–10: S. Martello and
 * D. Vigo, "Exact solution of the two-dimensional finite bin packing problem", Management Science 44 (1998). The generators
 * follow the class definitions (from memory); the draws are our own, so published averages do not apply.
 */
// The package names a CommonJS file as its entry though it says it is a module: taken by its path.

import { type Random, seededRandom } from "@/core/kernel";
import {
  layOutSheets,
  readSheetProblem,
  type SheetProblem,
  sheetCuts,
  verifySheets,
} from "@/core/layout/sheets";
import { MaxRectsPacker } from "../node_modules/maxrects-packer/dist/maxrects-packer.mjs";
import { shelfSheets } from "./references";

const between = (random: Random, low: number, high: number) => low + random.below(high - low + 1);

type Draw = (random: Random) => readonly [number, number];
const square =
  (most: number): Draw =>
  (random) => [between(random, 1, most), between(random, 1, most)];

const [W, H] = [100, 100];
const KINDS: readonly Draw[] = [
  (random) => [between(random, Math.ceil((2 * W) / 3), W), between(random, 1, H / 2)],
  (random) => [between(random, 1, W / 2), between(random, Math.ceil((2 * H) / 3), H)],
  (random) => [between(random, W / 2, W), between(random, H / 2, H)],
  (random) => [between(random, 1, W / 2), between(random, 1, H / 2)],
];
/** Seven of ten of one kind, one of ten of each other. */
const mostly =
  (kind: number): Draw =>
  (random) => {
    const roll = random.below(10);
    const others = [0, 1, 2, 3].filter((one) => one !== kind);
    const pick = roll < 7 ? kind : (others[roll - 7] ?? kind);
    return KINDS[pick]?.(random) ?? [1, 1];
  };

const CLASSES: readonly (readonly [number, Draw])[] = [
  [10, square(10)],
  [30, square(10)],
  [40, square(35)],
  [100, square(35)],
  [100, square(100)],
  [300, square(100)],
  [100, mostly(0)],
  [100, mostly(1)],
  [100, mostly(2)],
  [100, mostly(3)],
];

function classProblem(side: number, draw: Draw, n: number, oriented: boolean, random: Random): SheetProblem {
  return readSheetProblem({
    kerf: 0,
    stock: [{ length: side, width: side, price: 1, grain: "length" }],
    panels: Array.from({ length: n }, () => {
      const [length, width] = draw(random);
      return { length, width, qty: 1, grain: oriented };
    }),
  });
}

/** Cabinet-like panels: a few depths and heights that come again and again. */
function shopProblem(pieces: number, random: Random): SheetProblem {
  const depths = Array.from({ length: 5 }, () => between(random, 80, 620));
  const panels: { length: number; width: number; qty: number; grain: boolean }[] = [];
  for (let left = pieces; left > 0; ) {
    const qty = Math.min(left, between(random, 1, 6));
    const width = depths[random.below(depths.length)] ?? 300;
    // One in four is a side or a long shelf, the others are shelves, fronts, drawer parts.
    const length = random.below(4) === 0 ? between(random, 700, 2100) : between(random, 150, 800);
    panels.push({ length, width, qty, grain: random.below(3) > 0 });
    left -= qty;
  }
  return readSheetProblem({
    kerf: 4,
    trim: 10,
    stages: random.below(2) === 0 ? 3 : null,
    stock: [{ length: 2440, width: 1220, price: 50, grain: "length" }],
    panels,
  });
}

/** The free packer's best over its own settings. */
function freeSheets({ stock, panels, kerf, trim }: SheetProblem, oriented: boolean): number {
  const [sheet] = stock;
  if (!sheet) return 0;
  const [length, width] = [sheet.length - 2 * trim + kerf, sheet.width - 2 * trim + kerf];
  const rects = panels.flatMap((panel) =>
    Array.from({ length: panel.qty }, () => ({
      width: panel.length + kerf,
      height: panel.width + kerf,
      allowRotation: !oriented && !panel.grain,
    })),
  );
  let best = Number.POSITIVE_INFINITY;
  for (const logic of [0, 1]) {
    for (const order of [0, 1, 2]) {
      const sorted = [...rects].sort((a, b) =>
        order === 0
          ? b.width * b.height - a.width * a.height
          : order === 1
            ? Math.max(b.width, b.height) - Math.max(a.width, a.height)
            : 0,
      );
      const packer = new MaxRectsPacker(length, width, 0, {
        smart: false,
        pot: false,
        square: false,
        allowRotation: !oriented,
        logic,
      });
      if (order === 2) packer.addArray(sorted.map((one) => ({ ...one, x: 0, y: 0 })) as never);
      else for (const one of sorted) packer.add({ ...one, x: 0, y: 0 } as never);
      best = Math.min(best, packer.bins.length);
    }
  }
  return best;
}

type Sums = { sheets: number; bound: number; free: number; shelf: number; proven: number; over: number };

function classRow(index: number, draws: number, budgetMs: number): Sums {
  const [side, draw] = CLASSES[index] ?? [10, square(10)];
  const sums: Sums = { sheets: 0, bound: 0, free: 0, shelf: 0, proven: 0, over: 0 };
  for (const oriented of [true, false]) {
    const random = seededRandom(100 + index);
    for (const n of [20, 40, 60, 80, 100]) {
      for (let k = 0; k < draws; k++) {
        const problem = classProblem(side, draw, n, oriented, random);
        const layout = layOutSheets(problem, {
          seed: 1,
          now: () => performance.now(),
          budgetMs,
          passes: 4000,
        });
        const fault = verifySheets(problem, layout);
        if (fault !== null) throw new Error(`class ${index + 1}: ${fault}`);
        const shelf = shelfSheets(problem);
        sums.sheets += layout.count;
        sums.bound += layout.lowerBound;
        sums.free += freeSheets(problem, oriented);
        sums.shelf += shelf;
        if (layout.proven) sums.proven++;
        if (layout.count > shelf) sums.over++;
      }
    }
  }
  return sums;
}

export function sheetTable(draws = 1, budgetMs = 3000, only: readonly number[] = []): void {
  console.log(`Sheet layouts, ${budgetMs / 1000} s each: sheets beside the bound, a free packer and shelves`);
  const total: Sums = { sheets: 0, bound: 0, free: 0, shelf: 0, proven: 0, over: 0 };
  CLASSES.forEach((_, index) => {
    if (only.length > 0 && !only.includes(index + 1)) return;
    const sums = classRow(index, draws, budgetMs);
    for (const key of Object.keys(total) as (keyof Sums)[]) total[key] += sums[key];
    console.log(`  ${rowText(`class ${index + 1}`, sums, draws * 10)}`);
  });
  console.log(`  ${rowText("all classes", total, draws * 100)}`);
  if (only.length === 0) shopTable();
  console.log("");
}

const rowText = (name: string, sums: Sums, of: number) =>
  `${name.padEnd(14)}${String(sums.sheets).padStart(6)} sheets, ${(sums.sheets / sums.bound).toFixed(3)} of the bound, ${(sums.sheets / sums.free).toFixed(3)} of the free packer, ${(sums.sheets / sums.shelf).toFixed(3)} of shelves; ${sums.proven} of ${of} proven, ${sums.over} worse than shelves`;

function shopTable(): void {
  for (const [pieces, budgetMs] of [
    [50, 5000],
    [150, 5000],
    [500, 5000],
  ] as const) {
    let [equivalent, first, settings, cuts, plain, plainCuts, sheets, free, shelves] = [
      0, 0, 0, 0, 0, 0, 0, 0, 0,
    ];
    const jobs = 4;
    const random = seededRandom(31);
    for (let k = 0; k < jobs; k++) {
      const problem = shopProblem(pieces, random);
      const start = performance.now();
      let begun = 0;
      const layout = layOutSheets(problem, {
        seed: 1,
        now: () => performance.now(),
        budgetMs,
        onProgress: () => {
          begun ||= performance.now() - start;
        },
      });
      const fault = verifySheets(problem, layout);
      if (fault !== null) throw new Error(`shop: ${fault}`);
      first = Math.max(first, begun);
      sheets += layout.count;
      free += freeSheets(problem, false);
      shelves += shelfSheets(problem);
      const [sheet] = problem.stock;
      if (!sheet) continue;
      const area =
        (sheet.length - 2 * problem.trim + problem.kerf) * (sheet.width - 2 * problem.trim + problem.kerf);
      const need = problem.panels.reduce(
        (sum, panel) => sum + panel.qty * (panel.length + problem.kerf) * (panel.width + problem.kerf),
        0,
      );
      const offcut = Math.max(
        0,
        ...layout.sheets.flatMap((one) => one.offcuts.map((o) => o.length * o.width)),
      );
      equivalent += (layout.count - offcut / area) / (need / area) / jobs;
      for (const one of layout.sheets) {
        const order = sheetCuts(problem, one);
        settings += order.settings;
        cuts += order.cuts.length;
      }
      const quick = layOutSheets(problem, { seed: 1, now: () => performance.now(), budgetMs, tidy: false });
      for (const one of quick.sheets) {
        const order = sheetCuts(problem, one);
        plain += order.settings;
        plainCuts += order.cuts.length;
      }
    }
    console.log(
      `  shop, ${pieces} panels: sheets less the largest offcut ${equivalent.toFixed(3)} of the area; ${sheets} sheets, free packer ${free}, shelves ${shelves}; first layout ${first.toFixed(0)} ms; ${settings} settings, ${cuts} cuts (without tidying ${plain} and ${plainCuts})`,
    );
  }
}
