/** The parts of a sheet layout on their own: bounds by their definition, the best candidates, trees of clean cuts, one fill. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { seededRandom } from "../../kernel";
import { lawRuns } from "../../kernel/law-runs.fixture";
import { dualsFor, sheetBound } from "./bound";
import { Candidates } from "./candidates";
import { type CutPart, cutTree, offcutsOf } from "./cut-tree";
import { fillSheet } from "./fill";
import { prepare, singlesOf } from "./instance";
import { layOutSheets, lockedFault } from "./layout";
import { readSheetProblem, type SheetProblemInput } from "./problem";
import { verifySheets } from "./verify";

const instanceOf = (parts: SheetProblemInput) => prepare(readSheetProblem(parts)).instance;
/** The bound in sheets of 1000 × 500 at 1, for panels that are as wide as the sheet: only their lengths count. */
const boundOf = (lengths: readonly (readonly [length: number, qty: number])[], more: object = {}) =>
  sheetBound(
    instanceOf({
      kerf: 0,
      stages: null,
      stock: [{ length: 1000, width: 500, price: 1, grain: "length" }],
      panels: lengths.map(([length, qty]) => ({ length, width: 500, qty, grain: true })),
      ...more,
    }),
    1000 * 10_000,
  ) / 10_000;

describe("bounds", () => {
  it("dual feasible functions (Fekete and Schepers 2004): no shares that sum to one ever sum to more under them", () => {
    // Shares of 60ths, so that sums of exactly one are common.
    const share = fc.integer({ min: 1, max: 60 });
    fc.assert(
      fc.property(
        fc.array(share, { minLength: 1, maxLength: 12 }),
        fc.array(share, { maxLength: 6 }),
        (all, others) => {
          const within: number[] = [];
          let sum = 0;
          for (const one of all)
            if (sum + one <= 60) {
              sum += one;
              within.push(one / 60);
            }
          for (const dual of dualsFor([...within, ...others.map((one) => one / 60)])) {
            expect(within.reduce((total, one) => total + dual(one), 0)).toBeLessThanOrEqual(1 + 1e-9);
            for (const one of within) expect(dual(one)).toBeGreaterThanOrEqual(0);
          }
        },
      ),
      { numRuns: lawRuns(600) },
    );
  });

  it.each<[string, readonly (readonly [number, number])[], number]>([
    ["area alone: eight of 400", [[400, 8]], 4],
    ["halves that do not pair: three of 501", [[501, 3]], 3],
    ["thirds: five of 340 go two on a sheet", [[340, 5]], 3],
    // A sheet with one of 610 has room for one of 200 and 190 to spare: six of 200 want a sixth sheet.
    [
      "what is left beside a large one: five of 610 and six of 200",
      [
        [610, 5],
        [200, 6],
      ],
      6,
    ],
    [
      "exactly filled: four of 750 and four of 250",
      [
        [750, 4],
        [250, 4],
      ],
      4,
    ],
    [
      "sixths and thirds: 2 of 501, 2 of 335, 1 of 170",
      [
        [501, 2],
        [335, 2],
        [170, 1],
      ],
      3,
    ],
  ])("%s", (_, lengths, sheets) => {
    expect(boundOf(lengths)).toBe(sheets);
  });

  it("panels that cannot lie together in any turn want a sheet each", () => {
    const parts = (width: number): SheetProblemInput => ({
      kerf: 0,
      stages: null,
      stock: [{ length: 1000, width: 500, price: 1 }],
      // 510 × 260 lies one a sheet along, and does not fit across.
      panels: [{ length: 510, width, qty: 4 }],
    });
    expect(sheetBound(instanceOf(parts(260)), 80_000) / 10_000).toBe(4);
    expect(sheetBound(instanceOf(parts(250)), 80_000) / 10_000).toBe(2);
  });

  it("what is cheap or limited counts as far as it goes", () => {
    const stock = [
      { length: 1000, width: 500, price: 10, grain: "length" as const },
      { length: 1000, width: 500, price: 2, count: 1, grain: "length" as const },
    ];
    // Two sheets by area: the one at 2, and one at 10.
    expect(boundOf([[400, 5]], { stock })).toBe(12);
    expect(boundOf([[400, 2]], { stock })).toBe(2);
  });
});

