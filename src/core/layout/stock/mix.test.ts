import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { leastMixCost, type MixType, raisedToStep } from ".";

/** Every mix by counting, for small cases. */
function countedLeast(types: readonly MixType[], load: number, bound: number, most: number): number {
  let best = most;
  const visit = (i: number, cost: number, holds: number): void => {
    if (cost > best) return;
    if (cost >= bound && holds >= load) best = Math.min(best, cost);
    const type = types[i];
    if (!type) return;
    for (let n = 0; n <= Math.min(type.available, 12); n++)
      visit(i + 1, cost + n * type.cost, holds + n * type.holds);
  };
  visit(0, 0, 0);
  return best;
}

describe("mixes of stock", () => {
  it("raises a bound to the next sum of prices that exists: 60.40 with bars at 28.80 and 36.40 is 65.20", () => {
    const types = [
      { cost: 2880, holds: 5990, available: Number.POSITIVE_INFINITY },
      { cost: 3640, holds: 7490, available: Number.POSITIVE_INFINITY },
    ];
    expect(leastMixCost(types, 12_380, 6040, 7280)).toBe(6520);
    // Two short bars cost 57.60 but do not hold it; from 57.00 on it is still 65.20.
    expect(leastMixCost(types, 12_380, 5700, 7280)).toBe(6520);
    expect(raisedToStep(types, 6041)).toBe(6080);
  });

  it("free stock holds first, and never more than there is", () => {
    const types = [
      { cost: 0, holds: 1000, available: 2 },
      { cost: 500, holds: 3000, available: Number.POSITIVE_INFINITY },
    ];
    expect(leastMixCost(types, 2000, 0, 1000)).toBe(0);
    expect(leastMixCost(types, 2001, 0, 1000)).toBe(500);
  });

  it("gives no more than the cost of the layout that exists, also between two sums", () => {
    const types = [
      { cost: 7, holds: 3, available: 5 },
      { cost: 7, holds: 11, available: 4 },
    ];
    // Nine bars at 7 would hold 57; they cost 63, and a layout at 60 is there.
    expect(leastMixCost(types, 57, 0, 60)).toBe(60);
    expect(leastMixCost(types, 57, 0, 63)).toBe(63);
  });

  it("agrees with counting all mixes", () => {
    const type = fc.record({
      cost: fc.integer({ min: 0, max: 9 }),
      holds: fc.integer({ min: 1, max: 20 }),
      available: fc.integer({ min: 0, max: 5 }),
    });
    fc.assert(
      fc.property(
        fc.array(type, { minLength: 1, maxLength: 3 }),
        fc.integer({ min: 0, max: 60 }),
        fc.integer({ min: 0, max: 30 }),
        (types, load, bound) => {
          // Stock that is all free has no sums to walk.
          fc.pre(types.some((one) => one.cost > 0));
          const most = 60;
          const found = leastMixCost(types, load, bound, most);
          const counted = countedLeast(types, load, raisedToStep(types, bound), most);
          expect(found).toBe(Math.min(most, Math.max(counted, 0)));
        },
      ),
    );
  });

  it("falls back to the common step when the sums are too many to walk, and stays a bound", () => {
    const types = [
      { cost: 7_000_001, holds: 10, available: Number.POSITIVE_INFINITY },
      { cost: 9_000_000, holds: 12, available: 3 },
    ];
    const bound = leastMixCost(types, 30, 21_000_000, 3 * 9_000_000);
    expect(bound).toBe(21_000_000);
  });
});
