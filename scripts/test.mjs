/**
 * `npm test`: everything that must hold before a change lands, from a fresh clone: format and lint, the
 * order of the folders, types, unused code, unit tests, a production build, and the tests that drive it.
 * `npm test -- --quick`: types, lint, the order of the folders and the unit tests of the folders that changed, for whoever
 * is at work.
 */
import { spawn, spawnSync } from "node:child_process";
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { bin, checkNode, installPackages, ROOT, run, TSC } from "./setup.mjs";

/** Debian's packages that the tests need: the browser, and readers of PDF and DXF that are not our own. */
const PROGRAMS = [
  // The browser without its windows is quicker; with them it does as well.
  { program: "chromium-headless-shell", package: "chromium-headless-shell", instead: "chromium" },
  { program: "pdftotext", package: "poppler-utils" },
  { program: "ezdxf", package: "python3-ezdxf" },
];

/** Installs the programs that lack: begun at once, and waited for by whoever needs them. */
async function installPrograms() {
  const has = (program) => spawnSync("which", [program]).status === 0;
  const lacking = PROGRAMS.filter((one) => !has(one.program));
  const missing = lacking.map((one) => one.package);
  if (missing.length === 0) return;
  if (process.getuid?.() !== 0 || spawnSync("which", ["apt-get"]).status !== 0) {
    if (lacking.every((one) => one.instead && has(one.instead))) return;
    console.error(`The tests need ${missing.join(" and ")}. On Debian: apt-get install ${missing.join(" ")}`);
    process.exit(1);
  }
  const words = `apt-get update -q && apt-get install -q -y --no-install-recommends ${missing.join(" ")}`;
  const child = spawn("sh", ["-c", words], {
    env: { ...process.env, DEBIAN_FRONTEND: "noninteractive" },
    // What it says would stand between the lines of the packages and checks.
    stdio: ["ignore", "ignore", "inherit"],
  });
  const code = await new Promise((resolve) => child.on("close", resolve));
  if (code === 0) return;
  console.error(`${missing.join(" and ")} could not be installed: ${words}`);
  process.exit(1);
}

function step(name, words, more = {}) {
  console.log(`\n── ${name}`);
  run(process.execPath, words, { env: { NEXT_TELEMETRY_DISABLED: "1", ...more } });
}

/**
 * Rows of checks side by side, those of a row one after the other; each says all that it has to say when it ends. The first that
 * fails ends the whole.
 */
async function together(rows) {
  const running = new Set();
  const stop = () => {
    for (const child of running) child.kill();
  };
  process.once("exit", stop);
  const one = ([name, words, more = {}]) =>
    new Promise((resolve) => {
      const begun = performance.now();
      const child = spawn(process.execPath, words, {
        cwd: ROOT,
        env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1", ...more },
      });
      running.add(child);
      let said = "";
      for (const stream of [child.stdout, child.stderr])
        stream.on("data", (text) => {
          said += text;
        });
      const ended = (code) => {
        running.delete(child);
        console.log(`\n── ${name} (${Math.round((performance.now() - begun) / 1000)} s)\n${said}`);
        if (code !== 0) process.exit(1);
        resolve();
      };
      child.on("exit", (code) => ended(code ?? 1));
      child.on("error", () => ended(1));
    });
  await Promise.all(
    rows.map(async (row) => {
      for (const check of row) await one(check);
    }),
  );
  process.off("exit", stop);
}

const report = (name) => path.join(ROOT, "test-results", name);
mkdirSync(path.join(ROOT, "test-results"), { recursive: true });

/** Tests that passed, from the two runners' own reports; both have already failed loudly if any did not. */
function countPassed() {
  const unit = JSON.parse(readFileSync(report("unit.json"), "utf8")).numPassedTests;
  const driven = JSON.parse(readFileSync(report("e2e.json"), "utf8")).stats.expected;
  return unit + driven;
}

/** Lines that git prints; none where there is no git. */
const git = (...words) =>
  (spawnSync("git", words, { cwd: ROOT, encoding: "utf8" }).stdout ?? "").split("\n").filter(Boolean);

/** Folders with code that changed since the last commit, or in it where nothing has changed since. */
function changedFolders() {
  const now = [...git("diff", "--name-only", "HEAD"), ...git("ls-files", "--others", "--exclude-standard")];
  const files = now.length > 0 ? now : git("diff", "--name-only", "HEAD~1", "HEAD");
  const code = files.filter((file) => /^(src|demo|fuzz)\/.*\.tsx?$/.test(file));
  return [...new Set(code.map((file) => `${path.dirname(file)}/`))];
}

/** Checks that hang on nothing of one another, side by side; what each said when it failed. */
async function quick() {
  const folders = changedFolders();
  const checks = [
    ["Types", [TSC, "--noEmit"]],
    ["Format and lint", [bin("biome"), "check", "."]],
    ["Order of the folders", ["scripts/check-folders.mjs"]],
    ["Doors of the folders", ["scripts/check-doors.mjs"]],
    ...(folders.length > 0
      ? [[`Unit tests in ${folders.join(" ")}`, [bin("vitest"), "run", "--passWithNoTests", ...folders]]]
      : []),
  ];
  const ran = checks.map(
    ([name, words]) =>
      new Promise((resolve) => {
        let said = "";
        const child = spawn(process.execPath, words, { cwd: ROOT, env: { ...process.env, NO_COLOR: "1" } });
        for (const stream of [child.stdout, child.stderr])
          stream.on("data", (text) => {
            said += text;
          });
        child.on("exit", (code) => {
          console.log(code === 0 ? `ok      ${name}` : `FAILED  ${name}\n${said}`);
          resolve(code ?? 1);
        });
      }),
  );
  process.exit((await Promise.all(ran)).some((code) => code !== 0) ? 1 : 0);
}

checkNode();
if (process.argv.includes("--quick")) {
  installPackages();
  await quick();
}
const programs = installPrograms();
installPackages();
const demo = mkdtempSync(path.join(tmpdir(), "rustic-tally-demo-"));
process.once("exit", () => rmSync(demo, { recursive: true, force: true }));
step("Types", [bin("next"), "typegen"]);
// Types are read from what the build writes: it begins after them.
step("Types of the whole", [TSC, "--noEmit"]);
// What hangs on nothing of one another runs side by side: there are two processors, and most checks use one.
await together([
  [["Production build", ["scripts/build.mjs"], { RUSTIC_TALLY_TYPES_CHECKED: "1" }]],
  [
    ["Demo data for the tests that drive it", ["scripts/run.mjs", "e2e/demo-folder.ts", demo]],
    ["Types of the core, without DOM and Node", [TSC, "--noEmit", "-p", "src/core/tsconfig.json"]],
    ["Format and lint", [bin("biome"), "check", "."]],
    ["Order of the folders", ["scripts/check-folders.mjs"]],
    ["Doors of the folders", ["scripts/check-doors.mjs"]],
    ["Unused files, exports and packages", [bin("knip")]],
  ],
]);
await programs;
step("Unit tests", [
  bin("vitest"),
  "run",
  "--reporter=default",
  "--reporter=json",
  `--outputFile=${report("unit.json")}`,
]);
step("The application in Chromium", [bin("playwright"), "test"], { RUSTIC_TALLY_DEMO_FOLDER: demo });
if (existsSync(report("e2e.json"))) console.log(`\n${countPassed()} passed, 0 failed`);
