import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { layOutShapes } from "./layout";
import { areaOf, crossesItself, distanceBetween, moved, type Outline, turned } from "./outline";
import { readShapeProblem, type ShapeProblemInput } from "./problem";
import { lyingOutline, verifyShapes } from "./verify";

function run(input: ShapeProblemInput, passes = 20) {
  const problem = readShapeProblem(input);
  const layout = layOutShapes(problem, { seed: 1, now: () => 0, budgetMs: 1, passes });
  expect(verifyShapes(problem, layout)).toBeNull();
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
                expect(distanceBetween(one, other)).toBeGreaterThan(gap - 0.002 - 1e-9);
            });
          }
        },
      ),
      { numRuns: 15 },
    );
  });
});

describe("outlines", () => {
  it("area, turning and distance, worked out by hand", () => {
    expect(areaOf(GUSSET)).toBe(5000);
    expect(areaOf([...GUSSET].reverse())).toBe(-5000);
    const quarter: Outline = turned([[1, 0]], 90);
    expect(quarter[0]?.[0]).toBeWithinMm(0, 1e-12);
    expect(quarter[0]?.[1]).toBeWithinMm(1, 1e-12);
    expect(distanceBetween(GUSSET, moved(GUSSET, 130, 0))).toBe(30);
    // The middles of the two long sides face one another across the diagonal.
    const other = moved(turned(GUSSET, 180), 110, 110);
    expect(distanceBetween(GUSSET, other)).toBeWithinMm(20 / Math.SQRT2, 1e-9);
    expect(distanceBetween(GUSSET, moved(GUSSET, 10, 10))).toBe(0);
    expect(crossesItself(GUSSET)).toBe(false);
  });
});
