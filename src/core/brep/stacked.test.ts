/** Bars whose section changes at levels: borders that close, and the volume of areas times heights. */
import { describe, expect, it } from "vitest";
import { type Loop, loopArea, reversedLoop, roundedPolygon, withoutBox } from "../geometry";
import { sectionProperties } from "../stockroom";
import { mirroredBrep } from "./brep";
import { faultsOf, volumeOf } from "./check.fixture";
import type { FlatEnd } from "./prism";
import { stackedBrep } from "./stacked";

const plate = roundedPolygon(
  (
    [
      [0, 0],
      [300, 0],
      [300, 200],
      [0, 200],
    ] as const
  ).map((at) => ({ at, radius: 30 })),
);
const level = (height: number): FlatEnd => [{ height, slope: [0, 0] }];
const areaOf = (loops: readonly Loop[]) => loops.reduce((sum, loop) => sum + loopArea(loop), 0);
const less = (loops: readonly Loop[], from: readonly [number, number], to: readonly [number, number]) => {
  const left = withoutBox(loops, { from, to });
  if (!left) throw new Error("it cannot be told");
  return left;
};
const sound = (brep: ReturnType<typeof stackedBrep>, volume: number) => {
  if (!brep) throw new Error("no body");
  expect(faultsOf(brep)).toEqual([]);
  expect(Math.abs(volumeOf(brep) / volume - 1)).toBeLessThan(2e-5);
  expect(faultsOf(mirroredBrep(brep))).toEqual([]);
};

describe("bodies in layers", () => {
  it("a plate with rounded corners, a rebate, a stopped groove from the other face, and an opening", () => {
    const opening = reversedLoop(
      roundedPolygon(
        (
          [
            [120, 60],
            [180, 60],
            [180, 140],
            [120, 140],
          ] as const
        ).map((at) => ({ at, radius: 12 })),
      ),
    );
    const whole = [plate, opening];
    const rebated = less(whole, [-1, -1], [12, 201]);
    const grooved = less(whole, [60, 100], [240, 112]);
    const layers = [grooved, whole, rebated];
    const volume = 6 * areaOf(grooved) + 4 * areaOf(whole) + 8 * areaOf(rebated);
    sound(stackedBrep(layers, [6, 10], level(0), level(18)), volume);
  });

  it("a groove right across, which parts the face that it is in", () => {
    const grooved = less([plate], [-1, 90], [301, 110]);
    expect(grooved).toHaveLength(2);
    sound(
      stackedBrep([[plate], grooved], [12], level(0), level(18)),
      12 * areaOf([plate]) + 6 * areaOf(grooved),
    );
  });

  it("a tube that is notched at a slanting end, from one side and from both", () => {
    const { loops, areaMm2 } = sectionProperties({
      kind: "squareTube",
      size: [40, 40, 3],
      corners: "coldFormed",
    });
    const one = less(loops, [-99, 12], [99, 99]);
    const both = less(one, [-99, -99], [99, -12]);
    expect(one).toHaveLength(1);
    expect(both).toHaveLength(2);
    // Area × mean height: the slope turns about the middle, where the tube's centroid lies; that of what is left lies elsewhere.
    sound(stackedBrep([both, loops], [100], level(0), level(500)), 100 * areaOf(both) + 400 * areaMm2);
    const slanting: FlatEnd = [{ height: 0, slope: [0.5, 0] }];
    // Both halves are each other's mirror image in x, so the slope adds nothing.
    sound(stackedBrep([one, loops], [100], slanting, level(500)), 100 * areaOf(one) + 400 * areaMm2);
  });

  it("an end that reaches over the next level cannot be said", () => {
    const grooved = less([plate], [-1, 90], [301, 110]);
    expect(stackedBrep([grooved, [plate]], [12], [{ height: 0, slope: [0.1, 0] }], level(18))).toBeNull();
  });
});
