/** Several stock lengths with prices and limits: costs, bounds and proofs against complete search. */
import fc from "fast-check";
import * as v from "valibot";
import { beforeAll, describe, expect, it } from "vitest";
import { loadLinearSolver } from "@/engines/linear-solver";
import { lawRuns } from "../../kernel/law-runs.fixture";
import { exactBound, materialBound, refutes } from "./columns";
import { type BarInstance, prepare } from "./instance";
import { layOutBars } from "./layout";
import { longestRest, withFewPatterns, withLongRest, withRackFilled, withRackSpared } from "./polish";
import { type BarProblem, BarProblemSchema } from "./problem";
import type { LinearSolver } from "./solver";
import { verifyBars } from "./verify";

let solver: LinearSolver;
beforeAll(async () => {
  solver = await loadLinearSolver();
});

type Parts = v.InferInput<typeof BarProblemSchema>;
type Stock = { readonly length: number; readonly price: number; readonly count: number | null };
const read = (parts: Parts): BarProblem => v.parse(BarProblemSchema, parts);
const instanceOf = (parts: Parts): BarInstance => prepare(read(parts)).instance;
const never = () => false;

/** The least price by complete search: each piece goes on an open bar or on a new one of any stock; null: they cannot all be cut. */
function cheapest(lengths: readonly number[], kerf: number, stock: readonly Stock[]): number | null {
  const open: { readonly stock: number; room: number }[] = [];
  const left = stock.map(({ count }) => count ?? Number.POSITIVE_INFINITY);
  let best: number | null = null;
  const place = (i: number, price: number): void => {
    if (best !== null && price >= best) return;
    const length = lengths[i];
    if (length === undefined) {
      best = price;
      return;
    }
    for (const bar of open) {
      if (bar.room < length + kerf) continue;
      bar.room -= length + kerf;
      place(i + 1, price);
      bar.room += length + kerf;
    }
    stock.forEach((bar, s) => {
      if (bar.length < length || (left[s] ?? 0) < 1) return;
      left[s] = (left[s] ?? 0) - 1;
      open.push({ stock: s, room: bar.length - length });
      place(i + 1, price + bar.price);
      open.pop();
      left[s] = (left[s] ?? 0) + 1;
    });
  };
  place(0, 0);
  return best;
}

const stockOf = (price: fc.Arbitrary<number>) =>
  fc.record({
    length: fc.integer({ min: 500, max: 1400 }),
    price,
    count: fc.option(fc.integer({ min: 1, max: 3 }), { nil: null, freq: 2 }),
  });
const aJob = fc.record({
  lengths: fc.array(fc.integer({ min: 120, max: 700 }), { minLength: 2, maxLength: 7 }),
  kerf: fc.integer({ min: 0, max: 8 }),
  stock: fc.array(stockOf(fc.integer({ min: 4, max: 30 })), { minLength: 2, maxLength: 3 }),
});
const partsOf = ({ lengths, kerf, stock }: typeof aJob extends fc.Arbitrary<infer T> ? T : never): Parts => ({
  kerf,
  stock: [...stock],
  pieces: lengths.map((length) => ({ length, qty: 1 })),
});

