/** Claims of layouts and what changes them by hand: each false claim is told, each true one passes. */
import fc from "fast-check";
import * as v from "valibot";
import { describe, expect, it } from "vitest";
import {
  ASIDE,
  allowance,
  boughtCount,
  type Claims,
  claimFault,
  costOf,
  judged,
  leastPlain,
  oneLess,
  oneMore,
  pieceCount,
  stockSize,
} from ".";

const bar = (price: number | null, rack: string | null = null) => ({ price, rack });

describe("claims", () => {
  const used = [bar(21.6), bar(21.6), bar(0, "R-1")];
  const good: Claims = {
    cost: 43.2,
    count: 3,
    lowerBound: 43.2,
    lowerBoundOf: "cost",
    proven: true,
    unplaced: [],
  };
  const context = (more = {}) => ({
    used,
    stock: [21.6, 0],
    isImpossible: () => false,
    plain: () => null,
    ...more,
  });
  const fault = (claims: Partial<Claims>, more = {}) => claimFault({ ...good, ...claims }, context(more));

  it("that are true pass: by cost, and by how many are bought", () => {
    expect(fault({})).toBeNull();
    expect(fault({ lowerBound: 40, proven: false })).toBeNull();
    const unpriced = { used: [bar(null), bar(null), bar(0, "R-1")], stock: [null, 0] };
    const counted: Partial<Claims> = { cost: null, lowerBoundOf: "count", lowerBound: 2 };
    expect(fault(counted, unpriced)).toBeNull();
    // Three are used, two are bought: a bound of three would be false.
    expect(fault({ ...counted, lowerBound: 3 }, unpriced)).toMatch(/below its bound/);
  });

  it.each([
    [{ count: 2 }, {}, /count 2 should be 3/],
    [{ cost: 43.3 }, {}, /cost 43.3 should be 43.2/],
    [{ cost: null }, {}, /cost null should be 43.2/],
    [{}, { used: [bar(null), bar(21.6), bar(0)] }, /should be unknown/],
    [{ lowerBound: -1 }, {}, /is no bound/],
    [{ lowerBound: Number.NaN }, {}, /is no bound/],
    [{ lowerBound: 44 }, {}, /below its bound/],
    [{ lowerBound: 40 }, {}, /proven at 43.2, but the bound is 40/],
    [{ proven: false }, {}, /meets its bound unproven/],
    [{ lowerBound: 40, proven: false }, { stock: [21.6, null] }, /where a price is missing/],
    [{ unplaced: [{ qty: 1 }] }, {}, /pieces that fit are not placed/],
    [{ unplaced: [{ qty: 0 }], proven: false }, {}, /unplaced entry of quantity 0/],
    [{ unplaced: [{ qty: 1.5 }], proven: false }, {}, /unplaced entry of quantity 1.5/],
    [{}, { plain: () => ({ cost: 43, count: 3 }) }, /a plain rule finds 43/],
  ] as const)("%j %j", (claims, more, words) => {
    expect(fault(claims as Partial<Claims>, more)).toMatch(words);
  });

  it("what can be placed nowhere stands against no proof; a plain layout that is dearer refutes nothing", () => {
    expect(fault({ unplaced: [{ qty: 1 }] }, { isImpossible: () => true })).toBeNull();
    expect(fault({}, { plain: () => ({ cost: 43.2, count: 1 }) })).toBeNull();
    expect(fault({}, { plain: () => ({ cost: null, count: 1 }) })).toBeNull();
  });

  it("the least of plain layouts: cost and number each by itself", () => {
    expect(leastPlain([])).toBeNull();
    expect(leastPlain([{ cost: null, count: 4 }])).toEqual({ cost: null, count: 4 });
    expect(
      leastPlain([
        { cost: 30, count: 2 },
        { cost: 20, count: 4 },
        { cost: null, count: 3 },
      ]),
    ).toEqual({ cost: 20, count: 2 });
  });
});

describe("by hand", () => {
  it("one less and one more of what waits, beside those that were set aside for the same reason", () => {
    const [a, b]: readonly [
      Parameters<typeof oneLess>[1] & { id: string },
      Parameters<typeof oneLess>[1] & { id: string },
    ] = [
      { id: "a", qty: 2, why: ASIDE },
      { id: "b", qty: 1, why: { kind: "usedUp" } },
    ];
    expect(oneLess([a, b], a)).toEqual([{ ...a, qty: 1 }, b]);
    expect(oneLess([a, b], b)).toEqual([a]);
    const fresh = (id: string) => ({ id, qty: 1, why: ASIDE });
    const like = (id: string) => (one: { id: string }) => one.id === id;
    expect(oneMore([a, b], fresh("a"), like("a"))).toEqual([{ ...a, qty: 3 }, b]);
    // The same piece that waits for another reason stays apart.
    expect(oneMore([a, b], fresh("b"), like("b"))).toEqual([a, b, fresh("b")]);
  });

  it("stock costs the sum of its prices in ten-thousandths, nothing is guessed for what has none", () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 1e6 }), fc.integer({ min: 0, max: 9 }))),
        (paid) => {
          const whole = paid.reduce((sum, [price, times]) => sum + price * times, 0);
          expect(costOf(paid.map(([price, times]) => [price / 1e4, times]))).toBe(whole / 1e4);
        },
      ),
    );
    expect([
      costOf([]),
      costOf([
        [1, 2],
        [null, 0],
      ]),
    ]).toEqual([0, null]);
    expect(boughtCount([bar(1), bar(0, "R-1"), bar(null)])).toBe(2);
  });

  it("a changed layout is proven where it meets the bound with nothing waiting, and never below it", () => {
    const layout = (lowerBound: number, lowerBoundOf: "cost" | "count", waiting = 0) => ({
      lowerBound,
      lowerBoundOf,
      unplaced: Array.from({ length: waiting }),
    });
    const two = [bar(10), bar(10), bar(0, "R-1")];
    expect(judged(layout(20, "cost"), two)).toEqual({ count: 3, cost: 20, proven: true, lowerBound: 20 });
    expect(judged(layout(19, "cost"), two)).toMatchObject({ proven: false, lowerBound: 19 });
    expect(judged(layout(20, "cost", 1), two)).toMatchObject({ proven: false });
    // Fewer pieces may need less than all of them would.
    expect(judged(layout(30, "cost", 1), two)).toMatchObject({ lowerBound: 20, proven: false });
    expect(judged(layout(2, "count"), two)).toMatchObject({ proven: true, lowerBound: 2 });
    expect(judged(layout(5, "cost"), [bar(null)])).toEqual({
      count: 1,
      cost: null,
      proven: false,
      lowerBound: 5,
    });
  });
});

describe("fields", () => {
  const takes = (schema: v.GenericSchema, value: unknown) => v.safeParse(schema, value).success;
  it("sizes are from a thousandth to a hundred metres, allowances may be none, counts are whole", () => {
    expect(
      [0, 1e-4, 0.001, 100_000, 100_001, -1, Number.NaN, "1"].map((value) => takes(stockSize, value)),
    ).toEqual([false, false, true, true, false, false, false, false]);
    expect([0, 1e-4, 0.001, -0.001, 100_001].map((value) => takes(allowance, value))).toEqual([
      true,
      false,
      true,
      false,
      false,
    ]);
    expect([0, 5, 6, 1.5, -1].map((value) => takes(pieceCount(5), value))).toEqual([
      true,
      true,
      false,
      false,
      false,
    ]);
  });
});
