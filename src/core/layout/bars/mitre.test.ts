import fc from "fast-check";
import { beforeAll, describe, expect, it } from "vitest";
import { loadLinearSolver } from "@/engines/linear-solver";
import { at } from "../../kernel";
import { lawRuns } from "../../kernel/law-runs.fixture";
import { barFault } from "./independent.fixture";
import { layOutBars } from "./layout";
import { BarOrderer, type EndClass, endKey, endLossNm, gapNm, waysOf } from "./mitre";
import { type BarProblemInput, type PieceEnds, readBarProblem } from "./problem";
import type { LinearSolver } from "./solver";
import { verifyBars } from "./verify";

let solver: LinearSolver;
beforeAll(async () => {
  solver = await loadLinearSolver();
});

const ALL = ["end", "over", "roll"] as const;
const ends = (left: number, right: number, turns: readonly (typeof ALL)[number][] = ALL): PieceEnds => ({
  plane: "x",
  depth: 40,
  angles: [left, right],
  turns: [...turns],
});

function run(input: BarProblemInput, budgetMs = 4000) {
  const problem = readBarProblem(input);
  const layout = layOutBars(problem, { solver, now: () => performance.now(), budgetMs });
  expect(verifyBars(problem, layout)).toBeNull();
  expect(barFault(problem, layout)).toBeNull();
  return layout;
}

describe("the shortest order of a bar", () => {
  it("is that of trying every order and every way of lying", () => {
    const angles = [-45, -30, 0, 30, 45];
    const piece = fc.record({
      left: fc.constantFrom(...angles),
      right: fc.constantFrom(...angles),
      turns: fc.subarray([...ALL]),
    });
    fc.assert(
      fc.property(fc.array(piece, { minLength: 1, maxLength: 5 }), (pieces) => {
        const classes: EndClass[] = [];
        const of = pieces.map(({ left, right, turns }) => {
          const ways = waysOf(ends(left, right, turns));
          const key = endKey(ways);
          const known = classes.findIndex((one) => one.key === key);
          if (known >= 0) return known;
          classes.push({ key, ways });
          return classes.length - 1;
        });
        const counts = classes.map((_, c) => of.filter((one) => one === c).length);
        const kerf = 2_500_000;
        const found = new BarOrderer(classes, kerf, true).order(counts);
        expect(found.extraNm).toBe(bruteLeast(classes, of, kerf));
        expect(found.sequence).toHaveLength(pieces.length);
      }),
      { numRuns: lawRuns(120) },
    );
  });
});

function bruteLeast(classes: readonly EndClass[], of: readonly number[], kerf: number): number {
  let best = Number.POSITIVE_INFINITY;
  const visit = (
    left: readonly number[],
    last: ReturnType<typeof waysOf>[number] | null,
    cost: number,
  ): void => {
    if (cost >= best) return;
    if (left.length === 0) {
      best = Math.min(best, cost + (last ? endLossNm(last.right) : 0));
      return;
    }
    left.forEach((one, i) => {
      const rest = left.filter((_, k) => k !== i);
      for (const way of at(classes, one).ways) {
        const step = last ? gapNm(last.right, way.left, kerf, true) : endLossNm(way.left);
        visit(rest, way, cost + step);
      }
    });
  };
  visit(of, null, 0);
  return best;
}

describe("mitred neighbours", () => {
  it("two rails with 45s at both ends share one cut: 600 + 600 less 40, and the kerf across the bar is k·√2", () => {
    const shared = run({
      kerf: 2.5,
      share: true,
      stock: [{ length: 1163.6, price: 1 }],
      pieces: [{ length: 600, qty: 2, ends: ends(-45, 45) }],
    });
    // 600 + 600 − 40 + 2.5·√2 = 1163.536
    expect(shared).toMatchObject({ count: 1, proven: true, shared: { cuts: 1 } });
    expect(shared.shared?.length).toBeWithinMm(40 + 2.5 - 2.5 * Math.SQRT2, 1e-5);
    const apart = run({
      kerf: 2.5,
      share: false,
      stock: [{ length: 1163.6, price: 1 }],
      pieces: [{ length: 600, qty: 2, ends: ends(-45, 45) }],
    });
    expect(apart.count).toBe(2);
  });

  it("144 rails for picture frames, 45/45 in 40 mm tube on 6 m bars: no more bars than tip to tip, and fewer cuts", () => {
    const pieces = [
      { length: 600, qty: 72, ends: ends(-45, 45) },
      { length: 400, qty: 72, ends: ends(-45, 45) },
    ];
    const common = { kerf: 2.5, stock: [{ length: 6000, price: 20 }], pieces };
    const shared = run({ ...common, share: true });
    const apart = run({ ...common, share: false });
    expect(shared.proven && apart.proven).toBe(true);
    expect(shared.count).toBeLessThan(apart.count);
  });

  it("a section that cannot be turned shares only where its ends lean alike as it lies", () => {
    // Trapezoids that may not be turned face one another with opposite leans: two cuts and a wedge.
    const stiff = { length: 600, qty: 2, ends: ends(-45, 45, []) };
    const layout = run({ kerf: 2.5, share: true, stock: [{ length: 1163.6, price: 1 }], pieces: [stiff] });
    expect(layout.count).toBe(2);
    // Parallel ends need no turning.
    const parallel = { length: 600, qty: 2, ends: ends(45, 45, []) };
    expect(
      run({ kerf: 2.5, share: true, stock: [{ length: 1163.6, price: 1 }], pieces: [parallel] }).count,
    ).toBe(1);
  });

  it("mixed ends on random bars: every layout stands the independent check, and sharing never costs more", () => {
    const piece = fc.record({
      length: fc.integer({ min: 150, max: 1400 }),
      qty: fc.integer({ min: 1, max: 5 }),
      left: fc.constantFrom(-45, -30, 0, 30, 45),
      right: fc.constantFrom(-45, 0, 45),
    });
    fc.assert(
      fc.property(fc.array(piece, { minLength: 1, maxLength: 5 }), (list) => {
        const pieces = list.map(({ length, qty, left, right }) => ({ length, qty, ends: ends(left, right) }));
        const common = { kerf: 3, trim: 5, stock: [{ length: 3000, price: 10 }], pieces };
        const shared = run({ ...common, share: true }, 500);
        const apart = run({ ...common, share: false }, 500);
        expect(shared.lowerBound).toBeLessThanOrEqual(shared.cost ?? 0);
        if (shared.proven) expect(shared.cost ?? 0).toBeLessThanOrEqual(apart.cost ?? 0);
      }),
      { numRuns: lawRuns(25) },
    );
  });

  it("a bar with locked mitred pieces takes just as many more as an empty one takes in all", () => {
    // Trapezoids of 600 tip to tip with 45/45 ends turned against one another: the next takes 560 and the blade at 45°.
    const blade = 2.5 * Math.SQRT2;
    for (const count of [3, 4, 5]) {
      const length = 600 + (count - 1) * (560 + blade) + 0.01;
      const common = { kerf: 2.5, share: true, pieces: [{ length: 600, qty: count, ends: ends(-45, 45) }] };
      const fixed = [
        {
          stock: 0,
          pieces: [
            { piece: 0, place: 0 },
            { piece: 0, place: 1 },
          ],
        },
      ];
      expect(run({ ...common, stock: [{ length, price: 1 }], fixed }).count).toBe(1);
      expect(run({ ...common, stock: [{ length: length - 0.02, price: 1 }], fixed }).count).toBe(2);
    }
  });
});
