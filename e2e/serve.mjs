/** Serves the built application on a new database with the demo data; the tests' own, gone with them. */
import { spawn, spawnSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { bin, ROOT } from "../scripts/setup.mjs";

const folder = mkdtempSync(path.join(tmpdir(), "rustic-tally-e2e-"));
const env = {
  ...process.env,
  NEXT_TELEMETRY_DISABLED: "1",
  RUSTIC_TALLY_DB: `file:${path.join(folder, "e2e.db")}`,
};
const loaded = spawnSync(process.execPath, [bin("tsx"), "demo/load.ts"], {
  cwd: ROOT,
  env,
  stdio: "inherit",
});
if (loaded.status !== 0) process.exit(1);
const server = spawn(process.execPath, [bin("next"), "start", "--port", process.env.PORT ?? "3210"], {
  cwd: ROOT,
  env,
  stdio: "inherit",
});
server.on("exit", (code) => {
  rmSync(folder, { recursive: true, force: true });
  process.exit(code ?? 1);
});
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));
