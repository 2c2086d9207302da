import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { polygonDistance } from "../../geometry";
import { lawRuns } from "../../kernel/law-runs.fixture";
import { layOutNesting, waysOf } from "./layout";
import { GUSSET, PLATE, run } from "./nesting.fixture";
import { lyingOutline, type NestingProblemInput, readNestingProblem } from "./problem";
import { Rooms } from "./room";

describe("nesting", () => {
  it("two gussets lie together as a square when they may be turned by half a turn, a gap apart", () => {
    // Beside one another they would need 2 × 100; nested, a square of 100 with the gap across its diagonal.
    const { layout } = run({
      gap: 0,
      step: 180,
      stock: [{ length: 100.1, width: 100.1, price: 1 }],
      shapes: [{ outline: GUSSET, qty: 2 }],
    });
    expect(layout).toMatchObject({ count: 1, lowerBound: 1, proven: true });
    const unturned = run({
      gap: 0,
      step: 0,
      stock: [{ length: 100.1, width: 100.1, price: 1 }],
      shapes: [{ outline: GUSSET, qty: 2 }],
    });
    expect(unturned.layout.count).toBe(2);
  });

  it("fill an exact fit, and a hair less does not: 2 × 2 squares of 48 with a gap of 4 on 100", () => {
    const square: [number, number][] = [
      [0, 0],
      [48, 0],
      [48, 48],
      [0, 48],
    ];
    const countOn = (length: number) =>
      run({
        gap: 4,
        step: 90,
        stock: [{ length, width: 100, price: 1 }],
        shapes: [{ outline: square, qty: 4 }],
      }).layout.count;
    expect(countOn(100)).toBe(1);
    expect(countOn(99.99)).toBe(2);
  });

  it("a bracket lies in the corner of another: an L round an L", () => {
    const bracket: [number, number][] = [
      [0, 0],
      [120, 0],
      [120, 30],
      [30, 30],
      [30, 120],
      [0, 120],
    ];
    const { layout } = run({
      gap: 3,
      margin: 5,
      step: 90,
      stock: [PLATE],
      shapes: [{ outline: bracket, qty: 12 }],
    });
    // Side by side their boxes would take 12 × 123² of 500 × 300: two plates.
    expect(layout.count).toBe(1);
    expect(layout.utilisation).toBeGreaterThan(0.4);
  });

  it("tells what cannot be: too large, an outline that crosses itself, stock that runs out", () => {
    const bow: [number, number][] = [
      [0, 0],
      [100, 100],
      [100, 0],
      [0, 100],
    ];
    const long: [number, number][] = [
      [0, 0],
      [700, 0],
      [0, 50],
    ];
    const { layout } = run({
      gap: 2,
      stock: [{ ...PLATE, count: 1 }],
      shapes: [
        { outline: bow, qty: 1 },
        { outline: long, qty: 2 },
        { outline: GUSSET, qty: 60 },
      ],
    });
    expect(layout.unplaced.map(({ shape, why }) => [shape, why.kind])).toEqual([
      [0, "badOutline"],
      [1, "tooLargeTurned"],
      [2, "usedUp"],
    ]);
    expect(layout.proven).toBe(false);
  });

  it("with grain turns by half a turn only, and is the same for the same seed", () => {
    const input: NestingProblemInput = {
      gap: 3,
      step: 45,
      stock: [PLATE],
      shapes: [
        { outline: GUSSET, qty: 9, grain: true },
        {
          outline: [
            [0, 0],
            [60, 0],
            [80, 40],
            [30, 70],
            [0, 40],
          ],
          qty: 7,
        },
      ],
    };
    const { layout } = run(input);
    for (const one of layout.sheets.flatMap((sheet) => sheet.placements))
      if (one.shape === 0) expect(one.angle % 180).toBe(0);
    expect(run(input).layout).toEqual(layout);
  });

  it("any convex shapes keep their gap, by plain arithmetic", () => {
    const corner = fc.tuple(fc.integer({ min: 20, max: 120 }), fc.integer({ min: 20, max: 120 }));
    fc.assert(
      fc.property(
        fc.array(corner, { minLength: 1, maxLength: 4 }),
        fc.integer({ min: 0, max: 6 }),
        (sizes, gap) => {
          const shapes = sizes.map(([a, b]) => ({
            outline: [
              [0, 0],
              [a, 0],
              [a + 10, b],
              [5, b + 8],
            ] as [number, number][],
            qty: 3,
          }));
          const { problem, layout } = run({ gap, margin: 4, step: 90, stock: [PLATE], shapes }, 4);
          for (const { placements } of layout.sheets) {
            const outlines = placements.map((one) => lyingOutline(problem, one));
            outlines.forEach((one, i) => {
              for (const other of outlines.slice(0, i))
                expect(polygonDistance(one, other)).toBeGreaterThan(gap - 0.004 - 1e-9);
            });
          }
        },
      ),
      { numRuns: lawRuns(15) },
    );
  });
});

