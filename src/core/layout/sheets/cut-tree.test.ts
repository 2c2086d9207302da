/** The tree of cuts: what is shown, cut, told as offcut and drawn as line comes from one order. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { at } from "../../kernel";
import { lawRuns } from "../../kernel/law-runs.fixture";
import { LAYOUT_KINDS } from "../kinds";
import { bringBack, movePanel, setAside, setLock } from "./by-hand";
import { cutLines } from "./cut-lines";
import { cutTree, offcutsOf } from "./cut-tree";
import { sheetCuts } from "./cutting-order";
import { layOutSheets } from "./layout";
import { readSheetProblem, type SheetLayout, type SheetProblem, type SheetProblemInput } from "./problem";
import { verifySheets } from "./verify";
import { walkedFault, walkFault } from "./walk";

const solve = (problem: SheetProblem, passes = 4): SheetLayout =>
  layOutSheets(problem, { seed: 1, now: () => 0, budgetMs: 200, passes });
const areaOf = (one: { readonly length: number; readonly width: number }) => one.length * one.width;

/** The carcass of a cabinet 900 × 1100 × 280 from a board of 18: two sides, two ends, a back rail. */
const carcass: SheetProblemInput = {
  kerf: 3.2,
  trim: 0,
  stages: 3,
  stock: [{ length: 2440, width: 1220, price: 54, grain: "length" }],
  panels: [
    { length: 1100, width: 280, qty: 2, grain: true },
    { length: 864, width: 280, qty: 2, grain: true },
    { length: 864, width: 120, qty: 1, grain: true },
  ],
  together: [{ panels: [0, 0], along: "width", qty: 1 }],
};

describe("blanks kept together", () => {
  const problem = readSheetProblem(carcass);
  const layout = solve(problem, 12);
  const sheet = at(layout.sheets, 0);

  it("are ripped as one, cut to length as one, and separated last", () => {
    const { cuts } = sheetCuts(problem, sheet);
    const sides = sheet.placements.flatMap((one, i) => (one.panel === 0 ? [i] : [])).join();
    const own = cuts.filter(({ within }) => [...within].sort((a, b) => a - b).join() === sides);
    const separating = cuts.filter(({ separates }) => separates);
    expect(separating).toHaveLength(1);
    expect(separating[0]).toMatchObject({ kind: "rip", setting: 280, panel: 0 });
    // Whatever else lies beside them: the blank of 563.2 comes off whole before it is separated.
    const blank = cuts.findIndex(({ part }) => part === separating[0]?.of);
    expect(blank).toBeGreaterThanOrEqual(0);
    expect(cuts.indexOf(at(separating, 0))).toBeGreaterThan(blank);
    expect(own).toContain(separating[0]);
    expect(cuts.some(({ kind, setting }) => kind === "rip" && setting === 563.2)).toBe(true);
    expect(cuts.some(({ kind, setting }) => kind === "cross" && setting === 1100)).toBe(true);
  });

  it("two sides alone: rip 563.2, cross-cut 1100, rip 280; the offcuts are what these cuts leave", () => {
    const alone = readSheetProblem({
      ...carcass,
      panels: [{ length: 1100, width: 280, qty: 2, grain: true }],
    });
    const one = at(solve(alone).sheets, 0);
    const { cuts, left } = sheetCuts(alone, one);
    const told = cuts.map(({ kind, setting }) => `${kind} ${setting}`);
    expect([
      ["rip 563.2", "cross 1100", "rip 280"],
      ["cross 1100", "rip 563.2", "rip 280"],
    ]).toContainEqual(told);
    expect(left.map(({ panel }) => panel)).toEqual([null, null, 0]);
    // Ripped first: 2440 × 653.6 and 1336.8 × 563.2. Cross-cut first: 1336.8 × 1220 and 1100 × 653.6, the larger offcut.
    expect(one.offcuts.map(({ length, width }) => `${length} × ${width}`).sort()).toEqual([
      "1100 × 653.6",
      "1336.8 × 1220",
    ]);
  });

  it("stay together while they are locked, set aside and brought back", () => {
    const index = sheet.placements.findIndex((one) => one.together);
    const locked = setLock(layout, { sheet: 0, index }, true);
    const held = LAYOUT_KINDS.sheets.withOwnLocks(problem, locked);
    expect(held.fixed[0]?.placements.every(({ together }) => together !== undefined)).toBe(true);
    const again = solve(held);
    expect(verifySheets(held, again)).toBeNull();
    expect(sheetCuts(held, at(again.sheets, 0)).cuts.filter(({ separates }) => separates)).toHaveLength(1);
    const aside = setAside(problem, layout, { sheet: 0, index });
    if (!aside.ok) throw new Error(aside.problem.message);
    const back = bringBack(problem, aside.value, 0, { sheet: 1, stock: 0, x: 0, y: 0, rotated: false });
    if (!back.ok) throw new Error(back.problem.message);
    expect(back.value.unplaced).toEqual([]);
    expect(verifySheets(problem, back.value)).toBeNull();
  });
});

