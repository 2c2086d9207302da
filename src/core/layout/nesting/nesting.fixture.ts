/** What the tests of nesting share: a layout that both checks have passed, and a few shapes. */
import { expect } from "vitest";
import { nestingFaultOf } from "./independent.fixture";
import { layOutNesting } from "./layout";
import { type NestingProblemInput, readNestingProblem } from "./problem";
import { verifyNesting } from "./verify";

export function run(input: NestingProblemInput, passes = 20) {
  const problem = readNestingProblem(input);
  const layout = layOutNesting(problem, { seed: 1, now: () => 0, budgetMs: 1, passes });
  expect(verifyNesting(problem, layout)).toBeNull();
  expect(nestingFaultOf(problem, layout)).toBeNull();
  return { problem, layout };
}
export const GUSSET: [number, number][] = [
  [0, 0],
  [100, 0],
  [0, 100],
];
export const PLATE = { length: 500, width: 300, price: 12 };

/** Corners at these distances from the middle, all round; the first edge is a hollow arc. */
export const starOf = (radii: readonly number[], bulge = -0.2) =>
  radii.map((radius, i): [number, number, number] => {
    const angle = (2 * Math.PI * i) / radii.length;
    return [radius * Math.cos(angle), radius * Math.sin(angle), i === 0 ? bulge : 0];
  });
