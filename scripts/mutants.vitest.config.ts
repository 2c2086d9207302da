/** The tests that `npm run mutants` puts to work: those of one module. */
import { defineConfig } from "vitest/config";
import usual from "../vitest.config";

// Projects say themselves which tests they take; here it is one list.
const { projects: _, ...test } = usual.test ?? {};

export default defineConfig({
  ...usual,
  root: ".",
  test: {
    ...test,
    include: (process.env["RUSTIC_TALLY_MUTANTS_TESTS"] ?? "src/core/**/*.test.ts").split(","),
  },
});
