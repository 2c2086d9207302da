/** Tests that drive the real interface: a production build on databases of their own, in Debian's Chromium. */
import { defineConfig } from "@playwright/test";
import { BROWSER } from "./e2e/browser";
import type { OfTest } from "./e2e/fixtures";

/** Their tests make jobs of their own and look at those alone: one server for all of them. */
const OWN_JOBS =
  /(accessible|assemblies|drawing|first-hour|import|lists|outlines|potting-bench|typed-in|whole-set)\.spec\.ts$/;

export default defineConfig<OfTest>({
  projects: [
    { name: "what jobs share", testIgnore: OWN_JOBS },
    { name: "jobs of their own", testMatch: OWN_JOBS, use: { database: "shared" } },
  ],
  testDir: "e2e",
  outputDir: "test-results/e2e",
  globalSetup: "./e2e/set-up.ts",
  workers: 2,
  fullyParallel: false,
  retries: 0,
  // A test that hangs is told all the same; one that a busy machine holds up is not.
  timeout: 180_000,
  expect: { timeout: 15_000 },
  reporter: [["list"], ["json", { outputFile: "test-results/e2e.json" }]],
  use: {
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    launchOptions: BROWSER,
  },
});
