/** Curves as arcs: within a hundredth of a millimetre of closed forms, smooth where the curve is, and few. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { flattened, polygonArea, type Vec2 } from "@/core/geometry";
import { at } from "@/core/kernel";
import { type ArcRun, arcsOf, ellipse, spline } from "./dxf-curves";

const polygonOf = ({ corners, end }: ArcRun) => flattened([...corners, [end[0], end[1], 0]], 1e-4);

/** The farthest that corners of a polygon lie from places of a curve that stand very close to one another. */
function farthest(run: ArcRun, places: readonly Vec2[]): number {
  const polygon = polygonOf(run);
  let most = 0;
  for (const [x, y] of places) {
    let least = Number.POSITIVE_INFINITY;
    for (let i = 0; i + 1 < polygon.length; i++) {
      const [[x0, y0], [x1, y1]] = [at(polygon, i), at(polygon, i + 1)];
      const [dx, dy] = [x1 - x0, y1 - y0];
      const t = Math.min(1, Math.max(0, ((x - x0) * dx + (y - y0) * dy) / (dx * dx + dy * dy || 1)));
      least = Math.min(least, Math.hypot(x - x0 - t * dx, y - y0 - t * dy));
    }
    most = Math.max(most, least);
  }
  return most;
}

describe("arcs of a curve", () => {
  it("lie on an ellipse of any form, and enclose π a b", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 900, noNaN: true }),
        fc.double({ min: 0.05, max: 1, noNaN: true }),
        (a, share) => {
          const b = a * share;
          const run = arcsOf(ellipse([10, 20], [a, 0], [0, b]));
          const places = Array.from({ length: 97 }, (_, i): Vec2 => {
            const t = (2 * Math.PI * i) / 97;
            return [10 + a * Math.cos(t), 20 + b * Math.sin(t)];
          });
          expect(farthest(run, places)).toBeLessThan(0.01);
          expect(Math.abs(polygonArea(polygonOf(run)) - Math.PI * a * b)).toBeLessThan(
            0.01 * 2 * Math.PI * a,
          );
          expect(run.corners.length).toBeLessThan(200);
        },
      ),
      { numRuns: 30 },
    );
    // A whole table top of 1,600 × 900 takes no more than this.
    expect(arcsOf(ellipse([0, 0], [800, 0], [0, 450])).corners.length).toBeLessThan(130);
  });

  it("lie on a cubic that is given by Bernstein's polynomials", () => {
    const corners: readonly Vec2[] = [
      [0, 0],
      [100, 300],
      [400, -200],
      [500, 100],
    ];
    const made = spline(3, [0, 0, 0, 0, 1, 1, 1, 1], corners);
    if (!made) throw new Error("no spline");
    const places = Array.from({ length: 61 }, (_, i): Vec2 => {
      const t = i / 60;
      const weights = [(1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t * t * (1 - t), t ** 3];
      return [0, 1].map((k) =>
        weights.reduce((sum, weight, j) => sum + weight * at(corners, j)[k as 0 | 1], 0),
      ) as unknown as Vec2;
    });
    const run = arcsOf(made);
    expect(farthest(run, places)).toBeLessThan(0.01);
    // Smooth: each arc begins the way that the one before it ends.
    const all = [...run.corners, [run.end[0], run.end[1], 0] as const];
    const ways = run.corners.map(([x, y, bulge = 0], i) => {
      const next = at(all, i + 1);
      const chord = Math.atan2(next[1] - y, next[0] - x);
      return [chord - 2 * Math.atan(bulge), chord + 2 * Math.atan(bulge)] as const;
    });
    for (let i = 1; i < ways.length; i++)
      expect(Math.abs(Math.sin((at(ways, i)[0] - at(ways, i - 1)[1]) / 2))).toBeLessThan(1e-6);
  });

  it("with weights lie on the circle that they make (The NURBS Book, example 7.1: a full circle of nine corners)", () => {
    const half = Math.SQRT1_2;
    const corners: readonly Vec2[] = [
      [50, 0],
      [50, 50],
      [0, 50],
      [-50, 50],
      [-50, 0],
      [-50, -50],
      [0, -50],
      [50, -50],
      [50, 0],
    ];
    const knots = [0, 0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 4];
    const made = spline(2, knots, corners, [1, half, 1, half, 1, half, 1, half, 1]);
    if (!made) throw new Error("no spline");
    const run = arcsOf(made);
    const places = Array.from({ length: 90 }, (_, i): Vec2 => [50 * Math.cos(i / 14), 50 * Math.sin(i / 14)]);
    expect(farthest(run, places)).toBeLessThan(0.001);
    expect(spline(2, knots, corners, [1, 0, 1, 1, 1, 1, 1, 1, 1])).toBeNull();
  });

  it("a straight spline is a line; knots that do not fit are none", () => {
    const straight = spline(
      1,
      [0, 0, 1, 2, 2],
      [
        [0, 0],
        [10, 0],
        [10, 5],
      ],
    );
    expect(straight && arcsOf(straight)).toEqual({
      corners: [
        [0, 0, 0],
        [5, 0, 0],
        [10, 0, 0],
        [10, 2.5, 0],
      ],
      end: [10, 5],
    });
    expect(
      spline(
        3,
        [0, 0, 1, 1],
        [
          [0, 0],
          [1, 1],
        ],
      ),
    ).toBeNull();
    expect(
      spline(
        2,
        [0, 0, 0, 1, 0.5, 1],
        [
          [0, 0],
          [1, 1],
          [2, 0],
        ],
      ),
    ).toBeNull();
  });
});
