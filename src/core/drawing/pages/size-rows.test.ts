import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { lawRuns } from "../../kernel/law-runs.fixture";
import { rowsOfSizes } from "./size-rows";

const ROOMY = { top: 500, bottom: 500, left: 500, right: 500 };
const across = (from: number, to: number, near: "top" | "bottom" = "bottom", text = 5) =>
  ({ measure: "horizontal", from, to, text, near }) as const;

describe("rows of dimension lines", () => {
  it("stand the shorter ones nearer, and let a chain share a row", () => {
    const rows = rowsOfSizes([across(0, 100), across(0, 40), across(40, 80), across(80, 100)], [], ROOMY);
    expect(rows.map(({ out }) => out)).toEqual([17, 10, 10, 10]);
    expect(new Set(rows.map(({ side }) => side))).toEqual(new Set(["bottom"]));
  });

  it("put a text that does not fit where it runs into nothing", () => {
    // The text of the first stands beside it, where the second would be.
    const rows = rowsOfSizes([across(0, 4, "bottom", 12), across(4, 40)], [], ROOMY);
    expect(rows[0]?.out).not.toBe(rows[1]?.out);
  });

  it("stand outside of what is there, and on the other side where there is no room", () => {
    const [row] = rowsOfSizes(
      [across(0, 100)],
      [{ from: 10, to: 50, text: 5, side: "bottom", out: 24 }],
      ROOMY,
    );
    expect(row).toEqual({ side: "bottom", out: 31 });
    const [other] = rowsOfSizes([across(0, 100)], [], { ...ROOMY, bottom: 8 });
    expect(other).toEqual({ side: "top", out: 10 });
  });

  it("never run into one another, whatever is asked for", () => {
    const size = fc
      .tuple(fc.integer({ min: -100, max: 100 }), fc.integer({ min: 2, max: 120 }), fc.boolean())
      .map(([from, long, isTop]) => across(from, from + long, isTop ? "top" : "bottom"));
    fc.assert(
      fc.property(fc.array(size, { minLength: 1, maxLength: 14 }), (sizes) => {
        const rows = rowsOfSizes(sizes, [], ROOMY);
        for (const [i, a] of sizes.entries())
          for (const [k, b] of sizes.entries()) {
            const [one, other] = [rows[i], rows[k]];
            if (k <= i || !one || !other || one.side !== other.side) continue;
            const share = Math.min(a.to, b.to) - Math.max(a.from, b.from);
            // In one row they touch at most; what spans another stands outside of it.
            if (one.out === other.out) expect(share).toBeLessThanOrEqual(0.5);
            if (a.from < b.from && a.to > b.to) expect(one.out).toBeGreaterThan(other.out);
          }
      }),
      { numRuns: lawRuns(200) },
    );
  });
});
