/** Sums of polygons against their definition: every corner of the one on every corner of the other. */
import { Clipper, FillRule, type Path64 } from "clipper2-ts";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { convexHull, type Vec2 } from "../../geometry";
import { lawRuns } from "../../kernel/law-runs.fixture";
import { convexParts, minkowskiSum } from "./minkowski";

const path = (points: readonly (readonly [number, number])[]): Path64 => points.map(([x, y]) => ({ x, y }));
const sumOfAreas = (paths: readonly Path64[]) => paths.reduce((sum, one) => sum + Clipper.area(one), 0);
const turns = (ring: Path64) =>
  ring.map((b, i) => {
    const [a, c] = [ring[(i + ring.length - 1) % ring.length], ring[(i + 1) % ring.length]];
    if (!a || !c) throw new Error("a ring has neighbours");
    return (b.x - a.x) * (c.y - b.y) - (b.y - a.y) * (c.x - b.x);
  });

/** A star about the origin, as wide as its radii say; large enough that rounding is nothing. */
const star = fc.array(fc.integer({ min: 2_000, max: 60_000 }), { minLength: 3, maxLength: 9 }).map((radii) =>
  path(
    radii.map((radius, i) => {
      const angle = (2 * Math.PI * i) / radii.length;
      return [Math.round(radius * Math.cos(angle)), Math.round(radius * Math.sin(angle))] as const;
    }),
  ),
);
const convex = star.map((ring) => path(convexHull(ring.map(({ x, y }): Vec2 => [x, y]))));

describe("convex parts", () => {
  it("are convex, anticlockwise, and together the polygon, whichever way round it runs", () => {
    fc.assert(
      fc.property(star, fc.boolean(), (ring, reversed) => {
        const parts = convexParts(reversed ? [...ring].reverse() : ring);
        for (const part of parts) for (const turn of turns(part)) expect(turn).toBeGreaterThan(0);
        const whole = Math.abs(Clipper.area(ring));
        // A corner that stands a hair inside counts as straight on.
        expect(Math.abs(sumOfAreas(parts) - whole)).toBeLessThan(1e-4 * whole);
        const united = Clipper.union([...parts] as never, FillRule.NonZero) as never as Path64[];
        expect(Math.abs(sumOfAreas(united) - whole)).toBeLessThan(1e-4 * whole);
      }),
      { numRuns: lawRuns(200) },
    );
  });

  it("of a convex polygon are itself, also with corners that lie on its edges", () => {
    const square = path([
      [0, 0],
      [500, 0],
      [1000, 0],
      [1000, 1000],
      [500, 1000],
      [0, 1000],
    ]);
    const parts = convexParts(square);
    expect(parts).toHaveLength(1);
    expect(parts[0]).toHaveLength(4);
    // A corner rounded a whole number inwards is straight on, one of two is not.
    expect(
      convexParts(
        path([
          [0, 0],
          [500, 1],
          [1000, 0],
          [1000, 1000],
          [0, 1000],
        ]),
      ),
    ).toHaveLength(1);
    expect(
      convexParts(
        path([
          [0, 0],
          [500, 40],
          [1000, 0],
          [1000, 1000],
          [0, 1000],
        ]),
      ).length,
    ).toBeGreaterThan(1);
  });

  it("an L is two or three of them, a spike that turns straight back encloses nothing", () => {
    const bracket = path([
      [0, 0],
      [900, 0],
      [900, 300],
      [300, 300],
      [300, 900],
      [0, 900],
    ]);
    const parts = convexParts(bracket);
    expect(parts.length).toBeLessThanOrEqual(3);
    expect(sumOfAreas(parts)).toBe(900 * 300 + 300 * 600);
    const spiked = path([
      [0, 0],
      [1000, 0],
      [1500, 0],
      [1000, 0],
      [1000, 1000],
      [0, 1000],
    ]);
    expect(sumOfAreas(convexParts(spiked))).toBe(1_000_000);
  });
});

describe("the sum of two polygons", () => {
  it("of two convex ones is the hull of all sums of their corners", () => {
    fc.assert(
      fc.property(convex, convex, (a, b) => {
        const all = a.flatMap((p) => b.map((q): Vec2 => [p.x + q.x, p.y + q.y]));
        const hull = Clipper.area(path(convexHull(all)));
        const sum = minkowskiSum([a], [b]);
        expect(sum).toHaveLength(1);
        expect(Clipper.area(sum[0] as Path64)).toBe(hull);
        // It runs round once: no corner is met twice, and none turns right.
        for (const turn of turns(sum[0] as Path64)) expect(turn).toBeGreaterThanOrEqual(0);
      }),
      { numRuns: lawRuns(200) },
    );
  });

  it("a square of 10 and one of 4 are one of 14; a triangle and its opposite are a hexagon of six times its area", () => {
    const square = (side: number) =>
      path([
        [0, 0],
        [side, 0],
        [side, side],
        [0, side],
      ]);
    expect(minkowskiSum([square(10)], [square(4)])).toEqual([square(14)]);
    const triangle = path([
      [0, 0],
      [600, 0],
      [0, 600],
    ]);
    const opposite = path([
      [0, 0],
      [-600, 0],
      [0, -600],
    ]);
    const [hexagon] = minkowskiSum([triangle], [opposite]);
    expect(hexagon).toHaveLength(6);
    expect(Clipper.area(hexagon as Path64)).toBe(6 * 180_000);
  });

  it("of hollow ones holds every sum of two of their corners, and leaves out what neither reaches", () => {
    fc.assert(
      fc.property(star, star, (a, b) => {
        const sum = minkowskiSum(convexParts(a), convexParts(b));
        const inside = (x: number, y: number) =>
          sum.some((ring) => Clipper.pointInPolygon({ x, y }, ring) !== 2);
        // A thousandth inwards, since corners may be rounded off by a hair.
        for (const p of a)
          for (const q of b)
            expect(inside(Math.round((p.x + q.x) * 0.999), Math.round((p.y + q.y) * 0.999))).toBe(true);
        const reach = Math.max(...a.map((p) => p.x)) + Math.max(...b.map((q) => q.x));
        expect(Math.max(...sum.flat().map(({ x }) => x))).toBe(reach);
      }),
      { numRuns: lawRuns(60) },
    );
  });
});
