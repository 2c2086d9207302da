/** The tests that `npm run mutants` puts to work: those of the core alone, which start nothing. */
import { defineConfig } from "vitest/config";
import usual from "../vitest.config";

export default defineConfig({
  ...usual,
  root: ".",
  test: { ...usual.test, include: ["src/core/**/*.test.ts"] },
});