describe("the tree of cuts", () => {
  it("of a panel in a corner leaves the larger offcut, and needs a stage more for it only when it may", () => {
    const input: SheetProblemInput = {
      kerf: 4,
      stages: 2,
      stock: [{ length: 1000, width: 500, price: 1 }],
      panels: [{ length: 300, width: 450, qty: 1 }],
    };
    const problem = readSheetProblem(input);
    const sheet = {
      stock: 0,
      placements: [{ panel: 0, x: 0, y: 0, length: 300, width: 450, rotated: false }],
    };
    // Cross-cut first would leave 696 × 500, but then a rip is the third run.
    expect(
      offcutsOf(problem, sheet)
        .map(areaOf)
        .sort((a, b) => b - a),
    ).toEqual([696 * 450, 1000 * 46]);
    const free = readSheetProblem({ ...input, stages: null });
    expect(
      offcutsOf(free, sheet)
        .map(areaOf)
        .sort((a, b) => b - a),
    ).toEqual([696 * 500, 300 * 46]);
  });

  it("joins offcuts across strips where one more stage allows: no order of every clean cut would", () => {
    // A strip across the bottom; above it two rows that end alike, so that one cut frees the rest of both.
    const problem = readSheetProblem({
      kerf: 0,
      stages: null,
      stock: [{ length: 1000, width: 600, price: 1 }],
      panels: [
        { length: 1000, width: 200, qty: 1 },
        { length: 500, width: 200, qty: 2 },
      ],
    });
    const placed = (panel: number, y: number, length: number) => ({
      panel,
      x: 0,
      y,
      length,
      width: 200,
      rotated: false,
    });
    const sheet = { stock: 0, placements: [placed(0, 0, 1000), placed(1, 200, 500), placed(1, 400, 500)] };
    expect(offcutsOf(problem, sheet)).toEqual([{ x: 500, y: 200, length: 500, width: 400 }]);
  });

  it("has no order for a pinwheel", () => {
    const problem = readSheetProblem({
      kerf: 0,
      stock: [{ length: 300, width: 300, price: 1 }],
      panels: [{ length: 200, width: 100, qty: 4 }],
    });
    const one = (x: number, y: number, rotated: boolean) => ({
      panel: 0,
      x,
      y,
      length: rotated ? 100 : 200,
      width: rotated ? 200 : 100,
      rotated,
    });
    const placements = [one(0, 0, false), one(200, 0, true), one(100, 200, false), one(0, 100, true)];
    expect(cutTree(problem, { stock: 0, placements })).toBeNull();
  });

  it("every cut line lies in a kerf, on no panel and on no offcut", () => {
    const problem = readSheetProblem({ ...carcass, kerf: 4, trim: 12 });
    for (const sheet of solve(problem).sheets)
      for (const { from, to } of cutLines(problem, sheet))
        for (const box of [...sheet.placements, ...sheet.offcuts]) {
          const x = (from[0] + to[0]) / 2;
          const y = (from[1] + to[1]) / 2;
          const isIn = x > box.x && x < box.x + box.length && y > box.y && y < box.y + box.width;
          expect(isIn).toBe(false);
        }
  });
});