describe("candidates", () => {
  it("the best are those of a full sort, cut off below the last that counts, ties in their order", () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 1, maxLength: 200 }),
        fc.integer({ min: 1, max: 40 }),
        (scores, most) => {
          const candidates = new Candidates();
          scores.forEach((score, i) => {
            candidates.add(score, i, 0, 0, 1, 0);
          });
          const sorted = scores
            .map((score, i) => ({ score, i }))
            .sort((a, b) => b.score - a.score || a.i - b.i);
          const floor = sorted.length <= 2 * most ? -1 : (sorted[most - 1]?.score ?? -1);
          expect(candidates.best(most)).toEqual(
            sorted.filter(({ score }) => score >= floor).map(({ i }) => i),
          );
        },
      ),
    );
  });
});

describe("trees of clean cuts", () => {
  const problem = readSheetProblem({
    kerf: 0,
    stages: null,
    keep: 50,
    stock: [{ length: 1000, width: 600, price: 1 }],
    panels: [{ length: 400, width: 300, qty: 4 }],
  });
  const at = (x: number, y: number) => ({ panel: 0, x, y, length: 400, width: 300, rotated: false });
  const largest = (part: CutPart | null): number => {
    if (!part) return 0;
    if (part.kind === "cut") return Math.max(...part.parts.map(largest));
    return part.kind === "offcut" ? (part.region.length * part.region.width) / 1e12 : 0;
  };

  it("begin with the way that leaves the larger offcut", () => {
    // Cut across first, what is right of both stays whole; ripped first, it is parted into two halves.
    const upright = { stock: 0, placements: [at(0, 0), at(0, 300)] };
    expect(largest(cutTree(problem, upright, "plain"))).toBe(600 * 300);
    expect(largest(cutTree(problem, upright, "clean"))).toBe(600 * 600);
    // Ripped first, the upper half stays whole.
    const lying = { stock: 0, placements: [at(0, 0), at(400, 0)] };
    expect(largest(cutTree(problem, lying, "clean"))).toBe(1000 * 300);
  });

  it("leave no larger offcut than the best tree does, whatever lies there", () => {
    const spots = [at(0, 0), at(400, 0), at(0, 300), at(400, 300)];
    fc.assert(
      fc.property(fc.subarray(spots, { minLength: 1 }), (placements) => {
        const sheet = { stock: 0, placements };
        const best = Math.max(0, ...offcutsOf(problem, sheet).map(({ length, width }) => length * width));
        expect(largest(cutTree(problem, sheet))).toBeCloseTo(best, 6);
        expect(largest(cutTree(problem, sheet, "clean"))).toBeLessThanOrEqual(best + 1e-6);
      }),
    );
  });
});

describe("trees of clean cuts within stages", () => {
  it("go no deeper than the stages allow, and are none where they would have to", () => {
    // A strip of two across, cut to two widths: rip, cross-cut, rip again.
    const problem = (stages: number | null) =>
      readSheetProblem({
        kerf: 0,
        stages,
        stock: [{ length: 1000, width: 600, price: 1 }],
        panels: [
          { length: 500, width: 400, qty: 1 },
          { length: 500, width: 300, qty: 1 },
          { length: 1000, width: 200, qty: 1 },
        ],
      });
    const lying = (panel: number, x: number, y: number, length: number, width: number) => ({
      panel,
      x,
      y,
      length,
      width,
      rotated: false,
    });
    const placements = [lying(0, 0, 0, 500, 400), lying(1, 500, 0, 500, 300), lying(2, 0, 400, 1000, 200)];
    const deepest = (part: CutPart | null): number =>
      part?.kind === "cut" ? Math.max(part.stage, ...part.parts.map(deepest)) : 0;
    for (const effort of ["best", "clean"] as const) {
      expect(deepest(cutTree(problem(null), { stock: 0, placements }, effort))).toBe(3);
      expect(deepest(cutTree(problem(3), { stock: 0, placements }, effort))).toBe(3);
      expect(cutTree(problem(2), { stock: 0, placements }, effort)).toBeNull();
    }
  });
});

