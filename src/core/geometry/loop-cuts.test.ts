/** Rectangles taken out of regions: the areas are those that are counted point by point, arcs stay arcs. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { lawRuns } from "../kernel/law-runs.fixture";
import {
  bulgedCorners,
  flattened,
  isInside,
  type Loop,
  loopArea,
  reversedLoop,
  roundedPolygon,
  withoutBox,
} from ".";

const rectangle = (x0: number, y0: number, x1: number, y1: number, radius = 0): Loop =>
  roundedPolygon([
    { at: [x0, y0], radius },
    { at: [x1, y0], radius },
    { at: [x1, y1], radius },
    { at: [x0, y1], radius },
  ]);
const areaOf = (loops: readonly Loop[] | null) =>
  (loops ?? []).reduce((sum, loop) => sum + loopArea(loop), 0);

describe("a region without a rectangle", () => {
  const plate = [rectangle(0, 0, 300, 200, 40)];

  it("loses a corner with half of its arc, a strip right across, a room within", () => {
    // The rounded corner: of the quarter circle of 40 only what lies above the rectangle is left.
    const corner = withoutBox(plate, { from: [-1, -1], to: [20, 100] });
    // The strip of 20 × 100 less what the rounding had taken of it: x from 0 to 20 under the arc.
    const rounding = 40 * 20 - (Math.PI * 40 * 40) / 4 + (1600 * Math.asin(0.5) + 20 * Math.sqrt(1200)) / 2;
    expect(areaOf(corner)).toBeCloseTo(areaOf(plate) - (20 * 100 - rounding), 9);
    expect(corner?.flat().filter(({ kind }) => kind === "arc")).toHaveLength(4);
    const across = withoutBox(plate, { from: [-1, 90], to: [301, 110] });
    expect(across).toHaveLength(2);
    expect(areaOf(across)).toBeCloseTo(areaOf(plate) - 300 * 20, 9);
    const room = withoutBox(plate, { from: [100, 50], to: [200, 150] });
    expect(room?.map((loop) => Math.sign(loopArea(loop)))).toEqual([1, -1]);
    expect(areaOf(room)).toBeCloseTo(areaOf(plate) - 100 * 100, 9);
  });

  it("that it does not meet stays; within it nothing is left; along a side it cannot be told", () => {
    expect(withoutBox(plate, { from: [400, 0], to: [500, 100] })).toEqual(plate);
    expect(withoutBox(plate, { from: [-1, -1], to: [301, 201] })).toEqual([]);
    expect(withoutBox(plate, { from: [0, 60], to: [20, 100] })).toBeNull();
  });

  it("has the area that points in it count, whatever is rounded, hollow or cut", () => {
    let told = 0;
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 60 }),
        fc.tuple(fc.integer({ min: -40, max: 280 }), fc.integer({ min: -40, max: 180 })),
        fc.tuple(fc.integer({ min: 10, max: 200 }), fc.integer({ min: 10, max: 200 })),
        (radius, [x, y], [w, h]) => {
          const hollow = reversedLoop(rectangle(80.5, 70.5, 220.5, 130.5, Math.min(radius, 29)));
          const region = [rectangle(0, 0, 300, 200, radius), hollow];
          const box = { from: [x + 0.37, y + 0.37], to: [x + w + 0.37, y + h + 0.37] } as const;
          const left = withoutBox(region, box);
          if (!left) return;
          told++;
          const polygons = region.map((loop) => flattened(bulgedCorners(loop), 0.01));
          let count = 0;
          for (let px = 1.5; px < 300; px += 4)
            for (let py = 1.5; py < 200; py += 4) {
              const isCut = px > box.from[0] && px < box.to[0] && py > box.from[1] && py < box.to[1];
              if (!isCut && polygons.filter((one) => isInside(one, [px, py])).length % 2 === 1) count++;
            }
          // Squares of 4 × 4 along the borders count wholly or not.
          expect(Math.abs(areaOf(left) - 16 * count)).toBeLessThan(2000);
        },
      ),
      { numRuns: lawRuns(80), seed: 5 },
    );
    expect(told).toBeGreaterThan(0.8 * lawRuns(80));
  });
});