describe("several stock lengths", () => {
  it("cost never less than complete search finds, the bound never more, and what is proven is the least", () => {
    let [all, proven] = [0, 0];
    fc.assert(
      fc.property(aJob, (job) => {
        const least = cheapest(
          [...job.lengths].sort((a, b) => b - a),
          job.kerf,
          job.stock,
        );
        const problem = read(partsOf(job));
        const layout = layOutBars(problem, { solver, now: () => performance.now(), budgetMs: 5000 });
        if (least === null) {
          expect(layout.unplaced.length).toBeGreaterThan(0);
          return;
        }
        // A greedy start may run out of limited stock; it says so, and proves nothing.
        if (layout.unplaced.length > 0) {
          expect(layout.proven).toBe(false);
          return;
        }
        all++;
        expect(layout.cost).toBeGreaterThanOrEqual(least);
        expect(layout.lowerBound).toBeLessThanOrEqual(least);
        if (layout.proven) {
          proven++;
          expect(layout.cost).toBe(least);
        }
      }),
      { numRuns: 150, seed: 5 },
    );
    expect(proven / all).toBeGreaterThan(0.97);
  });

  it("six of 3500 and four of 2400 on bars of 6000 at 30 and 7200 at 40: the linear bound lies between two mixes", () => {
    // Two of 3500 need a 7200 (40); a 3500 with a 2400 fits a 6000 (30). Four 6000 and one 7200: 160; complete search agrees.
    const stock = [
      { length: 6000, price: 30, count: null },
      { length: 7200, price: 40, count: null },
    ];
    const lengths = [3500, 3500, 3500, 3500, 3500, 3500, 2400, 2400, 2400, 2400];
    expect(cheapest(lengths, 0, stock)).toBe(160);
    const problem = read({
      kerf: 0,
      stock,
      pieces: [
        { length: 3500, qty: 6 },
        { length: 2400, qty: 4 },
      ],
    });
    expect(layOutBars(problem, { solver, now: () => performance.now(), budgetMs: 5000 })).toMatchObject({
      cost: 160,
      lowerBound: 160,
      proven: true,
    });
  });
});

describe("mixes of two lengths", () => {
  const two: readonly Stock[] = [
    { length: 6000, price: 28.8, count: null },
    { length: 7500, price: 36.4, count: null },
  ];
  // Sums of prices that lie between the linear bound and the cost are refuted one by one: without it none of these is proven.
  it.each<[number, readonly (readonly [length: number, qty: number])[], readonly Stock[]]>([
    [
      72.8,
      [
        [581, 3],
        [2659, 1],
        [432, 4],
        [1936, 3],
        [2167, 1],
      ],
      two,
    ],
    [
      101.6,
      [
        [1369, 3],
        [1470, 2],
        [1986, 5],
        [1133, 1],
        [1311, 2],
      ],
      two,
    ],
    [
      130.4,
      [
        [2713, 2],
        [610, 3],
        [680, 2],
        [1502, 5],
        [2279, 4],
      ],
      two,
    ],
    [
      80.7,
      [
        [2207, 3],
        [489, 5],
        [1849, 1],
        [1077, 5],
      ],
      [...two, { length: 3000, price: 15.5, count: 4 }],
    ],
  ])("are weighed until %f is proven", (cost, pieces, stock) => {
    const problem = read({
      kerf: 2.5,
      trim: 5,
      stock: [...stock],
      pieces: pieces.map(([length, qty]) => ({ length, qty })),
    });
    let ticks = 0;
    const layout = layOutBars(problem, { solver, now: () => ticks++, budgetMs: 1e6 });
    expect(layout).toMatchObject({ cost, lowerBound: cost, proven: true });
  });
});

describe("what is told of stock", () => {
  it("bars that all cost nothing are told apart by their number, then their length", () => {
    const problem = read({
      kerf: 0,
      stock: [
        { length: 6000, price: 0 },
        { length: 3000, price: 0 },
      ],
      pieces: [{ length: 1400, qty: 4 }],
    });
    const layout = layOutBars(problem, { solver, now: () => 0, budgetMs: 100 });
    expect(layout).toMatchObject({ count: 1, cost: 0, lowerBoundOf: "count" });
    expect(layout.bars[0]?.stock).toBe(0);
    const short = layOutBars(
      { ...problem, pieces: [{ length: 1400, qty: 2, ends: null }] },
      { solver, now: () => 0, budgetMs: 100 },
    );
    expect(short.bars[0]?.stock).toBe(1);
  });

  it("a length of which there is none does not count as the longest", () => {
    const problem = read({
      kerf: 0,
      stock: [
        { length: 6000, price: 5, count: 0 },
        { length: 3000, price: 3 },
      ],
      pieces: [{ length: 4000, qty: 1 }],
    });
    const layout = layOutBars(problem, { solver, now: () => 0, budgetMs: 100 });
    const why = { kind: "tooLong", length: 4000, longest: 3000, trimmed: false } as const;
    expect(layout.unplaced).toEqual([{ piece: 0, qty: 1, why }]);
    expect(
      verifyBars(problem, { ...layout, unplaced: [{ piece: 0, qty: 1, why: { ...why, longest: 6000 } }] }),
    ).toMatch(/where 6000 is the most/);
  });
});

