/** The built application on a database of its own with the demo data. */
import { type ChildProcess, spawn, spawnSync } from "node:child_process";
import { cpSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { fileURLToPath } from "node:url";

const root = fileURLToPath(new URL("..", import.meta.url));
const databaseIn = (folder: string) => `file:${path.join(folder, "jobs.db")}`;

/** What is proven is told at once; the rest need not be searched for as long as a shop would. */
const LESS_TIME = { RUSTIC_TALLY_LAYOUT_TIME: "0.1" } as const;

/** First layouts of the demo data: any will do. */
const LEAST_TIME = { RUSTIC_TALLY_LAYOUT_TIME: "0.04" } as const;

/** A folder with a database of the demo data: a new one, or one that is there and empty. */
export function demoFolder(folder = mkdtempSync(path.join(tmpdir(), "rustic-tally-demo-"))): string {
  const loaded = spawnSync(process.execPath, ["scripts/run.mjs", "demo/load.ts"], {
    cwd: root,
    env: { ...process.env, ...LEAST_TIME, RUSTIC_TALLY_DB: databaseIn(folder) },
    stdio: ["ignore", "ignore", "inherit"],
  });
  if (loaded.status !== 0) throw new Error("the demo data could not be loaded");
  return folder;
}

export type Application = { readonly url: string; readonly stop: () => Promise<void> };

/** Serves the application on a copy of a folder with a database; the copy is gone when it is stopped. */
export async function startApplication(
  from: string,
  port: number,
  more: Readonly<Record<string, string>> = {},
): Promise<Application> {
  const folder = mkdtempSync(path.join(tmpdir(), "rustic-tally-e2e-"));
  cpSync(from, folder, { recursive: true });
  const server = spawn(process.execPath, ["scripts/front.mjs"], {
    cwd: root,
    env: {
      ...process.env,
      NODE_ENV: "production",
      NEXT_TELEMETRY_DISABLED: "1",
      RUSTIC_TALLY_DB: databaseIn(folder),
      PORT: String(port),
      HOSTNAME: "127.0.0.1",
      ...LESS_TIME,
      ...more,
    },
    stdio: ["ignore", "ignore", "inherit"],
  });
  const url = `http://localhost:${port}`;
  const stop = async () => {
    await ended(server);
    rmSync(folder, { recursive: true, force: true });
  };
  for (let i = 0; i < 1200; i++) {
    if (server.exitCode !== null) throw new Error(`the application ended with ${server.exitCode}`);
    // Not a page: which pages are needed first, the tests decide.
    const answer = await fetch(`${url}/icon.svg`).catch(() => null);
    if (answer?.ok) return { url, stop };
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  await stop();
  throw new Error("the application did not answer within a minute");
}

/** The application on a copy of the demo data that all driven tests begin with. */
export const startDemo = (port: number, more: Readonly<Record<string, string>> = {}): Promise<Application> =>
  startApplication(process.env["RUSTIC_TALLY_DEMO_FOLDER"] ?? "", port, more);

async function ended(server: ChildProcess): Promise<void> {
  if (server.exitCode !== null || server.signalCode !== null) return;
  const gone = new Promise((resolve) => server.once("exit", resolve));
  server.kill("SIGTERM");
  const slow = setTimeout(() => server.kill("SIGKILL"), 5_000);
  await gone;
  clearTimeout(slow);
}
