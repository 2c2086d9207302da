import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";

export default defineConfig({
  resolve: { alias: { "@": fileURLToPath(new URL("./src", import.meta.url)) } },
  test: {
    include: ["src/**/*.test.ts", "demo/**/*.test.ts", "fuzz/**/*.test.ts"],
    testTimeout: 60_000,
    // Vitest keeps one core free unless it is told otherwise; on two cores that doubles the time.
    maxWorkers: "100%",
    setupFiles: ["./src/core/kernel/within.test-setup.ts"],
  },
});
