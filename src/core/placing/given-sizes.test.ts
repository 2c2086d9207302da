import { describe, expect, it } from "vitest";
import { NO_ASSETS, type PageItem } from "../job";
import { at3, done, PAGE, start, view, withItems } from "../paper-set.fixture";
import { resultsOf } from "../pipeline.fixture";
import { givenSizes } from "./given-sizes";

describe("what is written less what is so", () => {
  const job = withItems(start, view("v", { from: { kind: "named", side: "front" } }), {
    id: "apart" as PageItem["id"],
    page: "p",
    kind: "size",
    view: "v",
    measure: "horizontal",
    from: at3("left", "start, corner 1"),
    to: at3("right", "start, corner 1"),
    between: [],
    side: "bottom",
    out: 10,
    typed: null,
    brackets: false,
  });
  const { shape } = resultsOf(job);

  it("hangs on how the page of a size writes lengths", () => {
    const [plain] = givenSizes(job, shape, null, NO_ASSETS).sizes;
    expect(plain?.rounding).toBeCloseTo(0, 9);
    for (const denominator of [8, 64] as const) {
      const lengths = { unit: "in", format: { kind: "fraction", denominator } } as const;
      const inches = done(job, { kind: "setPages", pages: [{ ...PAGE, lengths }] });
      const [one] = givenSizes(inches, shape, null, NO_ASSETS).sizes;
      const step = 25.4 / denominator;
      const length = one?.length ?? 0;
      expect(length).toBeGreaterThan(500);
      expect(one?.rounding).toBeCloseTo(Math.round(length / step) * step - length, 9);
      expect(one?.rounding).not.toBeCloseTo(0, 3);
    }
  });
});