describe("bounds", () => {
  const withDuals = fc.record({
    job: aJob,
    duals: fc.array(fc.integer({ min: 0, max: 200_000 }), { minLength: 7, maxLength: 7 }),
  });

  it("whatever the duals are, the bound lies below every layout, and so does that of the material", () => {
    fc.assert(
      fc.property(withDuals, ({ job, duals }) => {
        const least = cheapest(job.lengths, job.kerf, job.stock);
        fc.pre(least !== null);
        const instance = instanceOf(partsOf(job));
        expect(exactBound(instance, duals)).toBeLessThanOrEqual((least ?? 0) * 10_000);
        expect(materialBound(instance)).toBeLessThanOrEqual((least ?? 0) * 10_000);
      }),
      { numRuns: lawRuns(150) },
    );
  });

  it("bars that the pieces cannot all be cut from may be refuted, bars that they can never", () => {
    let refuted = 0;
    fc.assert(
      fc.property(
        withDuals,
        fc.array(fc.integer({ min: 0, max: 3 }), { minLength: 3, maxLength: 3 }),
        ({ job, duals }, counts) => {
          const unlimited = job.stock.map((bar) => ({ ...bar, count: null }));
          const instance = instanceOf(partsOf({ ...job, stock: unlimited }));
          fc.pre(
            instance.types.length === unlimited.length &&
              job.lengths.every((one) => unlimited.some((bar) => bar.length >= one)),
          );
          const available = unlimited.map((_, t) => counts[t] ?? 0);
          const weights = instance.sizes.map(
            (size, i) => size.weight * (1 + (duals[i] ?? 0) / 200_000) * 1e-3,
          );
          if (!refutes(instance, weights, available)) return;
          refuted++;
          expect(
            cheapest(
              job.lengths,
              job.kerf,
              unlimited.map((bar, t) => ({ ...bar, count: available[t] ?? 0 })),
            ),
          ).toBeNull();
        },
      ),
      { numRuns: 300, seed: 3 },
    );
    expect(refuted).toBeGreaterThan(60);
  });

  it("three of 600 are refuted on two bars of 1000 and not on three", () => {
    const instance = instanceOf({
      kerf: 0,
      stock: [{ length: 1000, price: 7 }],
      pieces: [{ length: 600, qty: 3 }],
    });
    expect([0, 1, 2, 3].map((count) => refutes(instance, [1], [count]))).toEqual([true, true, true, false]);
    // A piece worth a whole bar: three bars at 7.
    expect(exactBound(instance, [70_000])).toBe(210_000);
    // Valued at twice a bar the duals are scaled back, not believed.
    expect(exactBound(instance, [140_000])).toBe(210_000);
    expect(exactBound(instance, [0])).toBe(0);
    // By material 1800 is less than two bars, but a bar of 1000 holds no more of 600 than one of 600 does.
    expect(materialBound(instance)).toBe(210_000);
    const loose = {
      kerf: 0,
      stock: [{ length: 1000, price: 7 }],
      pieces: [
        { length: 600, qty: 3 },
        { length: 1, qty: 1 },
      ],
    };
    expect(materialBound(instanceOf(loose))).toBe(140_000);
  });

  it("a limited cheap bar pays its excess: one at 1 and the others at 7 make 15 of three pieces", () => {
    const instance = instanceOf({
      kerf: 0,
      stock: [
        { length: 1000, price: 7 },
        { length: 1000, price: 1, count: 1 },
      ],
      pieces: [{ length: 600, qty: 3 }],
    });
    expect(exactBound(instance, [70_000])).toBe(150_000);
  });
});

