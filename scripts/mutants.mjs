/**
 * `npm run mutants -- MODULE [LINES] [SEED] [all]`: how many small faults the tests of a module of the core see. Lines of the
 * module are drawn by a seed, so that a run can be repeated; every mutant that lies within one of them is tried. Texts
 * are left out: words are read by people. What is put to work are the tests of the module's own folder, and those of the folder
 * above that take it through its door, which takes minutes; with `all` those of the other folders too, which takes many minutes. A tool for whoever writes tests, not part of
 * `npm test`.
 */
import { readdirSync, readFileSync, statSync } from "node:fs";
import path from "node:path";
import { Stryker } from "@stryker-mutator/core";
import { ROOT } from "./setup.mjs";

const [module, lines = "40", seed = "1", tests = "own"] = process.argv.slice(2);
if (!module) {
  console.error("Name a folder or file of src/core: npm run mutants -- geometry 40 1");
  process.exit(1);
}
process.chdir(ROOT);

/** Source files of the module, without its tests and what they share; a folder's own files only. */
function sourcesOf(name) {
  const place = path.join("src/core", name);
  if (name.endsWith(".ts")) return [place];
  return readdirSync(place)
    .filter((file) => file.endsWith(".ts") && !/\.(test|oracle|fixture|test-setup)\.ts$/.test(file))
    .filter((file) => file !== "index.ts" && statSync(path.join(place, file)).isFile())
    .map((file) => path.join(place, file));
}

/** Numbers in [0, 1) that are the same for the same seed (mulberry32). */
function numbersOf(start) {
  let state = start >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
}

/** Lines that hold something to change: an operator, a call, a condition; no imports, types or notes. */
const holdsCode = (line) =>
  /[-+*/<>!?&|]|\btrue\b|\bfalse\b|\(/.test(line) &&
  !/^\s*(?:\*|\/\*|\/\/|import\b|export (?:type|\{)|type\b|readonly\b|\}?\s*from\b)/.test(line);

const candidates = sourcesOf(module).flatMap((file) =>
  readFileSync(file, "utf8")
    .split("\n")
    .flatMap((line, i) => (holdsCode(line) ? [`${file}:${i + 1}-${i + 1}`] : [])),
);
const folder = module.endsWith(".ts") ? path.posix.dirname(module) : module;
/** Tests of the folder above that take the module through its door. */
const above = path.posix.dirname(folder);
const users =
  above === "."
    ? []
    : readdirSync(path.join("src/core", above))
        .filter((file) => file.endsWith(".test.ts"))
        .map((file) => path.posix.join("src/core", above, file))
        .filter((file) => readFileSync(file, "utf8").includes(`from "./${path.posix.basename(folder)}"`));
process.env.RUSTIC_TALLY_MUTANTS_TESTS =
  tests === "own" ? [`src/core/${folder}/**/*.test.ts`, ...users].join() : "src/core/**/*.test.ts";
const next = numbersOf(Number(seed));
const drawn = [];
while (drawn.length < Number(lines) && candidates.length > 0)
  drawn.push(...candidates.splice(Math.floor(next() * candidates.length), 1));
console.log(`${module}: ${drawn.length} of ${drawn.length + candidates.length} lines, seed ${seed}`);

const results = await new Stryker({
  mutate: drawn,
  testRunner: "vitest",
  plugins: ["@stryker-mutator/vitest-runner"],
  vitest: { configFile: "scripts/mutants.vitest.config.ts", related: false },
  coverageAnalysis: "perTest",
  mutator: { excludedMutations: ["StringLiteral"] },
  ignorePatterns: [".next", "docs", "test-results", "data", ".ci", "e2e"],
  reporters: ["clear-text"],
  clearTextReporter: { allowColor: false, logTests: false, reportTests: false, reportScoreTable: false },
  concurrency: 2,
  timeoutMS: 20_000,
  disableTypeChecks: false,
  allowEmpty: true,
  logLevel: "warn",
}).runMutationTest();
const counted = (status) => results.filter((one) => one.status === status).length;
const seen = counted("Killed") + counted("Timeout");
const unseen = counted("Survived") + counted("NoCoverage");
console.log(
  `${module}: ${seen} of ${seen + unseen} mutants seen by the tests (${Math.round((100 * seen) / Math.max(1, seen + unseen))} %), ${counted("NoCoverage")} reached by none`,
);
