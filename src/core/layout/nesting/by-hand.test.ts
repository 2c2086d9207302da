import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { at, type Result } from "../../kernel";
import { lawRuns } from "../../kernel/law-runs.fixture";
import { ASIDE } from "../stock";
import {
  type MovedShape,
  moveShape,
  NestingBench,
  type ShapeRefusal,
  type ShapeSpot,
  setShapeAside,
  setShapeLock,
} from "./by-hand";
import { nestingFaultOf } from "./independent.fixture";
import { layOutNesting } from "./layout";
import { type NestingLayout, type NestingProblemInput, readNestingProblem } from "./problem";
import { verifyNesting } from "./verify";

const SQUARE: [number, number][] = [
  [0, 0],
  [50, 0],
  [50, 50],
  [0, 50],
];
const GUSSET: [number, number][] = [
  [0, 0],
  [80, 0],
  [0, 80],
];
const ground = (more: Partial<NestingProblemInput> = {}) => {
  const problem = readNestingProblem({
    gap: 5,
    margin: 10,
    step: 90,
    stock: [{ length: 400, width: 200, price: 9 }],
    shapes: [
      { outline: SQUARE, qty: 2 },
      { outline: GUSSET, qty: 2 },
    ],
    ...more,
  });
  const layout = layOutNesting(problem, { seed: 1, now: () => 0, budgetMs: 1, passes: 2 });
  return { problem, layout, bench: new NestingBench(problem) };
};
type Ground = ReturnType<typeof ground>;

const valid = ({ problem }: Ground, layout: NestingLayout) => {
  expect(verifyNesting(problem, layout)).toBeNull();
  expect(nestingFaultOf(problem, layout)).toBeNull();
  return layout;
};
const done = (result: Result<NestingLayout, ShapeRefusal>): NestingLayout => {
  if (!result.ok) throw new Error(result.problem.message);
  return result.value;
};
const kindOf = (result: Result<NestingLayout, ShapeRefusal>) => (result.ok ? "done" : result.problem.kind);
/** The first placement of a shape. */
const find = (layout: NestingLayout, shape: number) => {
  const sheet = layout.sheets.findIndex(({ placements }) => placements.some((one) => one.shape === shape));
  const index = at(layout.sheets, sheet).placements.findIndex((one) => one.shape === shape);
  return { sheet, index };
};
const spot = (x: number, y: number, more: Partial<ShapeSpot> = {}): ShapeSpot => ({
  sheet: 0,
  x,
  y,
  angle: 0,
  mirrored: false,
  ...more,
});

