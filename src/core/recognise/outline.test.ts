import { describe, expect, it } from "vitest";
import { type Corner, reach, roundedPolygon, type Vec2 } from "../geometry";
import { turnedToLeast } from "./outline";

const AXES = { x: [1, 0, 0], y: [0, 1, 0] } as const;
const turned = (corners: readonly Corner[], angle: number): readonly Corner[] =>
  corners.map(({ at: [x, y], radius }) => ({
    at: [x * Math.cos(angle) - y * Math.sin(angle), x * Math.sin(angle) + y * Math.cos(angle)],
    radius,
  }));
const sizeOf = (corners: readonly Corner[]): Vec2 => {
  const { low, high } = turnedToLeast(corners, AXES);
  return [high[0] - low[0], high[1] - low[1]];
};

describe("the least rectangle round an outline", () => {
  it("lies along its straight edges where it has them", () => {
    const plate: readonly Corner[] = [
      { at: [0, 0], radius: 20 },
      { at: [400, 0], radius: 0 },
      { at: [400, 150], radius: 30 },
      { at: [0, 150], radius: 0 },
    ];
    for (const angle of [0, 0.3, 1.2, 2.5]) {
      const [length, width] = sizeOf(turned(plate, angle));
      expect(length).toBeCloseTo(400, 6);
      expect(width).toBeCloseTo(150, 6);
    }
  });

  it("lies along the axes of an oval of four arcs, which has no straight edge", () => {
    // Its arcs meet on the sides of a rhombus with half diagonals of 700 and 500; 300 x 1.4 + R x 5/7 is a side.
    const side = Math.hypot(700, 500);
    const [small, large] = [300, ((side - 300 * 1.4) * 7) / 5 - 1e-6];
    const oval: readonly Corner[] = [
      { at: [700, 0], radius: small },
      { at: [0, 500], radius: large },
      { at: [-700, 0], radius: small },
      { at: [0, -500], radius: large },
    ];
    const loop = roundedPolygon(oval);
    const [long, wide] = [2 * reach(loop, [1, 0]), 2 * reach(loop, [0, 1])];
    for (const angle of [0, 0.4, 2]) {
      const [length, width] = sizeOf(turned(oval, angle));
      expect(length).toBeCloseTo(long, 6);
      expect(width).toBeCloseTo(wide, 6);
    }
  });
});
