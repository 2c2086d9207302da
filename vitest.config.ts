import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";

/** What changes the process or keeps something open has modules of its own; everything else shares them, and is loaded once. */
const ALONE = [
  "src/server/**/*.test.ts",
  "src/db/**/*.test.ts",
  "src/access/**/*.test.ts",
  "src/cli/**/*.test.ts",
  "fuzz/**/*.test.ts",
];

export default defineConfig({
  resolve: { alias: { "@": fileURLToPath(new URL("./src", import.meta.url)) } },
  test: {
    // Vitest keeps one core free unless it is told otherwise; on two cores that doubles the time.
    maxWorkers: "100%",
    projects: [
      {
        extends: true,
        test: {
          name: "shared",
          include: ["src/**/*.test.ts", "demo/**/*.test.ts"],
          exclude: ALONE,
          pool: "threads",
          isolate: false,
        },
      },
      { extends: true, test: { name: "alone", include: ALONE } },
    ],
    // A test that hangs is told all the same; one that a busy machine holds up is not.
    testTimeout: 180_000,
    setupFiles: ["./src/core/kernel/within.test-setup.ts"],
  },
});
