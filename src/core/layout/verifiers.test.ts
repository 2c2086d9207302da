/** Each check refuses every wrong claim: valid layouts, changed in one field at a time. */
import { describe, expect, it } from "vitest";
import { loadLinearSolver } from "../../engines/linear-solver";
import { layOutBars, readBarProblem, verifyBars } from "./bars";
import { layOutNesting, readNestingProblem, verifyNesting } from "./nesting";
import { layOutSheets, readSheetProblem, verifySheets } from "./sheets";
import { mutationsOf } from "./stock/mutations.fixture";

/** What may be claimed less of without being wrong: a lower bound where nothing is proven, and reasons in words. */
type Layout = {
  readonly proven: boolean;
  readonly lowerBoundOf: "cost" | "count";
  readonly unplaced: readonly unknown[];
};
const isHarmless = (path: string, change: string, { proven, lowerBoundOf, unplaced }: Layout) =>
  (path === ".lowerBound" && !proven && change !== "raised" && change !== "negated") ||
  (path === ".proven" && proven && (lowerBoundOf === "count" || unplaced.length > 0));

function refusesAll<T extends Layout>(
  layout: T,
  fault: (layout: T) => string | null,
  harmless?: RegExp,
): number {
  expect(fault(layout)).toBeNull();
  const accepted = mutationsOf(layout).filter(
    ({ path, change, value }) =>
      !isHarmless(path, change, layout) && !harmless?.test(`${path} ${change}`) && fault(value) === null,
  );
  expect(accepted.map(({ path, change }) => `${path} ${change}`)).toEqual([]);
  return mutationsOf(layout).length;
}

