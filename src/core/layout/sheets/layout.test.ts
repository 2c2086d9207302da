import fc from "fast-check";
import * as v from "valibot";
import { describe, expect, it } from "vitest";
import { seededRandom } from "../../kernel";
import { lawRuns } from "../../kernel/law-runs.fixture";
import { runsNeeded } from "./cuts";
import { layOutSheets } from "./layout";
import { type SheetProblem, SheetProblemSchema } from "./problem";
import { verifySheets } from "./verify";

type Parts = v.InferInput<typeof SheetProblemSchema>;
function run(parts: Parts, budgetMs = 3000) {
  const problem: SheetProblem = v.parse(SheetProblemSchema, parts);
  const layout = layOutSheets(problem, { seed: 1, now: () => performance.now(), budgetMs, passes: 12 });
  expect(verifySheets(problem, layout)).toBeNull();
  return layout;
}
const sheet = { length: 1000, width: 500, price: 10 };

describe("sheet layouts", () => {
  it("four panels with three kerfs fill a sheet exactly, and one micron more does not", () => {
    const exact = run({ kerf: 4, stock: [sheet], panels: [{ length: 498, width: 248, qty: 4 }] });
    expect(exact).toMatchObject({ count: 1, cost: 10, lowerBound: 10, proven: true });
    expect(run({ kerf: 4, stock: [sheet], panels: [{ length: 498.001, width: 248, qty: 4 }] }).count).toBe(2);
  });

  it("takes the trim from all four sides", () => {
    const layout = run({ kerf: 4, trim: 10, stock: [sheet], panels: [{ length: 980, width: 480, qty: 1 }] });
    expect(layout.sheets[0]?.placements).toEqual([
      { panel: 0, x: 10, y: 10, length: 980, width: 480, rotated: false },
    ]);
    expect(
      run({ kerf: 4, trim: 10.5, stock: [sheet], panels: [{ length: 980, width: 480, qty: 1 }] }).unplaced[0]
        ?.why,
    ).toMatchObject({ kind: "tooLarge", largest: [979, 479], trimmed: true });
  });

  it("turns a panel without grain, never one against its grain, and says so", () => {
    const panel = { length: 400, width: 900, qty: 1 };
    expect(
      run({ kerf: 3, stock: [{ ...sheet, grain: "length" }], panels: [panel] }).sheets[0]?.placements[0]
        ?.rotated,
    ).toBe(true);
    const refused = run({
      kerf: 3,
      stock: [{ ...sheet, grain: "length" }],
      panels: [{ ...panel, grain: true }],
    });
    expect(refused.unplaced).toEqual([{ panel: 0, qty: 1, why: { kind: "againstGrain", size: [400, 900] } }]);
    const crosswise = run({
      kerf: 3,
      stock: [{ ...sheet, grain: "width" }],
      panels: [{ ...panel, grain: true }],
    });
    expect(crosswise.sheets[0]?.placements[0]).toMatchObject({ rotated: true, length: 900, width: 400 });
    expect(run({ kerf: 3, stock: [sheet], panels: [{ ...panel, grain: true }] }).count).toBe(1);
  });

  it("keeps to the stages, and lays out what they allow", () => {
    const pinwheel: Parts = {
      kerf: 0,
      stages: 2,
      stock: [{ length: 300, width: 300, price: 1 }],
      panels: [
        { length: 200, width: 100, qty: 4 },
        { length: 100, width: 100, qty: 1 },
      ],
    };
    for (const stages of [2, 3, 4, null]) run({ ...pinwheel, stages });
  });

  it("uses limited sheets that cost nothing first and tells when stock runs out", () => {
    const rack = run({
      kerf: 3,
      stock: [sheet, { length: 600, width: 500, price: 0, count: 1 }],
      panels: [{ length: 500, width: 450, qty: 1 }],
    });
    expect(rack).toMatchObject({ cost: 0, count: 1, proven: true });
    const short = run({
      kerf: 3,
      stock: [{ ...sheet, count: 1 }],
      panels: [{ length: 900, width: 450, qty: 2 }],
    });
    expect(short).toMatchObject({
      count: 1,
      proven: false,
      unplaced: [{ qty: 1, why: { kind: "usedUp" } }],
    });
  });

  it("leaves one large offcut on the last sheet", () => {
    const layout = run({
      kerf: 3,
      stock: [{ length: 2440, width: 1220, price: 50 }],
      panels: [{ length: 600, width: 300, qty: 4 }],
    });
    const largest = Math.max(
      ...(layout.sheets[0]?.offcuts ?? []).map((offcut) => offcut.length * offcut.width),
    );
    expect(largest).toBeGreaterThan(0.7 * 2440 * 1220);
  });

  it("without a price counts sheets and has no cost", () => {
    expect(
      run({ kerf: 3, stock: [{ length: 1000, width: 500 }], panels: [{ length: 400, width: 400, qty: 3 }] }),
    ).toMatchObject({ cost: null, count: 2, lowerBoundOf: "count" });
  });

  it("gives the same layout for the same seed", () => {
    const panels = [
      [720, 400],
      [560, 380],
      [800, 300],
      [350, 350],
      [610, 120],
    ].map(([length = 1, width = 1], i) => ({ length, width, qty: 2 + i, grain: i % 2 === 0 }));
    const parts: Parts = {
      kerf: 3.2,
      trim: 10,
      stages: 3,
      stock: [{ length: 2440, width: 1220, price: 54, grain: "length" }],
      panels,
    };
    expect(run(parts, 60_000)).toEqual(run(parts, 60_000));
  });
});

