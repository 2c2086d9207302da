import { Clipper, FillRule, type Paths64 } from "clipper2-ts";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  crossesItself,
  movedPolygon,
  type Polygon,
  polygonArea,
  polygonDistance,
  turnedPolygon,
} from "../../geometry";
import { at } from "../../kernel";
import { shapeFaultOf } from "./independent.fixture";
import { layOutShapes } from "./layout";
import { convexParts, minkowskiSum } from "./minkowski";
import { lyingOutline, readShapeProblem, type ShapeProblemInput } from "./problem";
import { lockedShapeFault, verifyShapes } from "./verify";

function run(input: ShapeProblemInput, passes = 20) {
  const problem = readShapeProblem(input);
  const layout = layOutShapes(problem, { seed: 1, now: () => 0, budgetMs: 1, passes });
  expect(verifyShapes(problem, layout)).toBeNull();
  expect(shapeFaultOf(problem, layout)).toBeNull();
  return { problem, layout };
}
const GUSSET: [number, number][] = [
  [0, 0],
  [100, 0],
  [0, 100],
];
const PLATE = { length: 500, width: 300, price: 12 };

describe("free shapes", () => {
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
        stock: [{ length, width: 100.1, price: 1 }],
        shapes: [{ outline: square, qty: 4 }],
      }).layout.count;
    expect(countOn(100.1)).toBe(1);
    expect(countOn(99.9)).toBe(2);
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
    expect(layout.unplaced.map(({ shape, why }) => [shape, why])).toEqual([
      [0, "its outline crosses itself or encloses nothing; draw it anew"],
      [1, "larger than every sheet, however it is turned"],
      [2, "the limited stock is used up"],
    ]);
    expect(layout.proven).toBe(false);
  });

  it("with grain turns by half a turn only, and is the same for the same seed", () => {
    const input: ShapeProblemInput = {
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
                expect(polygonDistance(one, other)).toBeGreaterThan(gap - 0.002 - 1e-9);
            });
          }
        },
      ),
      { numRuns: 15 },
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
    const input = (opposite: number | null): ShapeProblemInput => ({
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
    expect(narrow.layout.unplaced).toEqual([
      { shape: 0, qty: 2, why: "it would fit only against the grain" },
    ]);
  });
});

describe("stock of free shapes", () => {
  const square: [number, number][] = [
    [0, 0],
    [90, 0],
    [90, 90],
    [0, 90],
  ];
  const laid = (more: Partial<ShapeProblemInput>, qty = 4) =>
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
      { numRuns: 25 },
    );
  });
});

describe("what cannot be asked of free shapes", () => {
  const input = (more: Partial<ShapeProblemInput> = {}): ShapeProblemInput => ({
    gap: 2,
    stock: [{ ...PLATE, count: 1 }],
    shapes: [{ outline: GUSSET, qty: 2, opposite: 1 }],
    ...more,
  });
  const lock = (x: number, mirrored = false) => ({ shape: 0, angle: 0, x, y: 10, mirrored, against: false });
  const fault = (...groups: ReturnType<typeof lock>[][]) =>
    lockedShapeFault(
      readShapeProblem(input({ fixed: groups.map((placements) => ({ stock: 0, placements })) })),
    );

  it("locks that cannot stay are told: too many, of the wrong hand, on one another, more sheets than there are", () => {
    expect(fault([lock(10), lock(350, true)])).toBeNull();
    expect(fault([lock(10), lock(200), lock(350)])).toBe("shape 0 is locked 3 times, and there are 2");
    expect(fault([lock(10), lock(200)])).toBe("shape 0 is locked as drawn 2 times of 1");
    expect(fault([lock(150, true), lock(300, true)])).toBe("shape 0 is locked mirrored 2 times of 1");
    expect(fault([lock(10), lock(150, true)])).toBe(
      "on locked sheet 1 shapes 0 and 1 are nearer than the gap",
    );
    expect(fault([lock(10)], [lock(350, true)])).toBe("stock 0 is locked more often than it is there");
  });

  it("numbers that are none are refused; of too many pieces the rest is told", () => {
    const odd = [{ gap: -1 }, { gap: Number.NaN }, { step: 400 }, { stock: [{ length: 0, width: 5 }] }];
    for (const more of odd) expect(() => readShapeProblem(input(more as never))).toThrow();
    expect(() => readShapeProblem(input({ shapes: [{ outline: GUSSET, qty: 1_000_000 }] }))).toThrow();
    const many = input({
      shapes: [
        { outline: GUSSET, qty: 3 },
        { outline: GUSSET, qty: 5_000 },
      ],
    });
    expect(run(many, 1).layout.unplaced).toContainEqual({
      shape: 1,
      qty: 5000,
      why: "more than 5,000 pieces at once",
    });
  });
});