describe("at the same cost", () => {
  const plain = (stock: Parts["stock"], pieces: Parts["pieces"]) => instanceOf({ kerf: 0, stock, pieces });
  const mm = (instance: BarInstance, weight: number) => (weight * instance.unitNm) / 1e6;
  const polish = { patterns: [], timeIsUp: never };

  it("one long rest instead of two short ones", () => {
    // 600 + 300 and 400 + 200 + 300: with 600 + 400 and 300 + 300 + 200 the rest is 200 instead of 100 and 100.
    const instance = plain(
      [{ length: 1000, price: 5 }],
      [600, 400, 300, 300, 200].map((length) => ({ length, qty: 1 })),
    );
    // Sizes are longest first, the two of 300 one size.
    const plan = [
      { pattern: { type: 0, counts: [1, 0, 1, 0] }, times: 1 },
      { pattern: { type: 0, counts: [0, 1, 1, 1] }, times: 1 },
    ];
    expect(mm(instance, longestRest(instance, plan))).toBe(100);
    const better = withLongRest(instance, plan, { ...polish, solver });
    expect(mm(instance, longestRest(instance, better ?? []))).toBe(200);
  });

  it("fewer patterns where the same bars can be cut in fewer ways", () => {
    const instance = plain(
      [{ length: 1000, price: 5 }],
      [
        { length: 500, qty: 4 },
        { length: 400, qty: 4 },
        { length: 300, qty: 1 },
        { length: 100, qty: 4 },
      ],
    );
    const plan = [
      { pattern: { type: 0, counts: [2, 0, 0, 0] }, times: 1 },
      { pattern: { type: 0, counts: [1, 1, 0, 1] }, times: 2 },
      { pattern: { type: 0, counts: [0, 2, 0, 2] }, times: 1 },
      // The long rest stays as it is.
      { pattern: { type: 0, counts: [0, 0, 1, 0] }, times: 1 },
    ];
    const fewer = withFewPatterns(instance, plan, { ...polish, solver });
    expect(fewer?.map(({ pattern, times }) => [...pattern.counts, times])).toEqual([
      [1, 1, 0, 1, 4],
      [0, 0, 1, 0, 1],
    ]);
  });

  it("the emptiest bought bar gives its pieces to a rack piece that lies unused", () => {
    const instance = plain(
      [
        { length: 1000, price: 5 },
        { length: 450, price: 0, count: 1, rack: "r1" },
      ],
      [{ length: 400, qty: 3 }],
    );
    const plan = [
      { pattern: { type: 0, counts: [2] }, times: 1 },
      { pattern: { type: 0, counts: [1] }, times: 1 },
    ];
    const filled = withRackFilled(instance, plan).map(({ pattern }) => [pattern.type, ...pattern.counts]);
    expect(filled.sort()).toEqual([
      [0, 2],
      [1, 1],
    ]);
  });

  it("a rack piece whose pieces find room elsewhere is given back, the emptiest first", () => {
    const instance = plain(
      [
        { length: 1000, price: 5 },
        { length: 450, price: 0, count: 1, rack: "r1" },
        { length: 300, price: 0, count: 1, rack: "r2" },
      ],
      [
        { length: 400, qty: 2 },
        { length: 200, qty: 1 },
      ],
    );
    const plan = [
      { pattern: { type: 0, counts: [1, 0] }, times: 1 },
      { pattern: { type: 1, counts: [1, 0] }, times: 1 },
      { pattern: { type: 2, counts: [0, 1] }, times: 1 },
    ];
    const spared = withRackSpared(instance, plan).map(({ pattern }) => [pattern.type, ...pattern.counts]);
    // The bar takes the 200 first, and the 400 after it: 400 + 200 + 400 is just 1000.
    expect(spared).toEqual([[0, 2, 1]]);
  });
});
