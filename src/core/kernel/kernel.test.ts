import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  agreeing,
  BrokenInvariant,
  byKey,
  byNaturalText,
  byNumber,
  byTuple,
  canBeKey,
  counted,
  fromNm,
  GREATEST_LENGTH_MM,
  inTurn,
  LEAST_LENGTH_MM,
  own,
  POINT_TOLERANCE_MM,
  remembersEach,
  remembersLast,
  reversed,
  SAME_PLACE_MM,
  sameItems,
  seededRandom,
  sentence,
  toNm,
} from ".";
import { snapMm } from "./grid";

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
      "The formulas of a, b form a loop. Replace one by a value.",
    );
    expect(sentence({ kind: "outOfRange", name: "width", value: "3000", least: "900", greatest: null })).toBe(
      "width would be 3000, but it must be at least 900.",
    );
    expect(sentence({ kind: "unreadableLength", text: "x".repeat(500) }).length).toBeLessThan(150);
  });
});

describe("every sentence", () => {
  const text = "width";
  it.each([
    [{ kind: "emptyText", what: "The length" }, "The length is empty; type a value."],
    [
      { kind: "ambiguousComma", text: "1,400", decimal: "1.4", whole: "1400" },
      '"1,400" can mean 1.4 or 1400',
    ],
    [{ kind: "absurdLength", text: "1e9", greatestM: 100 }, '"1e9" is longer than 100 m; check the unit.'],
    [
      { kind: "unreadableFormula", text, why: "it ends early", place: 4 },
      "it ends early at character 4. Type it",
    ],
    [{ kind: "unreadableFormula", text, why: "it ends early", place: null }, "it ends early. Type it"],
    [{ kind: "formulaTooLong", length: 900, greatest: 500 }, "900 characters; at most 500"],
    [{ kind: "unknownName", name: "widht", text: "widht/2" }, "uses widht, which is no key size"],
    [{ kind: "outOfRange", name: "w", value: "5", least: "10", greatest: "20" }, "must be from 10 to 20"],
    [{ kind: "outOfRange", name: "w", value: "5", least: null, greatest: "4" }, "must be at most 4"],
    [{ kind: "emptyRange", name: "w", least: "9", greatest: "4" }, "the minimum 9 is above the maximum 4"],
    [{ kind: "dependsOnBroken", name: "depth" }, "depth cannot be computed. Fix depth first"],
    [{ kind: "missingRecord", what: "panel", id: "p1" }, "The panel p1 is no longer in this job"],
    [
      { kind: "badValue", what: "Column", value: "x", must: "must be a number" },
      'Column "x" must be a number.',
    ],
    [{ kind: "malformed", what: "The list", why: "it is empty" }, "The list cannot be read: it is empty."],
    [{ kind: "laterRevision" }, "knows a later state"],
  ] as const)("%j", (problem, words) => {
    expect(sentence(problem)).toContain(words);
  });

  it("shortens what is longer than sixty signs, and nothing else", () => {
    const said = (n: number) => sentence({ kind: "divisionByZero", text: "x".repeat(n) });
    expect(said(60)).toContain(`"${"x".repeat(60)}"`);
    expect(said(61)).toContain(`"${"x".repeat(57)}..."`);
  });
});

describe("memory of each record", () => {
  it("computes anew for another record or other parts, and keeps the rest", () => {
    const remember = remembersEach<object, number>();
    let runs = 0;
    const [a, b, part] = [{}, {}, {}];
    const of = (key: object, ...from: unknown[]) => remember(key, from, () => ++runs);
    expect([of(a, part), of(a, part), of(b, part), of(a, part)]).toEqual([1, 1, 2, 1]);
    expect([of(a, {}), of(a, part), of(a, part, part)]).toEqual([3, 4, 5]);
  });

  it("lists are the same when each item is, in order", () => {
    const one = {};
    expect([sameItems([], []), sameItems([one, 1], [one, 1]), sameItems([Number.NaN], [Number.NaN])]).toEqual(
      [true, true, true],
    );
    expect([
      sameItems([one], [{}]),
      sameItems([1, 2], [2, 1]),
      sameItems([1], [1, 2]),
      sameItems([0], [-0]),
    ]).toEqual([false, false, false, false]);
  });
});

describe("counts, keys and tolerances", () => {
  it("nouns agree with their counts", () => {
    expect([counted(1, "cut"), counted(0, "cut"), counted(2, "leaf", "leaves")]).toEqual([
      "1 cut",
      "0 cuts",
      "2 leaves",
    ]);
    expect([agreeing(1, "is", "are"), agreeing(2, "is", "are")]).toEqual(["is", "are"]);
  });

  it("tables are read by their own keys", () => {
    const table = { front: 1, toString: 2 } as unknown as Record<string, number>;
    expect([
      own(table, "front"),
      own(table, "toString"),
      own(table, "valueOf"),
      own(table, "__proto__"),
    ]).toEqual([1, 2, undefined, undefined]);
    expect(["front", "constructor", "__proto__", "hasOwnProperty", ""].map(canBeKey)).toEqual([
      true,
      false,
      false,
      false,
      true,
    ]);
  });

  it("orders by a key, and the other way round", () => {
    const words = ["bb", "a", "ccc"];
    expect([...words].sort(byKey((word) => word.length, byNumber))).toEqual(["a", "bb", "ccc"]);
    expect([...words].sort(reversed(byKey((word: string) => word.length, byNumber)))).toEqual([
      "ccc",
      "bb",
      "a",
    ]);
  });

  it("tolerances stand in their order: noise, a place, what a saw repeats, what nothing is below and above", () => {
    expect(SAME_PLACE_MM / POINT_TOLERANCE_MM).toBeCloseTo(1000, 9);
    expect([POINT_TOLERANCE_MM, SAME_PLACE_MM, LEAST_LENGTH_MM, GREATEST_LENGTH_MM]).toEqual([
      1e-6, 1e-3, 1e-3, 1e5,
    ]);
  });
});
