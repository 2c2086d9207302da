/** Matchers of our own: `toBeWithinMm` takes a tolerance in millimetres, `toBeCloseTo` takes digits. */
import { expect } from "vitest";

declare module "vitest" {
  // biome-ignore lint/suspicious/noExplicitAny: the parameter list must repeat vitest's own declaration
  interface Matchers<T = any> {
    /** Passes when the number differs from `expected` by at most `tolerance` (in the same unit). */
    toBeWithinMm(expected: number, tolerance: number): T;
  }
}

expect.extend({
  toBeWithinMm(received: number, expected: number, tolerance: number) {
    const pass = Number.isFinite(received) && Math.abs(received - expected) <= tolerance;
    return { pass, message: () => `expected ${received} to be within ${tolerance} of ${expected}` };
  },
});
