import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";

export default defineConfig({
  resolve: { alias: { "@": fileURLToPath(new URL("./src", import.meta.url)) } },
  test: {
    // Vitest keeps one core free unless it is told otherwise; on two cores that doubles the time.
    maxWorkers: "100%",
    include: ["src/**/*.test.ts", "demo/**/*.test.ts", "fuzz/**/*.test.ts"],
    // All files of a thread share its modules: loading them anew was a quarter of the time of those that had them to themselves.
    pool: "threads",
    isolate: false,
    // A test that hangs is told all the same; one that a busy machine holds up is not.
    testTimeout: 180_000,
    setupFiles: ["./src/core/kernel/within.test-setup.ts"],
  },
});