describe("locked panels and limited sheets", () => {
  const parts = (count: number, fixed: number): SheetProblemInput => ({
    kerf: 0,
    stock: [
      { length: 1000, width: 500, price: 5, count },
      { length: 800, width: 400, price: 3 },
    ],
    panels: [
      { length: 900, width: 450, qty: 3 },
      { length: 1200, width: 100, qty: 1 },
    ],
    fixed: Array.from({ length: fixed }, () => ({
      stock: 0,
      placements: [{ panel: 0, x: 0, y: 0, rotated: false, against: false }],
    })),
  });

  it("hold no more sheets than there are", () => {
    expect(lockedFault(readSheetProblem(parts(2, 2)))).toBeNull();
    expect(lockedFault(readSheetProblem(parts(1, 2)))).toBe("there are fewer sheets than hold locked panels");
    expect(lockedFault(readSheetProblem(parts(9, 4)))).toBe("panel 0 is locked more often than it is wanted");
  });

  it("what is told of a panel that fits none is what the largest sheet gives, and the check knows it", () => {
    const told = (count: number, fixed: number) => {
      const problem = readSheetProblem(parts(count, fixed));
      const layout = layOutSheets(problem, { seed: 1, now: () => 0, budgetMs: 1, passes: 1 });
      const found = layout.unplaced.find(({ panel }) => panel === 1);
      return { problem, layout, why: found?.why };
    };
    expect(told(2, 0).why).toMatchObject({ kind: "tooLarge", largest: [1000, 500] });
    expect(told(2, 1).why).toMatchObject({ kind: "tooLarge", largest: [1000, 500] });
    // Both large sheets hold locked panels: the largest there is is told all the same.
    expect(told(2, 2).why).toMatchObject({ kind: "tooLarge", largest: [1000, 500] });
    const { problem, layout, why } = told(0, 0);
    expect(why).toMatchObject({ kind: "tooLarge", largest: [800, 400] });
    const claimed = layout.unplaced.map((one) =>
      one.why.kind === "tooLarge"
        ? { ...one, why: { ...one.why, largest: [1000, 500] as [number, number] } }
        : one,
    );
    expect(verifySheets(problem, { ...layout, unplaced: claimed })).toMatch(
      /an unplaced panel is said to be/,
    );
  });

  it("counts single panels beside those that are kept together or locked", () => {
    const problem = readSheetProblem({
      kerf: 0,
      stock: [{ length: 1000, width: 600 }],
      panels: [{ length: 200, width: 100, qty: 7 }],
      together: [{ panels: [0, 0], along: "width", qty: 2 }],
      fixed: [{ stock: 0, placements: [{ panel: 0, x: 0, y: 0, rotated: false, against: false }] }],
    });
    // One is locked by itself, four are two runs, two are left.
    expect(singlesOf(problem, 0)).toBe(3);
  });
});

describe("one sheet", () => {
  /** Parts of a sheet that was cut right across again and again: together they fill it. */
  function cutUp(seed: number, parts: number): readonly { length: number; width: number }[] {
    const random = seededRandom(seed);
    const pieces = [{ length: 1000, width: 600 }];
    while (pieces.length < parts) {
      pieces.sort((a, b) => b.length * b.width - a.length * a.width);
      const [one] = pieces.splice(0, 1);
      if (!one) break;
      const share = 0.3 + 0.4 * random.next();
      const along = one.length > one.width;
      const cut = Math.round((along ? one.length : one.width) * share);
      pieces.push(
        along ? { ...one, length: cut } : { ...one, width: cut },
        along ? { ...one, length: one.length - cut } : { ...one, width: one.width - cut },
      );
    }
    return pieces;
  }
  const filled = (width: number) =>
    Array.from({ length: 24 }, (_, seed) => {
      const instance = instanceOf({
        kerf: 0,
        stages: null,
        stock: [{ length: 1000, width: 600, price: 1 }],
        panels: cutUp(seed, 8).map((one) => ({ ...one, qty: 1 })),
      });
      const rest = instance.classes.map((one) => one.demand);
      const random = seededRandom(1);
      const fill = fillSheet(instance, 0, rest, {
        width,
        values: null,
        stages: Number.POSITIVE_INFINITY,
        random,
        noise: 0,
      });
      // What is placed and what is left over are the sheet, and no panel is placed that is not wanted.
      const waste = fill.waste.reduce((sum, rect) => sum + rect.length * rect.width, 0);
      expect((fill.area + waste) / (1000e6 * 600e6)).toBeCloseTo(1, 12);
      fill.placed.forEach((count, c) => {
        expect(count).toBeLessThanOrEqual(rest[c] ?? 0);
      });
      return fill.area / (1000e6 * 600e6);
    });

  it("is filled whole from its own parts by a beam, and less well by looking at one state alone", () => {
    const whole = (shares: readonly number[]) => shares.filter((share) => share > 1 - 1e-9).length;
    expect(whole(filled(1))).toBeLessThan(3);
    expect(whole(filled(60))).toBeGreaterThan(19);
  });
});
