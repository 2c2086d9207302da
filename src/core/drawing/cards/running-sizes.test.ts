/** Numbers along an edge: in their order, none on another, as near to their places as can be. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { at } from "../../kernel";
import { lawRuns } from "../../kernel/law-runs.fixture";
import { evenRuns } from "./card-facts";
import { spread } from "./running-sizes";

const PITCH = 3.6;

describe("numbers that are spread", () => {
  it("keep their order and their distance, and both ends stay where there is room", () => {
    const places = fc
      .array(fc.double({ min: 0, max: 200, noNaN: true }), { minLength: 1, maxLength: 40 })
      .map((inner) => [0, ...inner.sort((a, b) => a - b), 200]);
    fc.assert(
      fc.property(places, (wanted) => {
        const stand = spread(wanted, PITCH);
        for (let i = 1; i < stand.length; i++)
          expect(at(stand, i) - at(stand, i - 1)).toBeGreaterThan(PITCH - 1e-6);
        if ((wanted.length - 1) * PITCH <= 200) {
          expect(at(stand, 0)).toBeCloseTo(0, 3);
          expect(at(stand, stand.length - 1)).toBeCloseTo(200, 3);
        }
      }),
      { numRuns: lawRuns(100) },
    );
  });

  it("stay at their places where these are far enough apart", () => {
    const wanted = [0, 10, 20, 31, 50];
    spread(wanted, PITCH).forEach((one, i) => {
      expect(one).toBeCloseTo(at(wanted, i), 9);
    });
  });

  it("are no farther from their places than those of any other order of distances (by trying)", () => {
    const wanted = [0, 20, 20.5, 21, 60];
    const off = (stand: readonly number[]) =>
      stand.reduce((sum, one, i) => sum + (one - at(wanted, i)) ** 2, 0);
    const best = off(spread(wanted, PITCH));
    for (let a = 0; a <= 60; a += 0.1)
      for (let b = a + PITCH; b <= 60; b += 0.1) {
        const stand = [0, a, b, b + PITCH, 60];
        if (a >= PITCH && b + 2 * PITCH <= 60) expect(off(stand)).toBeGreaterThan(best - 1e-6);
      }
  });
});

describe("places at even steps", () => {
  it("are told together from four on, and nothing is lost", () => {
    const mm = (...values: number[]) => values.map((value) => value * 1e6) as never;
    expect(evenRuns(mm(10, 42, 74, 106, 300))).toEqual([
      { first: 10e6, step: 32e6, count: 4 },
      { first: 300e6, step: 0, count: 1 },
    ]);
    expect(evenRuns(mm(10, 42, 74)).map(({ count }) => count)).toEqual([1, 1, 1]);
  });
});
