import fc from "fast-check";
import { beforeAll, describe, expect, it } from "vitest";
import { loadLinearSolver } from "@/engines/linear-solver";
import { lawRuns } from "../../kernel/law-runs.fixture";
import { LAYOUT_KINDS } from "../kinds";
import { bringPieceBack, movePiece, setPieceAside, setPieceLock, turnPiece } from "./by-hand";
import { barFault } from "./independent.fixture";
import { lockedBarFault } from "./instance";
import { layOutBars } from "./layout";
import { type BarProblem, type BarProblemInput, readBarProblem } from "./problem";
import type { LinearSolver } from "./solver";
import { verifyBars } from "./verify";

let solver: LinearSolver;
beforeAll(async () => {
  solver = await loadLinearSolver();
});

function solved(problem: BarProblem, budgetMs = 1500) {
  const layout = layOutBars(problem, { solver, now: () => performance.now(), budgetMs });
  expect(verifyBars(problem, layout)).toBeNull();
  expect(barFault(problem, layout)).toBeNull();
  return layout;
}
const run = (input: BarProblemInput, budgetMs?: number) => solved(readBarProblem(input), budgetMs);

const list = fc.array(
  fc.record({ length: fc.integer({ min: 60, max: 900 }), qty: fc.integer({ min: 1, max: 6 }) }),
  { minLength: 1, maxLength: 5 },
);

describe("laws", () => {
  it("the bound never exceeds the answer, and more stock never costs more", () => {
    fc.assert(
      fc.property(list, fc.integer({ min: 900, max: 1600 }), (pieces, other) => {
        const one = run({ kerf: 3, stock: [{ length: 1000, price: 10 }], pieces }, 600);
        const two = run(
          {
            kerf: 3,
            stock: [
              { length: 1000, price: 10 },
              { length: other, price: 14 },
            ],
            pieces,
          },
          600,
        );
        const rack = run(
          {
            kerf: 3,
            stock: [
              { length: 1000, price: 10 },
              { length: 700, price: 0, count: 2, rack: "r" },
            ],
            pieces,
          },
          600,
        );
        for (const layout of [one, two, rack])
          expect(layout.lowerBound).toBeLessThanOrEqual((layout.cost ?? 0) + 1e-9);
        if (two.proven) expect(two.cost ?? 0).toBeLessThanOrEqual((one.cost ?? 0) + 1e-9);
        if (rack.proven) expect(rack.cost ?? 0).toBeLessThanOrEqual((one.cost ?? 0) + 1e-9);
      }),
      { numRuns: lawRuns(25) },
    );
  });

  it("adding a kerf never reduces bars", () => {
    fc.assert(
      fc.property(list, fc.integer({ min: 0, max: 4 }), (pieces, kerf) => {
        const thin = run({ kerf, stock: [{ length: 1000, price: 1 }], pieces }, 600);
        const thick = run({ kerf: kerf + 2, stock: [{ length: 1000, price: 1 }], pieces }, 600);
        if (thin.proven) expect(thick.count).toBeGreaterThanOrEqual(thin.count);
      }),
      { numRuns: lawRuns(25) },
    );
  });
});

describe("what the saw holds, and the rack", () => {
  it("the held end is no piece but stays on the rest", () => {
    const layout = run({
      kerf: 2,
      grip: 60,
      stock: [{ length: 1000, price: 1 }],
      pieces: [{ length: 938, qty: 1 }],
    });
    expect(layout).toMatchObject({ count: 1 });
    expect(layout.bars[0]?.remainder).toBeWithinMm(60, 1e-6);
    expect(
      run({ kerf: 2, grip: 60, stock: [{ length: 1000, price: 1 }], pieces: [{ length: 939, qty: 1 }] })
        .unplaced[0]?.why,
    ).toEqual({ kind: "tooLong", length: 939, longest: 938, trimmed: true });
  });

  it("rack pieces are left alone where they save nothing, and used up first when that is wanted", () => {
    const input: BarProblemInput = {
      kerf: 2,
      stock: [
        { length: 6000, price: 20 },
        { length: 1300, price: 0, count: 1, rack: "R-1" },
      ],
      pieces: [{ length: 1200, qty: 4 }],
    };
    const saving = run(input);
    expect(saving).toMatchObject({ cost: 20, count: 1, proven: true });
    const first = run({ ...input, rackFirst: true });
    expect(first).toMatchObject({ cost: 20, count: 2, proven: true });
    expect(first.bars.some((bar) => bar.stock === 1)).toBe(true);
  });
});

