/** The tests that `npm run mutants` puts to work: those of one module. */
import { defineConfig } from "vitest/config";
import usual from "../vitest.config";

export default defineConfig({
  ...usual,
  root: ".",
  test: {
    ...usual.test,
    include: (process.env["RUSTIC_TALLY_MUTANTS_TESTS"] ?? "src/core/**/*.test.ts").split(","),
  },
});
