/** Malformed inputs at every way in: a sentence for each that is refused, and nothing throws, hangs or eats the memory. */
import { expect, it } from "vitest";
import { fuzz } from "./run";

it("500 malformed inputs do no harm", { timeout: 300_000 }, async () => {
  const outcome = await fuzz(7, 500, { slack: 3 });
  expect(outcome.faults).toEqual([]);
  expect(outcome.taken + outcome.refused).toBe(500);
  // Inputs that are all refused at the door would try nothing behind it.
  expect(outcome.taken).toBeGreaterThan(45);
});

it.each([
  ["throw", /thrown on purpose/],
  ["hang", /it hangs/],
  ["memory", /ended the thread/],
] as const)("the watch sees what does harm: %s", { timeout: 120_000 }, async (harm, words) => {
  // Memory fills slowly beside other work; a hang is told after the plain five seconds.
  const { faults, taken } = await fuzz(1, 1, { harm, slack: harm === "memory" ? 16 : 1 });
  expect([taken, faults.length]).toEqual([0, 1]);
  expect(faults[0]?.why).toMatch(words);
});