describe("cut on paper", () => {
  const panel = fc.record({
    length: fc.integer({ min: 60, max: 700 }),
    width: fc.integer({ min: 40, max: 400 }),
    qty: fc.integer({ min: 2, max: 4 }),
    grain: fc.boolean(),
  });

  it("gives the panels and the offcuts that are told: laid out, kept together, locked, moved and set aside", () => {
    fc.assert(
      fc.property(
        fc.array(panel, { minLength: 1, maxLength: 5 }),
        fc.constantFrom(0, 3.2),
        fc.constantFrom(0, 8),
        fc.constantFrom(3, 4, null),
        fc.boolean(),
        fc.integer({ min: 0, max: 900 }),
        (panels, kerf, trim, stages, together, place) => {
          const problem = readSheetProblem({
            kerf,
            trim,
            stages,
            stock: [{ length: 1220, width: 700, price: 20, grain: "length" }],
            panels,
            together: together ? [{ panels: [0, 0], along: "width", qty: 1 }] : [],
          });
          const layout = solve(problem, 2);
          expect(verifySheets(problem, layout)).toBeNull();
          const last = layout.sheets.length - 1;
          if (last < 0) return;
          // Put down anywhere: gaps of less than a kerf, offcuts on both sides, other strips.
          const spot = { sheet: last, x: trim + place, y: trim + (place % 97), rotated: false };
          const moved = movePanel(problem, layout, { sheet: last, index: 0 }, spot);
          if (moved.ok) {
            expect(verifySheets(problem, moved.value)).toBeNull();
            const locked = LAYOUT_KINDS.sheets.withOwnLocks(
              problem,
              setLock(moved.value, { sheet: last, index: 0 }, true),
            );
            expect(verifySheets(locked, solve(locked, 1))).toBeNull();
          }
          const aside = setAside(problem, layout, { sheet: last, index: 0 });
          if (aside.ok) expect(verifySheets(problem, aside.value)).toBeNull();
        },
      ),
      {
        numRuns: lawRuns(25),
        // A locked blank that needs a run of its own to be separated, beyond the last one that is set.
        examples: [
          [
            [
              { length: 391, width: 151, qty: 2, grain: true },
              { length: 683, width: 166, qty: 2, grain: true },
              { length: 60, width: 40, qty: 2, grain: false },
              { length: 545, width: 67, qty: 3, grain: false },
              { length: 174, width: 393, qty: 2, grain: true },
            ],
            3.2,
            0,
            4,
            true,
            3,
          ],
        ],
      },
    );
  });

  it("finds an order that gives other panels, other offcuts, or cuts what is not there", () => {
    const problem = readSheetProblem(carcass);
    const sheet = at(solve(problem).sheets, 0);
    const order = sheetCuts(problem, sheet);
    expect(walkFault(problem, sheet)).toBeNull();
    const [first] = order.cuts;
    const changed = (more: object) => ({
      ...order,
      cuts: order.cuts.map((cut) => (cut === first ? { ...cut, ...more } : cut)),
    });
    expect(walkedFault(problem, sheet, changed({ setting: (first?.setting ?? 0) + 1 }))).not.toBeNull();
    expect(walkedFault(problem, sheet, changed({ of: 77 }))).toMatch(/part 77 is cut/);
    expect(walkedFault(problem, { ...sheet, offcuts: sheet.offcuts.slice(1) }, order)).toMatch(/offcuts/);
  });
});