describe("at one cost", () => {
  it("the rest is one long piece: 592.5 becomes 605 when the others are filled better", () => {
    // 2 × 700 on one bar and 1 × 300 leave 300 and 700; or 700 + 300 and 700 leave 0 and 300: the longest counts.
    const layout = run({
      kerf: 0,
      stock: [{ length: 1000, price: 1 }],
      pieces: [
        { length: 500, qty: 3 },
        { length: 250, qty: 2 },
      ],
    });
    expect(layout.count).toBe(2);
    expect(Math.max(...layout.bars.map((bar) => bar.remainder))).toBe(0);
    const longer = run({
      kerf: 0,
      stock: [{ length: 1000, price: 1 }],
      pieces: [
        { length: 400, qty: 3 },
        { length: 200, qty: 2 },
      ],
    });
    expect(longer.count).toBe(2);
    // 400 + 400 + 200 fill one bar; 400 + 200 leave 400 on the other.
    expect(Math.max(...longer.bars.map((bar) => bar.remainder))).toBe(400);
  });
});

describe("by hand", () => {
  const problem = readBarProblem({
    kerf: 2,
    stock: [{ length: 1000, price: 5 }],
    pieces: [
      { length: 300, qty: 4 },
      { length: 190, qty: 2 },
    ],
  });

  it("a piece moves to another bar, is locked there, and the rest is filled round it", () => {
    const layout = solved(problem);
    const moved = movePiece(
      problem,
      layout,
      { bar: 0, place: 0 },
      { bar: layout.bars.length, stock: 0, place: 0 },
    );
    if (!moved.ok) throw new Error(moved.problem.kind);
    const bar = moved.value.bars.findIndex((one) => one.pieces.length === 1);
    const locked = setPieceLock(problem, moved.value, { bar, place: 0 }, true);
    if (!locked.ok) throw new Error(locked.problem.kind);
    const again = LAYOUT_KINDS.bars.withOwnLocks(problem, locked.value);
    expect(again.fixed).toEqual([
      { stock: 0, pieces: [{ piece: moved.value.bars[bar]?.pieces[0], place: 0 }] },
    ]);
    const filled = solved(again);
    expect(filled.bars.some((one) => one.locked?.length === 1)).toBe(true);
    expect(filled.count).toBe(2);
  });

  it("what does not fit is refused with how much is missing; what is set aside comes back", () => {
    const layout = solved(problem);
    const full = layout.bars.findIndex((bar) => bar.remainder < 200);
    const other = layout.bars.findIndex((_, i) => i !== full);
    const refused = movePiece(problem, layout, { bar: other, place: 0 }, { bar: full, place: 0 });
    expect(refused.ok ? "" : refused.problem).toMatchObject({ kind: "noRoom" });
    const aside = setPieceAside(problem, layout, { bar: 0, place: 0 });
    if (!aside.ok) throw new Error(aside.problem.kind);
    expect(aside.value).toMatchObject({ proven: false });
    const [waiting] = aside.value.unplaced;
    expect(verifyBars(problem, aside.value)).toBeNull();
    const back = bringPieceBack(problem, aside.value, waiting?.piece ?? 0, { bar: 0, place: 9 });
    expect(back.ok && back.value.unplaced).toEqual([]);
    const plain = turnPiece(problem, layout, { bar: 0, place: 0 });
    expect(plain.ok ? "" : plain.problem).toEqual({ kind: "noOtherWay" });
  });

  it("locked mitres that fitted with a thin blade are told when it is thicker: the cut takes k · √2", () => {
    const ends = { plane: "x", depth: 40, angles: [-45, 45] as [number, number], turns: [] };
    const locked = (kerf: number) =>
      readBarProblem({
        kerf,
        stock: [{ length: 1003.6, price: 1 }],
        pieces: [{ length: 500, qty: 2, ends }],
        fixed: [
          {
            stock: 0,
            pieces: [
              { piece: 0, place: 0 },
              { piece: 0, place: 1 },
            ],
          },
        ],
      });
    expect(lockedBarFault(locked(2.5))).toBeNull();
    expect(solved(locked(2.5)).count).toBe(1);
    // Square, three millimetres would still fit.
    expect(lockedBarFault(locked(3))).toMatch(/^on bar 1 they are 0\.6\d+ mm too long together$/);
  });
});
