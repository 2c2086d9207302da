import { describe, expect, it } from "vitest";
import type { Polygon, Vec2 } from "../geometry";
import { hatched, hatchLines } from "./hatching";

const box = (x0: number, y0: number, x1: number, y1: number): Polygon => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];
const length = (lines: ReturnType<typeof hatchLines>) =>
  lines.reduce((sum, [a, b]) => sum + Math.hypot(b[0] - a[0], b[1] - a[1]), 0);

describe("hatching", () => {
  it("covers the section evenly: its length times the distance is the area, whatever the angle", () => {
    for (const angle of [0, 30, 45, 135]) {
      const lines = hatchLines([box(0, 0, 80, 50), box(20, 15, 60, 35)], { angle, apart: 0.5 });
      expect((length(lines) * 0.5) / (80 * 50 - 40 * 20)).toBeCloseTo(1, 2);
    }
  });

  it("leans as it is told, up to the right as it is seen, and stays out of holes", () => {
    const lines = hatchLines([box(0, 0, 80, 50), box(20, 15, 60, 35)], { angle: 45, apart: 3 });
    expect(lines.length).toBeGreaterThan(20);
    for (const [a, b] of lines) {
      // y runs down on paper.
      expect(Math.atan2(a[1] - b[1], b[0] - a[0])).toBeCloseTo(Math.PI / 4, 9);
      const [x, y]: Vec2 = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
      expect(x > 20.001 && x < 59.999 && y > 15.001 && y < 34.999).toBe(false);
    }
  });

  it("is a filling where the section is thin on paper", () => {
    const wall = hatched(
      [box(0, 0, 40, 40), [...box(0.3, 0.3, 39.7, 39.7)].reverse()],
      { angle: 45, apart: 2 },
      0.25,
    );
    expect(wall.map((item) => item.kind === "paths" && item.fill)).toEqual(["ink"]);
    const solid = hatched([box(0, 0, 40, 40)], { angle: 45, apart: 2 }, 0.25);
    expect(solid.every(({ kind }) => kind === "line")).toBe(true);
  });
});