describe("laws", () => {
  it("takes a sliver that two passes of the blade leave nothing of for what it is", () => {
    // Found at random: beside 34 and 31 mm, over the panel of 30 mm, 1 mm stands between two cuts of 3 mm.
    const panels = [
      { length: 60, width: 31, qty: 1, grain: false },
      { length: 60, width: 34, qty: 1, grain: false },
      { length: 72, width: 30, qty: 1, grain: true },
    ];
    const stock = [{ length: 1800, width: 900, price: 1, grain: "length" as const }];
    const problem = v.parse(SheetProblemSchema, { kerf: 3, trim: 10, keep: 120, stock, panels });
    const layout = layOutSheets(problem, { seed: 1, now: () => 0, budgetMs: 20, passes: 1 });
    expect(verifySheets(problem, layout)).toBeNull();
    // An offcut that is left out is still missed.
    const [sheet] = layout.sheets;
    if (!sheet) throw new Error("there is a sheet");
    const less = { ...layout, sheets: [{ ...sheet, offcuts: sheet.offcuts.slice(1) }] };
    expect(verifySheets(problem, less)).toContain("an offcut is not told");
  });

  it("is valid and never below its bound on random jobs", () => {
    const panel = fc.record({
      length: fc.integer({ min: 50, max: 1100 }),
      width: fc.integer({ min: 50, max: 600 }),
      qty: fc.integer({ min: 1, max: 4 }),
      grain: fc.boolean(),
    });
    fc.assert(
      fc.property(
        fc.array(panel, { minLength: 1, maxLength: 8 }),
        fc.constantFrom(0, 3.2),
        fc.constantFrom(2, 3, null),
        (panels, kerf, stages) => {
          run(
            {
              kerf,
              trim: 8,
              stages,
              stock: [{ length: 1220, width: 700, price: 20, grain: "length" }],
              panels,
            },
            300,
          );
        },
      ),
      { numRuns: lawRuns(25) },
    );
  });

  /** Items of the classes of Berkey and Wang (1987, J. Oper. Res. Soc. 38), by their published definition. */
  it.each([
    [1, 10, 10],
    [3, 40, 35],
    [5, 100, 100],
  ])("class %i of Berkey and Wang: within one sheet in five of the bound", (_, size, greatest) => {
    const random = seededRandom(size * 7 + greatest);
    let sheets = 0;
    let bound = 0;
    for (let draw = 0; draw < 3; draw++) {
      const panels = Array.from({ length: 40 }, () => ({
        length: 1 + random.below(greatest),
        width: 1 + random.below(greatest),
        qty: 1,
        grain: true,
      }));
      const layout = run(
        { kerf: 0, stock: [{ length: size, width: size, price: 1, grain: "length" }], panels },
        800,
      );
      sheets += layout.count;
      bound += layout.lowerBound;
    }
    expect(sheets / bound).toBeLessThan(1.2);
  });
});

describe("runs of cuts", () => {
  const region = { x: 0, y: 0, length: 300, width: 300 };
  it("counts rips first, an empty first run, and cutting to size inside a strip", () => {
    const halves = [
      { x: 0, y: 0, length: 300, width: 150 },
      { x: 0, y: 150, length: 300, width: 150 },
    ];
    expect(runsNeeded(region, halves)).toBe(1);
    expect(
      runsNeeded(
        region,
        halves.map((r) => ({ x: r.y, y: r.x, length: r.width, width: r.length })),
      ),
    ).toBe(2);
    expect(runsNeeded(region, [{ x: 0, y: 0, length: 100, width: 100 }])).toBe(2);
    expect(runsNeeded(region, [region])).toBe(0);
  });

  it("knows that a pinwheel cannot be cut", () => {
    const wheel = [
      { x: 0, y: 0, length: 200, width: 100 },
      { x: 200, y: 0, length: 100, width: 200 },
      { x: 100, y: 200, length: 200, width: 100 },
      { x: 0, y: 100, length: 100, width: 200 },
    ];
    expect(runsNeeded(region, wheel)).toBe(Number.POSITIVE_INFINITY);
  });
});
