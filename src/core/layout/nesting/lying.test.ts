/** What is cut out of a shape lies in it wherever, and whichever way up, the shape lies. */
import { describe, expect, it } from "vitest";
import { edgesOf, flattened, isInside, loopArea } from "../../geometry";
import { lyingCutOuts, lyingHoles, lyingOutline } from ".";
import { type NestingProblemInput, readNestingProblem } from "./problem";

/** An L with a slot of lines and arcs in its long leg and a hole in the short one. */
const SHAPE: NestingProblemInput["shapes"][number] = {
  outline: [
    [0, 0],
    [300, 0],
    [300, 60],
    [60, 60],
    [60, 200],
    [0, 200],
  ],
  holes: [{ x: 30, y: 170, diameter: 20 }],
  cutOuts: [
    [
      [120, 20],
      [220, 20, 1],
      [220, 40],
      [120, 40, 1],
    ],
  ],
  qty: 1,
};
const problem = readNestingProblem({
  gap: 0,
  margin: 0,
  step: 90,
  stock: [{ length: 1000, width: 1000, price: null, count: null }],
  shapes: [SHAPE],
} as NestingProblemInput);

describe("cut-outs where a shape lies", () => {
  for (const mirrored of [false, true])
    for (const angle of [0, 37, 90, 200])
      it(`${mirrored ? "mirrored, " : ""}turned by ${angle}°`, () => {
        const one = { shape: 0, angle, x: 400, y: 500, mirrored };
        const outline = lyingOutline(problem, one);
        const [slot] = lyingCutOuts(problem, one);
        if (!slot) throw new Error("no slot");
        expect(loopArea(edgesOf(slot))).toBeCloseTo(100 * 20 + Math.PI * 100, 6);
        for (const place of flattened(slot, 0.1)) expect(isInside(outline, place)).toBe(true);
        for (const { at } of lyingHoles(problem, one)) expect(isInside(outline, at)).toBe(true);
      });
});
