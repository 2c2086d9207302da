import { describe, expect, it } from "vitest";
import {
  crossesItself,
  movedPolygon,
  type Polygon,
  polygonArea,
  polygonDistance,
  turnedPolygon,
} from "../../geometry";
import { nestingFaultOf } from "./independent.fixture";
import { GUSSET, PLATE, run } from "./nesting.fixture";
import { type NestingProblemInput, readNestingProblem } from "./problem";
import { lockedNestingFault, verifyNesting } from "./verify";

describe("the check of shapes", () => {
  const input: NestingProblemInput = {
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
    expect(verifyNesting(problem, twice(0))).toMatch(/nearer than the gap/);
    expect(nestingFaultOf(problem, twice(0))).not.toBeNull();
    expect(verifyNesting(problem, twice(60))).toMatch(/lies off it/);
    expect(verifyNesting(problem, { ...layout, sheets: [] })).toMatch(/placed 0 times of 2/);
  });
});

describe("what cannot be asked of free shapes", () => {
  const input = (more: Partial<NestingProblemInput> = {}): NestingProblemInput => ({
    gap: 2,
    stock: [{ ...PLATE, count: 1 }],
    shapes: [{ outline: GUSSET, qty: 2, opposite: 1 }],
    ...more,
  });
  const lock = (x: number, mirrored = false) => ({ shape: 0, angle: 0, x, y: 10, mirrored, against: false });
  const fault = (...groups: ReturnType<typeof lock>[][]) =>
    lockedNestingFault(
      readNestingProblem(input({ fixed: groups.map((placements) => ({ stock: 0, placements })) })),
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

  it("an offcut of nothing is none, and one that is kept back is told", () => {
    const square: [number, number][] = [
      [0, 0],
      [100, 0],
      [100, 100],
      [0, 100],
    ];
    const { problem, layout } = run({
      gap: 0,
      margin: 0,
      stock: [{ length: 200, width: 100 }],
      shapes: [{ outline: square, qty: 2 }],
    });
    const [sheet] = layout.sheets;
    expect(sheet?.offcuts).toEqual([]);
    const nothing = { x: 200, y: 0, length: 0, width: 100 };
    const told = (offcuts: readonly (typeof nothing)[]) =>
      verifyNesting(problem, { ...layout, sheets: layout.sheets.map((one) => ({ ...one, offcuts })) });
    expect(told([])).toBeNull();
    expect(told([nothing])).toMatch(/an offcut of another size/);
    const single = run({
      gap: 0,
      margin: 0,
      stock: [{ length: 200, width: 100 }],
      shapes: [{ outline: square, qty: 1 }],
    });
    const rest = { x: 100, y: 0, length: 100, width: 100 };
    const claims = (offcuts: readonly (typeof rest)[]) =>
      verifyNesting(single.problem, {
        ...single.layout,
        sheets: single.layout.sheets.map((one) => ({ ...one, offcuts })),
      });
    expect(claims([rest])).toBeNull();
    expect(claims([])).toMatch(/an offcut is not told/);
    expect(claims([{ ...rest, y: 1 }])).toMatch(/an offcut of another size/);
    expect(claims([rest, rest])).toMatch(/more than one/);
  });

  it("numbers that are none are refused; of too many pieces the rest is told", () => {
    // What is not said: no gap to a margin, quarter turns, grain along the sheet and none in the shape, one face good, as many sheets as wanted, bought.
    expect(
      readNestingProblem({ gap: 1, stock: [{ length: 9, width: 9 }], shapes: [{ outline: GUSSET, qty: 1 }] }),
    ).toMatchObject({
      margin: 0,
      fixed: [],
      rackFirst: false,
      stock: [{ price: null, count: null, rack: null, grain: "length" }],
      shapes: [{ grain: false, opposite: 0, holes: [] }],
    });
    const hole = { x: 20, y: 20, diameter: 5 };
    const bored = (one: object) => () =>
      readNestingProblem(input({ shapes: [{ outline: GUSSET, qty: 1, holes: [one] }] } as never));
    expect(bored(hole)).not.toThrow();
    for (const wrong of [
      { ...hole, diameter: 0 },
      { ...hole, x: "20" },
      { x: 20, y: 20 },
    ])
      expect(bored(wrong)).toThrow();
    const odd = [{ gap: -1 }, { gap: Number.NaN }, { step: 400 }, { stock: [{ length: 0, width: 5 }] }];
    for (const more of odd) expect(() => readNestingProblem(input(more as never))).toThrow();
    expect(() => readNestingProblem(input({ shapes: [{ outline: GUSSET, qty: 1_000_000 }] }))).toThrow();
    const many = input({
      shapes: [
        { outline: GUSSET, qty: 3 },
        { outline: GUSSET, qty: 5_000 },
      ],
    });
    expect(run(many, 1).layout.unplaced).toContainEqual({
      shape: 1,
      qty: 5000,
      why: { kind: "tooMany", most: 5000 },
    });
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