describe("shapes by hand", () => {
  it("move to a free place and keep their place in the list; elsewhere the reason is told", () => {
    const all = ground();
    const { problem, layout } = all;
    const from = find(layout, 0);
    const moved = valid(all, done(moveShape(problem, layout, from, spot(300, 100))));
    expect(moved.sheets[0]?.placements[from.index]).toMatchObject({ shape: 0, x: 300, y: 100 });
    expect(kindOf(moveShape(problem, layout, from, spot(345, 100)))).toBe("off");
    const other = at(at(moved.sheets, 0).placements, find(moved, 1).index);
    expect(kindOf(moveShape(problem, moved, from, spot(other.x, other.y)))).toBe("taken");
    expect(kindOf(moveShape(problem, layout, { sheet: 4, index: 0 }, spot(0, 0)))).toBe("gone");
  });

  it("snap beside a neighbour with the gap kept, and into a corner of the margin", () => {
    const all = ground({ shapes: [{ outline: SQUARE, qty: 2 }] });
    const { problem, layout, bench } = all;
    const apart = done(moveShape(problem, layout, { sheet: 0, index: 1 }, spot(200, 100)));
    const first = at(at(apart.sheets, 0).placements, 0);
    const near = bench.snapped(apart, { sheet: 0, index: 1 }, spot(first.x + 51, first.y + 3), 10);
    // 50 wide and a gap of 5; along the margin at the bottom.
    expect([near.x - first.x, near.y - first.y]).toEqual([expect.closeTo(55, 1), expect.closeTo(0, 1)]);
    valid(all, done(moveShape(problem, apart, { sheet: 0, index: 1 }, near)));
    const corner = bench.snapped(apart, { sheet: 0, index: 1 }, spot(335, 143), 10);
    expect([corner.x, corner.y]).toEqual([340, 140]);
    const far = spot(150, 70);
    expect(bench.snapped(apart, { sheet: 0, index: 1 }, far, 10)).toEqual(far);
  });

  it("slide on until something stops them, and past it to the next place", () => {
    const all = ground({ shapes: [{ outline: SQUARE, qty: 2 }] });
    const { problem, layout, bench } = all;
    const start = done(moveShape(problem, layout, { sheet: 0, index: 0 }, spot(10, 10)));
    const wall = done(moveShape(problem, start, { sheet: 0, index: 1 }, spot(200, 10)));
    const one = bench.nextSpot(wall, { sheet: 0, index: 0 }, [1, 0]);
    expect(one?.x).toBeWithinMm(200 - 55, 0.02);
    const there = valid(all, done(moveShape(problem, wall, { sheet: 0, index: 0 }, one ?? spot(0, 0))));
    const two = bench.nextSpot(there, { sheet: 0, index: 0 }, [1, 0]);
    expect(two?.x).toBeWithinMm(200 + 55, 0.02);
    const past = valid(all, done(moveShape(problem, there, { sheet: 0, index: 0 }, two ?? spot(0, 0))));
    expect(bench.nextSpot(past, { sheet: 0, index: 0 }, [1, 0])?.x).toBeWithinMm(340, 0.01);
    expect(bench.nextSpot(past, { sheet: 0, index: 0 }, [0, -1])).toBeNull();
  });

  it("slide against a slanted edge as far as the gap allows", () => {
    // The hypotenuse of the gusset lies on x + y = 280 − 10; a corner of the square comes to within 5 of it.
    const all = ground({
      shapes: [
        { outline: SQUARE, qty: 1 },
        { outline: GUSSET, qty: 1 },
      ],
    });
    const { problem, layout, bench } = all;
    const aside = done(moveShape(problem, layout, find(layout, 1), spot(190, 10)));
    const start = valid(all, done(moveShape(problem, aside, find(aside, 0), spot(340, 20))));
    const from = find(start, 0);
    const left = bench.nextSpot(start, from, [-1, 0]);
    // The lower left corner stops at x + y = 280 + 5·√2.
    expect(left?.x).toBeWithinMm(280 + 5 * Math.SQRT2 - 20, 0.05);
    expect(left?.y).toBe(20);
    const high = done(moveShape(problem, start, from, spot(230, 140)));
    const down = bench.nextSpot(high, find(high, 0), [0, -1]);
    expect(down?.y).toBeWithinMm(280 + 5 * Math.SQRT2 - 230, 0.05);
  });

  it("slide all the way that is free and no further, past slanted neighbours too", () => {
    const places = fc.record({ x: fc.integer({ min: 10, max: 340 }), y: fc.integer({ min: 10, max: 140 }) });
    const way = fc.constantFrom<[number, number]>([1, 0], [-1, 0], [0, 1], [0, -1]);
    let slid = 0;
    fc.assert(
      fc.property(fc.array(places, { minLength: 4, maxLength: 4 }), way, (spots, [dx, dy]) => {
        const all = ground();
        let { layout } = all;
        for (const [i, { x, y }] of spots.entries()) {
          const moved = moveShape(all.problem, layout, { sheet: 0, index: i }, spot(x, y, { angle: 90 * i }));
          if (moved.ok) layout = moved.value;
        }
        const from = { sheet: 0, index: 0 };
        const one = at(at(layout.sheets, 0).placements, 0);
        const to = all.bench.nextSpot(layout, from, [dx, dy]);
        const fitsAt = (x: number, y: number) =>
          moveShape(all.problem, layout, from, {
            ...spot(x, y),
            angle: one.angle,
            mirrored: one.mirrored ?? false,
          }).ok;
        const fits = (distance: number) => fitsAt(one.x + dx * distance, one.y + dy * distance);
        const far = to ? (to.x - one.x) * dx + (to.y - one.y) * dy : 0;
        const steps = Array.from({ length: 40 }, (_, k) => (k + 1) / 41);
        const round = Array.from({ length: 8 }, (_, k) => (k * Math.PI) / 4);
        /** Free there with a little to every side, so that no rounding makes it so. */
        const roomy = (x: number, y: number) =>
          fitsAt(x, y) && round.every((turn) => fitsAt(x + 0.03 * Math.cos(turn), y + 0.03 * Math.sin(turn)));
        const roomyOn = (distance: number) => roomy(one.x + dx * distance, one.y + dy * distance);
        if (!to) {
          expect(steps.some((share) => roomyOn(share * 400))).toBe(false);
          return;
        }
        slid++;
        expect(far).toBeGreaterThan(0);
        // The other coordinate stays, and it stands against something there, if only in passing.
        expect(Math.abs((to.x - one.x) * dy) + Math.abs((to.y - one.y) * dx)).toBeLessThan(1e-9);
        expect(roomy(to.x, to.y)).toBe(false);
        if (fits(0.05) && far > 0.1) expect(steps.every((share) => fits(share * far))).toBe(true);
        else expect(steps.some((share) => share * far > 0.1 && roomyOn(share * far))).toBe(false);
      }),
      { numRuns: 150, seed: 4 },
    );
    expect(slid).toBeGreaterThan(60);
  });

  it("are locked one by one, and what is gone is told", () => {
    const all = ground();
    const locked = setShapeLock(all.layout, { sheet: 0, index: 1 }, true);
    expect(locked.sheets[0]?.placements.map((one) => one.locked ?? false)).toEqual([
      false,
      true,
      false,
      false,
    ]);
    expect(kindOf(setShapeAside(all.problem, all.layout, { sheet: 0, index: 9 }))).toBe("gone");
  });

  it("begin a further sheet, and a sheet without a shape goes back to stock", () => {
    const all = ground({ shapes: [{ outline: SQUARE, qty: 1 }] });
    const { problem, layout, bench } = all;
    const first = bench.firstSpot(
      layout,
      { sheet: 0, index: 0 },
      { sheet: 1, stock: 0, angle: 0, mirrored: false },
    );
    const moved = valid(all, done(moveShape(problem, layout, { sheet: 0, index: 0 }, first ?? spot(0, 0))));
    expect(moved).toMatchObject({ count: 1, cost: 9, proven: true });
    const limited = readNestingProblem({ ...problem, stock: [{ length: 400, width: 200, count: 1 }] });
    const further = spot(10, 10, { sheet: 1, stock: 0 });
    expect(kindOf(moveShape(limited, layout, { sheet: 0, index: 0 }, further))).toBe("gone");
  });

  it("are set aside, wait with that reason, and are brought back", () => {
    const all = ground();
    const { problem, layout, bench } = all;
    const aside = valid(all, done(setShapeAside(problem, layout, find(layout, 1))));
    expect(aside.unplaced).toEqual([{ shape: 1, qty: 1, why: ASIDE }]);
    expect(aside.proven).toBe(false);
    const back: MovedShape = { waiting: 1 };
    const place = bench.anySpot(aside, back, { sheet: 0, angle: 0, mirrored: false });
    expect(valid(all, done(moveShape(problem, aside, back, place ?? spot(0, 0)))).unplaced).toEqual([]);
    expect(kindOf(moveShape(problem, layout, back, spot(0, 0)))).toBe("gone");
  });

  it("wait together when several of one shape were set aside", () => {
    const { problem, layout } = ground();
    const one = done(setShapeAside(problem, layout, find(layout, 1)));
    const both = done(setShapeAside(problem, one, find(one, 1)));
    const all = done(setShapeAside(problem, both, find(both, 0)));
    expect(all.unplaced).toEqual([
      { shape: 1, qty: 2, why: ASIDE },
      { shape: 0, qty: 1, why: ASIDE },
    ]);
  });

  it("lie against the grain only knowingly, and are locked then", () => {
    const all = ground({ shapes: [{ outline: GUSSET, qty: 1, grain: true }] });
    const { problem, layout } = all;
    const across = spot(200, 60, { angle: 90 });
    expect(kindOf(moveShape(problem, layout, { sheet: 0, index: 0 }, across))).toBe("against");
    const allowed = { ...across, against: true };
    const knowing = valid(all, done(moveShape(problem, layout, { sheet: 0, index: 0 }, allowed)));
    expect(knowing.sheets[0]?.placements[0]).toMatchObject({ against: true, locked: true });
    const open = setShapeLock(knowing, { sheet: 0, index: 0 }, false);
    expect(open.sheets[0]?.placements[0]?.locked).toBeUndefined();
  });

  it("are turned over where both faces are alike, and refused where one is good", () => {
    const over = spot(200, 60, { mirrored: true });
    const alike = ground({ shapes: [{ outline: GUSSET, qty: 1, opposite: null }] });
    valid(alike, done(moveShape(alike.problem, alike.layout, { sheet: 0, index: 0 }, over)));
    const good = ground({ shapes: [{ outline: GUSSET, qty: 1, opposite: 0 }] });
    expect(kindOf(moveShape(good.problem, good.layout, { sheet: 0, index: 0 }, over))).toBe("hand");
  });

  it("come back in the hand of which one is missing", () => {
    const all = ground({ shapes: [{ outline: GUSSET, qty: 2, opposite: 1 }] });
    const index = all.layout.sheets[0]?.placements.findIndex((one) => one.mirrored) ?? -1;
    const aside = done(setShapeAside(all.problem, all.layout, { sheet: 0, index }));
    const back = (mirrored: boolean) =>
      moveShape(all.problem, aside, { waiting: 0 }, spot(250, 60, { mirrored }));
    expect(kindOf(back(false))).toBe("hand");
    valid(all, done(back(true)));
  });

  it("whatever is done, what comes of it passes both checks", () => {
    const act = fc.record({
      shape: fc.nat(1),
      x: fc.integer({ min: -20, max: 420 }),
      y: fc.integer({ min: -20, max: 220 }),
      turns: fc.nat(3),
      what: fc.constantFrom("move", "snap", "push", "aside", "lock"),
    });
    fc.assert(
      fc.property(fc.array(act, { minLength: 1, maxLength: 12 }), (acts) => {
        const all = ground();
        let { layout } = all;
        for (const { shape, x, y, turns, what } of acts) {
          const lies = layout.sheets.some(({ placements }) => placements.some((one) => one.shape === shape));
          const from: MovedShape = lies ? find(layout, shape) : { waiting: shape };
          const wanted = spot(x, y, { angle: turns * 90 });
          const to = what === "snap" ? all.bench.snapped(layout, from, wanted, 30) : wanted;
          if (what === "aside" && "index" in from) layout = done(setShapeAside(all.problem, layout, from));
          else if (what === "lock" && "index" in from) layout = setShapeLock(layout, from, turns % 2 === 0);
          else if (what === "push" && "index" in from) {
            const pushed = all.bench.nextSpot(layout, from, turns % 2 === 0 ? [1, 0] : [0, 1]);
            if (pushed) layout = done(moveShape(all.problem, layout, from, pushed));
          } else {
            const moved = moveShape(all.problem, layout, from, to);
            if (moved.ok) layout = moved.value;
          }
          if (layout.sheets.length === 0) return;
          valid(all, layout);
        }
      }),
      { numRuns: lawRuns(60) },
    );
  });
});