describe("the check of shapes", () => {
  const input: ShapeProblemInput = {
    gap: 0,
    stock: [{ length: 100, width: 100 }],
    shapes: [{ outline: GUSSET.map(([x, y]): [number, number] => [x / 2, y / 2]), qty: 2 }],
  };
  it("finds two upon one another, and one off the sheet, also where no gap is set", () => {
    const { problem, layout } = run(input);
    const twice = (x: number) => ({
      ...layout,
      sheets: [{ stock: 0, offcuts: [], placements: [0, 1].map(() => ({ shape: 0, angle: 0, x, y: 0 })) }],
    });
    expect(verifyShapes(problem, twice(0))).toMatch(/nearer than the gap/);
    expect(shapeFaultOf(problem, twice(0))).not.toBeNull();
    expect(verifyShapes(problem, twice(60))).toMatch(/lies off it/);
    expect(verifyShapes(problem, { ...layout, sheets: [] })).toMatch(/placed 0 times of 2/);
  });
});

/** Corners at these distances from the middle, all round; the first edge is a hollow arc. */
const starOf = (radii: readonly number[], bulge = -0.2) =>
  radii.map((radius, i): [number, number, number] => {
    const angle = (2 * Math.PI * i) / radii.length;
    return [radius * Math.cos(angle), radius * Math.sin(angle), i === 0 ? bulge : 0];
  });

describe("Minkowski sums", () => {
  const path = (polygon: readonly (readonly [number, number])[]) =>
    polygon.map(([x, y]) => ({ x: Math.round(x * 1000), y: Math.round(y * 1000) }));
  const areaIn = (paths: Paths64) => paths.reduce((sum, one) => sum + Clipper.area(one), 0) / 1e6;

  it("with a disc have the area of Steiner's formula: A + P·r + π·r² (Steiner 1840)", () => {
    const disc = Array.from({ length: 720 }, (_, i): [number, number] => [
      10 * Math.cos((i * Math.PI) / 360),
      10 * Math.sin((i * Math.PI) / 360),
    ]);
    const sum = minkowskiSum(convexParts(path(GUSSET)), convexParts(path(disc)));
    const round = 100 + 100 + 100 * Math.SQRT2;
    expect(areaIn(sum)).toBeWithinMm(5000 + 10 * round + Math.PI * 100, 0.2);
  });

  it("are whole where growing left edges of a thousandth that point anywhere", () => {
    // Such edges, sorted by their direction among the others, once cost a third of a sum and laid pieces on one another.
    const { layout } = run({
      gap: 0,
      step: 45,
      margin: 3,
      stock: [{ length: 400, width: 250, price: 5 }],
      shapes: [
        { outline: starOf([67, 28, 42, 22, 43, 46, 30]), qty: 2 },
        { outline: starOf([43, 57, 50, 27, 19, 20, 50]), qty: 2, opposite: null },
      ],
    });
    expect(layout.unplaced).toEqual([]);
    for (const part of convexParts(path(starOf([67, 28, 42, 22, 43, 46, 30]).map(([x, y]) => [x, y]))))
      part.forEach((b, i) => {
        const [a, c] = [at(part, (i + part.length - 1) % part.length), at(part, (i + 1) % part.length)];
        expect((b.x - a.x) * (c.y - b.y) - (b.y - a.y) * (c.x - b.x)).toBeGreaterThan(0);
      });
  });

  it("are those of a general-purpose library (Clipper 2) for any star-shaped outlines", () => {
    const star = fc.array(fc.integer({ min: 10, max: 90 }), { minLength: 3, maxLength: 8 }).map((radii) =>
      path(
        radii.map((radius, i): [number, number] => {
          const angle = (2 * Math.PI * i) / radii.length;
          return [radius * Math.cos(angle), radius * Math.sin(angle)];
        }),
      ),
    );
    const solid = (paths: Paths64) => areaIn(paths.filter((one) => Clipper.area(one) > 0));
    fc.assert(
      fc.property(star, star, (a, b) => {
        const own = minkowskiSum(convexParts(a), convexParts(b));
        const other = Clipper.union(Clipper.minkowskiSum(a, b, true), FillRule.NonZero);
        expect(solid(own)).toBeWithinMm(solid(other), 0.5);
      }),
      { numRuns: 60 },
    );
  });
});

describe("outlines", () => {
  it("area, turning and distance, worked out by hand", () => {
    expect(polygonArea(GUSSET)).toBe(5000);
    expect(polygonArea([...GUSSET].reverse())).toBe(-5000);
    const quarter: Polygon = turnedPolygon([[1, 0]], 90);
    expect(quarter[0]?.[0]).toBeWithinMm(0, 1e-12);
    expect(quarter[0]?.[1]).toBeWithinMm(1, 1e-12);
    expect(polygonDistance(GUSSET, movedPolygon(GUSSET, 130, 0))).toBe(30);
    // The middles of the two long sides face one another across the diagonal.
    const other = movedPolygon(turnedPolygon(GUSSET, 180), 110, 110);
    expect(polygonDistance(GUSSET, other)).toBeWithinMm(20 / Math.SQRT2, 1e-9);
    expect(polygonDistance(GUSSET, movedPolygon(GUSSET, 10, 10))).toBe(0);
    expect(crossesItself(GUSSET)).toBe(false);
  });
});
