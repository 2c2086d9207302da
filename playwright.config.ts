/** Tests that drive the real interface: a production build on its own database, in Debian's Chromium. */
import { defineConfig } from "@playwright/test";
import { BROWSER, E2E_PORT } from "./e2e/browser";

export default defineConfig({
  testDir: "e2e",
  outputDir: "test-results/e2e",
  workers: 1,
  fullyParallel: false,
  retries: 0,
  timeout: 90_000,
  expect: { timeout: 15_000 },
  reporter: [["list"], ["json", { outputFile: "test-results/e2e.json" }]],
  use: {
    baseURL: `http://localhost:${E2E_PORT}`,
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    launchOptions: BROWSER,
  },
  webServer: {
    command: "node e2e/serve.mjs",
    url: `http://localhost:${E2E_PORT}`,
    env: { PORT: String(E2E_PORT) },
    timeout: 120_000,
    reuseExistingServer: false,
  },
});
