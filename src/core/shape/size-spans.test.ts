import { describe, expect, it } from "vitest";
import { distance } from "../geometry";
import { resultsOf, STOCK, smallFrame } from "../pipeline.fixture";
import { sizeSpans } from ".";

const spansOf = (job: ReturnType<typeof smallFrame>) => {
  const { sizes, shape } = resultsOf(job);
  return sizeSpans(job, { variant: null, sizes, shape }, STOCK);
};

describe("key sizes in the picture", () => {
  it("each length finds a stretch that is as long as it, although formulas take from it and add to it", () => {
    const found = Object.fromEntries(
      spansOf(smallFrame()).map((span) => [span.size.name, distance(span.from, span.to)]),
    );
    expect(found["width"]).toBeWithinMm(600, 1e-6);
    expect(found["depth"]).toBeWithinMm(400, 1e-6);
    expect(found["height"]).toBeWithinMm(450, 1e-6);
  });

  it("a size that happens to be as long as something that does not follow it has none", () => {
    const job = smallFrame({ keySizes: { chance: { formula: "600" } } });
    expect(spansOf(job).map((span) => span.size.name)).not.toContain("chance");
  });

  it("follows the variant that is shown", () => {
    const job = smallFrame();
    const { shape, sizes } = resultsOf({
      ...job,
      keySizes: { ...job.keySizes, "size-width": { ...job.keySizes["size-width"], formula: "900" } as never },
    });
    const [width] = sizeSpans(job, { variant: "wide" as never, sizes, shape }, STOCK);
    expect(width && distance(width.from, width.to)).toBeWithinMm(900, 1e-6);
  });
});