const ROUND: [number, number, number][] = [
  [40, 0, Math.tan(Math.PI / 8)],
  [0, 40, Math.tan(Math.PI / 8)],
  [-40, 0, Math.tan(Math.PI / 8)],
  [0, -40, Math.tan(Math.PI / 8)],
];

describe("shapes with arcs and hands", () => {
  it("discs lie in a row that is just long enough, and not in one that is shorter", () => {
    // Three discs of 80 with gaps of 5 and margins of 10: 3·80 + 2·5 + 2·10 = 270; tangents add 0.1 a side at most.
    const on = (length: number) =>
      run({
        gap: 5,
        margin: 10,
        stock: [{ length, width: 101, price: 1 }],
        shapes: [{ outline: ROUND, qty: 3 }],
      }).layout.count;
    expect(on(271)).toBe(1);
    expect(on(269)).toBe(2);
  });

  it("a hollow arc takes a disc in: the gap is kept along the curve", () => {
    // A plate with a half-round bay of radius 60 in its upper side; a disc of radius 40 fits into it with 15 to spare.
    const bay: [number, number, number?][] = [
      [0, 0],
      [200, 0],
      [200, 100],
      [160, 100, -1],
      [40, 100],
      [0, 100],
    ];
    const { layout } = run({
      gap: 15,
      step: 0,
      stock: [{ length: 200, width: 136, price: 1 }],
      shapes: [
        { outline: bay as [number, number, number][], qty: 1 },
        { outline: ROUND, qty: 1 },
      ],
    });
    expect(layout.count).toBe(1);
  });

  it("so many lie mirrored as there are of the opposite hand; with faces alike, as many as help", () => {
    const input = (opposite: number | null): NestingProblemInput => ({
      gap: 0,
      step: 0,
      stock: [{ length: 100.1, width: 100.1, price: 1 }],
      shapes: [
        {
          outline: [
            [0, 0],
            [100, 0],
            [100, 40],
            [60, 100],
            [0, 100],
          ],
          qty: 4,
          opposite,
        },
      ],
    });
    const mirroredIn = (opposite: number | null) =>
      run(input(opposite))
        .layout.sheets.flatMap(({ placements }) => placements)
        .filter((one) => one.mirrored).length;
    expect([mirroredIn(0), mirroredIn(1), mirroredIn(4)]).toEqual([0, 1, 4]);
    // Two right-angled gussets make a rectangle only when one of them is turned over and not turned about.
    const pair = (opposite: number | null) =>
      run({
        gap: 0,
        step: 0,
        stock: [{ length: 100.1, width: 60.1, price: 1 }],
        shapes: [
          {
            outline: [
              [0, 0],
              [100, 0],
              [100, 20],
              [0, 40],
            ],
            qty: 2,
            opposite,
          },
        ],
      }).layout.count;
    expect(pair(0)).toBe(2);
    expect(pair(null)).toBe(2);
  });

  it("all on the one sheet there is, a few orders more are tried; where something may be gained, all of them", () => {
    const square: [number, number][] = [
      [0, 0],
      [60, 0],
      [60, 60],
      [0, 60],
    ];
    /** How often the clock is looked at: twice for each order of one shape. */
    const looks = (more: Partial<NestingProblemInput>) => {
      let ticks = 0;
      const problem = readNestingProblem({
        gap: 2,
        stock: [{ length: 100, width: 100 }],
        shapes: [{ outline: square, qty: 1 }],
        ...more,
      });
      layOutNesting(problem, { seed: 1, now: () => ticks++, budgetMs: 1e9 });
      return ticks;
    };
    // Four starts and 24 orders; once at the beginning, and once when it is found that nothing is left to gain.
    expect(looks({})).toBe(2 * 28 + 2);
    expect(
      looks({
        stock: [
          { length: 100, width: 100 },
          { length: 90, width: 90 },
        ],
      }),
    ).toBeGreaterThan(700);
    expect(looks({ shapes: [{ outline: square, qty: 2 }] })).toBeGreaterThan(1000);
    const limited = [{ length: 100, width: 100, count: 1 }];
    expect(looks({ stock: limited, shapes: [{ outline: square, qty: 2 }] })).toBeGreaterThan(1000);
  });

  it("an outline that comes back the way it went encloses nothing and is told", () => {
    const back: [number, number][] = [
      [0, 0],
      [100, 0],
      [0, 100],
      [100, 0],
    ];
    const { layout } = run({ gap: 3, stock: [PLATE], shapes: [{ outline: back, qty: 3 }] });
    expect(layout.unplaced).toEqual([{ shape: 0, qty: 3, why: { kind: "badOutline" } }]);
  });

  it("ways that come to the same are tried once", () => {
    const square: [number, number][] = [
      [3, 5],
      [53, 5],
      [53, 55],
      [3, 55],
    ];
    const long: [number, number][] = [
      [0, 0],
      [90, 0],
      [90, 30],
      [0, 30],
    ];
    const ways = (
      outline: [number, number][],
      hands: readonly boolean[],
      more: object = {},
      grain = false,
    ) => {
      const problem = readNestingProblem({
        gap: 2,
        stock: [PLATE],
        shapes: [{ outline, qty: 1, grain }],
        ...more,
      });
      return waysOf(new Rooms(problem), 0, hands).map(
        ({ angle, mirrored }) => `${angle}${mirrored ? "m" : ""}`,
      );
    };
    expect(ways(square, [false, true])).toEqual(["0"]);
    expect(ways(long, [false, true])).toEqual(["0", "90"]);
    // A right-angled triangle with equal legs is its own mirror image, turned; with unequal ones it is not.
    expect(ways(GUSSET, [false, true])).toEqual(["0", "90", "180", "270"]);
    const uneven: [number, number][] = [
      [0, 0],
      [90, 0],
      [0, 40],
    ];
    expect(ways(uneven, [false, true])).toHaveLength(8);
    expect(ways(uneven, [true])).toEqual(["0m", "90m", "180m", "270m"]);
    expect(ways(long, [false], { step: 45 })).toEqual(["0", "45", "90", "135"]);
    expect(ways(uneven, [false], { step: 0 })).toEqual(["0"]);
    // Even of a square, along the grain and across it are two ways.
    expect(ways(square, [false], {}, true)).toEqual(["0", "90"]);
    expect(ways(uneven, [false], { step: 0 }, true)).toEqual(["0", "90"]);
  });

  it("grain across the sheet turns a piece by a quarter", () => {
    const { layout } = run({
      gap: 2,
      stock: [{ length: 300, width: 300, grain: "width" }],
      shapes: [
        {
          outline: [
            [0, 0],
            [200, 0],
            [0, 50],
          ],
          qty: 2,
          grain: true,
        },
      ],
    });
    for (const one of layout.sheets.flatMap(({ placements }) => placements)) expect(one.angle % 180).toBe(90);
    const narrow = run({
      gap: 2,
      stock: [{ length: 300, width: 100, grain: "width" }],
      shapes: [
        {
          outline: [
            [0, 0],
            [200, 0],
            [0, 50],
          ],
          qty: 2,
          grain: true,
        },
      ],
    });
    expect(narrow.layout.unplaced).toEqual([{ shape: 0, qty: 2, why: { kind: "grainOnly" } }]);
  });
});