describe("a check refuses every wrong claim", () => {
  it("of bars: square ends, limited stock, prices", async () => {
    const solver = await loadLinearSolver();
    const problem = readBarProblem({
      kerf: 2.5,
      trim: 5,
      stock: [
        { length: 6000, price: 21.6 },
        { length: 3000, price: 12, count: 2 },
      ],
      pieces: [
        { length: 1200, qty: 7 },
        { length: 745, qty: 5 },
        { length: 9000, qty: 1 },
      ],
    });
    const layout = layOutBars(problem, { solver, now: () => 0, budgetMs: 500 });
    expect(layout).toMatchObject({ proven: true, lowerBoundOf: "cost" });
    expect(refusesAll(layout, (one) => verifyBars(problem, one))).toBeGreaterThan(60);
  });

  it("of bars whose mitres share cuts", async () => {
    const solver = await loadLinearSolver();
    const ends = { plane: "x", depth: 40, angles: [45, -45] as [number, number], turns: ["roll" as const] };
    const problem = readBarProblem({
      kerf: 2.5,
      trim: 5,
      share: true,
      stock: [{ length: 3000, price: 10 }],
      pieces: [{ length: 640, qty: 6, ends }],
    });
    const layout = layOutBars(problem, { solver, now: () => 0, budgetMs: 500 });
    expect(layout.shared?.cuts).toBeGreaterThan(0);
    refusesAll(layout, (one) => verifyBars(problem, one));
  });

  it("of bars: a proof that is none, at a bound that was raised to it", async () => {
    const solver = await loadLinearSolver();
    const problem = readBarProblem({
      kerf: 2,
      stock: [{ length: 1000, price: 5 }],
      pieces: [{ length: 300, qty: 6 }],
    });
    const layout = layOutBars(problem, { solver, now: () => 0, budgetMs: 500 });
    const bar = (pieces: number[]) => ({
      stock: 0,
      times: 1,
      pieces,
      remainder: 1000 - pieces.length * 302,
    });
    const worse = {
      ...layout,
      bars: [bar([0, 0]), bar([0, 0]), bar([0, 0])],
      count: 3,
      cost: 15,
    };
    expect(layout).toMatchObject({ count: 2, proven: true });
    expect(verifyBars(problem, { ...worse, proven: false })).toBeNull();
    expect(verifyBars(problem, { ...worse, proven: true })).toMatch(/proven at 15/);
    expect(verifyBars(problem, { ...worse, proven: true, lowerBound: 15 })).toMatch(/a plain rule finds 10/);
  });

  const sheets = {
    kerf: 3.2,
    trim: 10,
    stages: 3,
    stock: [
      { length: 2440, width: 1220, price: 54, grain: "length" as const },
      { length: 1000, width: 800, price: 0, count: 1, rack: "R1" },
    ],
    panels: [
      { length: 900, width: 280, qty: 4, grain: true },
      { length: 560, width: 500, qty: 5 },
      { length: 2600, width: 100, qty: 1 },
    ],
  };
  it("of sheets: places, offcuts, use, cost, what is kept together", () => {
    const problem = readSheetProblem({
      ...sheets,
      together: [{ panels: [0, 0], along: "width", qty: 2 }],
    });
    const layout = layOutSheets(problem, { seed: 1, now: () => 0, budgetMs: 300, passes: 4 });
    expect(layout.sheets.flatMap((one) => one.offcuts).length).toBeGreaterThan(0);
    // A run may have any number, and a panel that moves by a hair where there is room is laid otherwise, not wrongly.
    refusesAll(
      layout,
      (one) => verifySheets(problem, one),
      /together\.run|placements\[\]\.[xy] .*(raised|lowered)/,
    );
  });

  it("of sheets: a run that is separated onto another sheet, and one that is told as single panels", () => {
    const problem = readSheetProblem({
      ...sheets,
      panels: sheets.panels.slice(0, 1),
      together: [{ panels: [0, 0], along: "width", qty: 2 }],
    });
    const layout = layOutSheets(problem, { seed: 1, now: () => 0, budgetMs: 300, passes: 4 });
    const single = {
      ...layout,
      sheets: layout.sheets.map((sheet) => ({
        ...sheet,
        placements: sheet.placements.map(({ together: _, ...one }) => one),
      })),
    };
    expect(verifySheets(problem, single)).toMatch(/not kept together/);
  });

  it("of stock: no more of it is used than there is", async () => {
    const stock = [{ length: 1000, width: 500, price: 7 }];
    const limited = <P extends { readonly stock: readonly object[] }>(problem: P, count: number) => ({
      ...problem,
      stock: problem.stock.map((one) => ({ ...one, count })),
    });
    const bars = readBarProblem({ kerf: 2, stock, pieces: [{ length: 600, qty: 3 }] });
    const solver = await loadLinearSolver();
    const onBars = layOutBars(bars, { solver, now: () => 0, budgetMs: 100 });
    const sheets = readSheetProblem({ kerf: 2, stock, panels: [{ length: 600, width: 400, qty: 3 }] });
    const onSheets = layOutSheets(sheets, { seed: 1, now: () => 0, budgetMs: 100 });
    const outline: [number, number][] = [
      [0, 0],
      [600, 0],
      [600, 400],
      [0, 400],
    ];
    const shapes = readNestingProblem({ gap: 2, margin: 0, step: 90, stock, shapes: [{ outline, qty: 3 }] });
    const onShapes = layOutNesting(shapes, { seed: 1, now: () => 0, budgetMs: 100 });
    const faults = (count: number) => [
      verifyBars(limited(bars, count), onBars),
      verifySheets(limited(sheets, count), onSheets),
      verifyNesting(limited(shapes, count), onShapes),
    ];
    expect(faults(3)).toEqual([null, null, null]);
    for (const fault of faults(2)) expect(fault).toMatch(/stock 0 is used 3 times/);
  });

  it("of shapes: turns against their step, rests beyond the sheet, use and cost", () => {
    const outline: [number, number][] = [
      [0, 0],
      [200, 0],
      [0, 200],
    ];
    const problem = readNestingProblem({
      gap: 5,
      margin: 10,
      step: 90,
      stock: [{ length: 800, width: 500, price: 30 }],
      shapes: [{ outline, qty: 9 }],
    });
    const layout = layOutNesting(problem, { seed: 1, now: () => 0, budgetMs: 300 });
    // A shape that moves by a hair is laid out otherwise, not wrongly.
    refusesAll(layout, (one) => verifyNesting(problem, one), /placements\[\]\.[xy]|mirrored/);
    const turned = {
      ...layout,
      sheets: layout.sheets.map((sheet) => ({
        ...sheet,
        placements: sheet.placements.map((one, i) => (i === 0 ? { ...one, angle: one.angle + 7 } : one)),
      })),
    };
    expect(verifyNesting(problem, turned)).not.toBeNull();
  });
});
