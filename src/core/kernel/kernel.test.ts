import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  BrokenInvariant,
  byNaturalText,
  byTuple,
  fromNm,
  inTurn,
  remembersLast,
  seededRandom,
  sentence,
  snapMm,
  toNm,
} from ".";

describe("the grid", () => {
  it("holds 1/64 in exactly, rounds halves away from zero and knows no −0", () => {
    expect(toNm(25.4 / 64)).toBe(396_875);
    expect(toNm(0.0000005)).toBe(1);
    expect(toNm(-0.0000005)).toBe(-1);
    expect(Object.is(toNm(-0), 0)).toBe(true);
    expect(snapMm(0.1 + 0.2)).toBe(0.3);
  });

  it("refuses what is not finite", () => {
    expect(() => toNm(Number.NaN)).toThrow(BrokenInvariant);
    expect(() => toNm(Number.POSITIVE_INFINITY)).toThrow(BrokenInvariant);
  });

  it("sixths and five kerfs add up exactly where doubles do not", () => {
    // 6 x 512.2 + 5 x 2.4 = 3085.2; summed as doubles it comes out above.
    const sum = [512.2, 512.2, 512.2, 512.2, 512.2, 512.2, 2.4, 2.4, 2.4, 2.4, 2.4].reduce(
      (a, b) => a + toNm(b),
      0,
    );
    expect(sum).toBe(toNm(3085.2));
  });

  it("comes back to the same grid place", () => {
    fc.assert(
      fc.property(fc.integer({ min: -100_000_000_000, max: 100_000_000_000 }), (nm) => {
        expect(toNm(fromNm(nm))).toBe(nm);
      }),
    );
  });
});

describe("orders", () => {
  it("numbers inside text count as numbers", () => {
    expect(["P10", "P2", "P2a", "A1"].sort(byNaturalText)).toEqual(["A1", "P2", "P2a", "P10"]);
  });

  it("is total on text: antisymmetric and transitive", () => {
    fc.assert(
      fc.property(
        fc.array(fc.string({ unit: fc.constantFrom("a", "1", "02", " ", "-") }), { maxLength: 8 }),
        (texts) => {
          const sorted = [...texts].sort(byNaturalText);
          for (let i = 1; i < sorted.length; i++) {
            const [before, after] = [sorted[i - 1] ?? "", sorted[i] ?? ""];
            expect(byNaturalText(before, after)).toBeLessThanOrEqual(0);
            expect(Math.sign(byNaturalText(before, after))).toBe(
              -Math.sign(byNaturalText(after, before)) || 0,
            );
          }
        },
      ),
    );
  });

  it("takes the first order that tells two apart", () => {
    const order = inTurn<readonly number[]>((a, b) => (a[0] ?? 0) - (b[0] ?? 0), byTuple);
    expect(
      [
        [1, 3],
        [0, 9],
        [1, 2],
      ].sort(order),
    ).toEqual([
      [0, 9],
      [1, 2],
      [1, 3],
    ]);
  });
});

describe("memory of one call", () => {
  it("runs again only when an input is another object", () => {
    let runs = 0;
    const stage = remembersLast((list: readonly number[], factor: number) => {
      runs++;
      return list.map((value) => value * factor);
    });
    const list = [1, 2];
    const first = stage(list, 2);
    expect(stage(list, 2)).toBe(first);
    expect(stage([1, 2], 2)).toEqual(first);
    expect(runs).toBe(2);
  });
});

describe("seeded random", () => {
  it("gives the same numbers for the same seed, spread over [0, 1)", () => {
    const numbers = (seed: number) => {
      const random = seededRandom(seed);
      return Array.from({ length: 2000 }, () => random.next());
    };
    expect(numbers(7)).toEqual(numbers(7));
    expect(numbers(7)).not.toEqual(numbers(8));
    const mean = numbers(7).reduce((a, b) => a + b, 0) / 2000;
    expect(Math.abs(mean - 0.5)).toBeLessThan(0.03);
  });
});

describe("sentences", () => {
  it("say what, where and what to do, and shorten what was typed", () => {
    expect(sentence({ kind: "formulaLoop", names: ["a", "b"] })).toBe(
      "The formulas of a, b need one another in a loop; give one of them a value.",
    );
    expect(sentence({ kind: "outOfRange", name: "width", value: "3000", least: "900", greatest: null })).toBe(
      "width would be 3000, but it must be at least 900.",
    );
    expect(sentence({ kind: "unreadableLength", text: "x".repeat(500) }).length).toBeLessThan(150);
  });
});
