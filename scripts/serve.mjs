/**
 * Serves the built application: to this machine alone, or with `--shared` to the network of the shop, which then has to
 * enter a passcode.
 */
import { spawn } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { hostname, networkInterfaces } from "node:os";
import path from "node:path";
import { createInterface } from "node:readline/promises";
import { fromSources } from "../bin/sources.mjs";
import { ROOT } from "./setup.mjs";

const access = await fromSources("src/access/index.ts");
const { newAccess, passcodeFault, readAccess } = access;

/** Names and addresses of this machine in its network. */
function ownNames() {
  const addresses = Object.values(networkInterfaces())
    .flat()
    .filter((one) => one && !one.internal && one.family === "IPv4")
    .map((one) => one.address);
  return [hostname(), `${hostname()}.local`, ...addresses];
}

/** A passcode out of twelve digits, when there is nobody to ask. */
const madeUp = () =>
  Array.from({ length: 3 }, () =>
    String(crypto.getRandomValues(new Uint32Array(1))[0] % 10_000).padStart(4, "0"),
  ).join("-");

/** Beside the database. */
function dataFolder() {
  const database = process.env.RUSTIC_TALLY_DB ?? "";
  return database.startsWith("file:")
    ? path.dirname(path.resolve(ROOT, database.slice("file:".length)))
    : path.join(ROOT, "data");
}

/** The file with the hash of the passcode, made at the first start. */
async function accessFile() {
  const file = path.join(dataFolder(), "access.json");
  const given = process.env.RUSTIC_TALLY_PASSCODE;
  if (given === undefined && existsSync(file)) {
    if (readAccess(readFileSync(file, "utf8"))) return file;
    console.error(`${file} cannot be read. Remove it to set a new passcode.`);
    process.exit(1);
  }
  const passcode = given ?? (await asked()) ?? madeUp();
  const fault = passcodeFault(passcode);
  if (fault !== null) {
    console.error(fault);
    process.exit(1);
  }
  mkdirSync(path.dirname(file), { recursive: true });
  writeFileSync(file, JSON.stringify(newAccess(passcode)), { mode: 0o600 });
  if (given === undefined) console.log(`The passcode of the shop is ${passcode}. It is not shown again.`);
  return file;
}

async function asked() {
  if (!process.stdin.isTTY) return null;
  const lines = createInterface({ input: process.stdin, output: process.stdout });
  const text = await lines.question("Passcode for the shop (empty: one is made up): ");
  lines.close();
  return text.trim() === "" ? null : text.trim();
}

/** Starts the server and says where it can be reached. Ends with it. */
export async function serve(words) {
  const unknown = words.find((word) => word !== "--shared");
  if (unknown) {
    console.error(
      `There is no option ${unknown}; there is --shared, which opens the server to your network.`,
    );
    process.exit(1);
  }
  const shared = words.includes("--shared");
  const port = process.env.PORT ?? "3000";
  const env = {
    ...process.env,
    NODE_ENV: "production",
    NEXT_TELEMETRY_DISABLED: "1",
    PORT: port,
    HOSTNAME: shared ? "0.0.0.0" : "127.0.0.1",
  };
  delete env.RUSTIC_TALLY_ACCESS;
  if (shared) {
    env.RUSTIC_TALLY_ACCESS = await accessFile();
    env.RUSTIC_TALLY_HOSTS = [...ownNames(), process.env.RUSTIC_TALLY_HOSTS ?? ""].join(",");
  }
  const server = spawn(process.execPath, ["scripts/front.mjs"], {
    cwd: ROOT,
    stdio: ["ignore", "ignore", "inherit"],
    env,
  });
  server.on("exit", (code) => process.exit(code ?? 1));
  for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));
  for (let i = 0; i < 600; i++) {
    const answer = await fetch(`http://127.0.0.1:${port}/icon.svg`).catch(() => null);
    if (answer?.ok) {
      console.log(`\nRustic Tally is running: http://localhost:${port}  (end it with Ctrl+C)`);
      console.log(
        shared
          ? `Open to your network, with the passcode: ${ownNames()
              .map((name) => `http://${name}:${port}`)
              .join("  ")}`
          : "Only this machine can reach it; --shared opens it to your network.",
      );
      return;
    }
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}
