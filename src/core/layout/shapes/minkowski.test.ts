import { Clipper, FillRule, type Paths64 } from "clipper2-ts";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { at } from "../../kernel";
import { convexParts, minkowskiSum } from "./minkowski";
import { GUSSET, run, starOf } from "./shapes.fixture";

describe("Minkowski sums", () => {
  const path = (polygon: readonly (readonly [number, number])[]) =>
    polygon.map(([x, y]) => ({ x: Math.round(x * 1000), y: Math.round(y * 1000) }));
  const areaIn = (paths: Paths64) => paths.reduce((sum, one) => sum + Clipper.area(one), 0) / 1e6;

  it("with a disc have the area of Steiner's formula: A + P·r + π·r² (Steiner 1840)", () => {
    const disc = Array.from({ length: 720 }, (_, i): [number, number] => [
      10 * Math.cos((i * Math.PI) / 360),
      10 * Math.sin((i * Math.PI) / 360),
    ]);
    const sum = minkowskiSum(convexParts(path(GUSSET)), convexParts(path(disc)));
    const round = 100 + 100 + 100 * Math.SQRT2;
    expect(areaIn(sum)).toBeWithinMm(5000 + 10 * round + Math.PI * 100, 0.2);
  });

  it("are whole where growing left edges of a thousandth that point anywhere", () => {
    // Such edges, sorted by their direction among the others, once cost a third of a sum and laid pieces on one another.
    const { layout } = run({
      gap: 0,
      step: 45,
      margin: 3,
      stock: [{ length: 400, width: 250, price: 5 }],
      shapes: [
        { outline: starOf([67, 28, 42, 22, 43, 46, 30]), qty: 2 },
        { outline: starOf([43, 57, 50, 27, 19, 20, 50]), qty: 2, opposite: null },
      ],
    });
    expect(layout.unplaced).toEqual([]);
    for (const part of convexParts(path(starOf([67, 28, 42, 22, 43, 46, 30]).map(([x, y]) => [x, y]))))
      part.forEach((b, i) => {
        const [a, c] = [at(part, (i + part.length - 1) % part.length), at(part, (i + 1) % part.length)];
        expect((b.x - a.x) * (c.y - b.y) - (b.y - a.y) * (c.x - b.x)).toBeGreaterThan(0);
      });
  });

  it("are those of a general-purpose library (Clipper 2) for any star-shaped outlines", () => {
    const star = fc.array(fc.integer({ min: 10, max: 90 }), { minLength: 3, maxLength: 8 }).map((radii) =>
      path(
        radii.map((radius, i): [number, number] => {
          const angle = (2 * Math.PI * i) / radii.length;
          return [radius * Math.cos(angle), radius * Math.sin(angle)];
        }),
      ),
    );
    const solid = (paths: Paths64) => areaIn(paths.filter((one) => Clipper.area(one) > 0));
    fc.assert(
      fc.property(star, star, (a, b) => {
        const own = minkowskiSum(convexParts(a), convexParts(b));
        const other = Clipper.union(Clipper.minkowskiSum(a, b, true), FillRule.NonZero);
        expect(solid(own)).toBeWithinMm(solid(other), 0.5);
      }),
      { numRuns: 60 },
    );
  });
});
