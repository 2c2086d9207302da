/** What both commands need before they can start: the packages, and a build that is not older than the sources. */
import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import path from "node:path";
import { fileURLToPath } from "node:url";

export const ROOT = fileURLToPath(new URL("..", import.meta.url));
const LEAST_NODE = [20, 9];

/** Runs a program and shows what it says; ends this one when it fails. */
export function run(command, words, extra = {}) {
  const done = spawnSync(command, words, {
    cwd: ROOT,
    stdio: "inherit",
    ...extra,
    env: { ...process.env, ...extra.env },
  });
  if (done.status === 0) return;
  if (done.error) console.error(`${command} could not be started: ${done.error.message}`);
  process.exit(done.status ?? 1);
}

/** A program of the installed packages, run by this Node. */
export const bin = (name) => path.join(ROOT, "node_modules", ".bin", name);

/** The compiler that checks types: the native one, six times as fast. The other is there for the build, which asks for its library. */
export const TSC = path.join(ROOT, "node_modules", "typescript-native", "bin", "tsc");

export function checkNode() {
  const [major = 0, minor = 0] = process.versions.node.split(".").map(Number);
  if (major > LEAST_NODE[0] || (major === LEAST_NODE[0] && minor >= LEAST_NODE[1])) return;
  console.error(
    `Rustic Tally needs Node ${LEAST_NODE.join(".")} or newer; this is ${process.versions.node}.`,
  );
  process.exit(1);
}

/** Installs the packages when they are missing or older than the lock file. */
export function installPackages() {
  const lock = path.join(ROOT, "package-lock.json");
  const done = path.join(ROOT, "node_modules", ".rustic-tally-installed");
  const wanted = createHash("sha256").update(readFileSync(lock)).digest("hex");
  if (existsSync(done) && readFileSync(done, "utf8") === wanted) return;
  console.log("Installing packages…");
  run("npm", ["ci", "--include=dev", "--no-audit", "--no-fund"]);
  writeFileSync(done, wanted);
}

const BUILT_FROM = ["src", "next.config.ts", "postcss.config.mjs", "tsconfig.json", "package-lock.json"];

/** All files below a place, in the order of their names. */
export function filesBelow(place) {
  if (!statSync(place).isDirectory()) return [place];
  return readdirSync(place, { withFileTypes: true })
    .sort((a, b) => (a.name < b.name ? -1 : 1))
    .flatMap((entry) => filesBelow(path.join(place, entry.name)));
}

/** Builds the application when its sources differ from those of the last build. */
export function buildApplication() {
  const hash = createHash("sha256");
  for (const place of BUILT_FROM) {
    for (const file of filesBelow(path.join(ROOT, place))) {
      if (file.endsWith(".test.ts")) continue;
      hash.update(path.relative(ROOT, file)).update(readFileSync(file));
    }
  }
  const wanted = hash.digest("hex");
  const stamp = path.join(ROOT, ".next", "built-from");
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === wanted) return;
  console.log("Building the application…");
  run(process.execPath, [bin("next"), "build"], { env: { NEXT_TELEMETRY_DISABLED: "1" } });
  mkdirSync(path.dirname(stamp), { recursive: true });
  writeFileSync(stamp, wanted);
}