describe("stock of free shapes", () => {
  const square: [number, number][] = [
    [0, 0],
    [90, 0],
    [90, 90],
    [0, 90],
  ];
  const laid = (more: Partial<NestingProblemInput>, qty = 4) =>
    run({ gap: 4, margin: 5, stock: [PLATE], shapes: [{ outline: square, qty }], ...more }).layout;
  const rack = { length: 210, width: 110, price: 0, count: 1, rack: "R-1" };

  it("takes a rack piece where that saves a sheet, or first where it is wished", () => {
    const stock = [{ length: 400, width: 200, price: 10 }, rack];
    expect(laid({ stock }, 4).sheets.map((sheet) => sheet.stock)).toEqual([0]);
    expect(laid({ stock, rackFirst: true }, 4).sheets.map((sheet) => sheet.stock)).toContain(1);
    expect(laid({ stock }, 10).cost).toBe(10);
  });

  it("chooses what costs least, with a bound that no layout is below", () => {
    const cheap = { length: 500, width: 300, price: 30 };
    const layout = laid({ stock: [cheap, { length: 210, width: 110, price: 4 }] }, 2);
    expect(layout).toMatchObject({ cost: 4, lowerBoundOf: "cost", proven: true });
    expect(laid({ stock: [{ ...cheap, price: null }] }, 2)).toMatchObject({
      cost: null,
      lowerBoundOf: "count",
    });
  });

  it("leaves the end of the sheet in one piece", () => {
    const [sheet] = laid({}, 2).sheets;
    // Both lie one above the other at the start: 5 + 90 + 4.
    expect(sheet?.offcuts).toEqual([{ x: 99, y: 0, length: 401, width: 300 }]);
  });

  it("fills round what is locked", () => {
    const fixed = [
      { stock: 0, placements: [{ shape: 0, angle: 0, x: 200, y: 100, mirrored: false, against: false }] },
    ];
    const layout = laid({ fixed }, 5);
    const [sheet] = layout.sheets;
    expect(sheet?.placements.filter((one) => one.locked)).toHaveLength(1);
    expect(layout.count).toBe(1);
  });

  it("any order of sizes and turns passes the check that shares nothing with it", () => {
    const shape = fc.record({
      radii: fc.array(fc.integer({ min: 15, max: 70 }), { minLength: 3, maxLength: 7 }),
      qty: fc.integer({ min: 1, max: 3 }),
      opposite: fc.constantFrom(null, 0, 1),
      grain: fc.boolean(),
      bulge: fc.constantFrom(0, 0.2, -0.2),
    });
    fc.assert(
      fc.property(
        fc.array(shape, { minLength: 1, maxLength: 4 }),
        fc.integer({ min: 0, max: 8 }),
        fc.constantFrom(0, 45, 90),
        (all, gap, step) => {
          const shapes = all.map(({ radii, bulge, ...more }) => ({
            ...more,
            outline: radii.map((radius, i): [number, number, number] => {
              const angle = (2 * Math.PI * i) / radii.length;
              // Star-shaped outlines with every other edge an arc that stays inside its sector.
              return [
                radius * Math.cos(angle),
                radius * Math.sin(angle),
                i === 0 && radii.length > 4 ? bulge : 0,
              ];
            }),
          }));
          run({ gap, step, margin: 3, stock: [{ length: 400, width: 250, price: 5 }], shapes }, 3);
        },
      ),
      { numRuns: lawRuns(25) },
    );
  });
});
