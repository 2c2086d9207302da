/**
 * Nothing stands in a door (`index.ts`) that nobody outside takes: values that leave a folder without need are a promise
 * that somebody must keep. Types may stand there: they are what the values speak of.
 */
import { readFileSync } from "node:fs";
import path from "node:path";
import { filesBelow, ROOT } from "./setup.mjs";

const FOLDERS = ["src", "demo", "bench", "fuzz", "e2e", "scripts", "bin"];

const files = FOLDERS.flatMap((folder) => filesBelow(path.join(ROOT, folder))).filter((file) =>
  /\.(ts|tsx|mjs|mts)$/.test(file),
);
const textOf = new Map(files.map((file) => [file, readFileSync(file, "utf8")]));

/** The file that an import means; null: a package. */
function meant(from, spec) {
  const place = spec.startsWith("@/")
    ? path.join(ROOT, "src", spec.slice(2))
    : spec.startsWith(".")
      ? path.resolve(path.dirname(from), spec)
      : null;
  if (place === null) return null;
  return (
    [place, `${place}.ts`, `${place}.tsx`, path.join(place, "index.ts")].find((one) => textOf.has(one)) ??
    null
  );
}

const namesIn = (braces) =>
  braces
    .split(",")
    .map((one) => one.trim())
    .filter((one) => one !== "");
const taken = new Map();
const take = (door, name, by) => {
  const key = `${door} ${name}`;
  taken.set(key, [...(taken.get(key) ?? []), by]);
};
for (const [file, text] of textOf) {
  for (const [, what, spec] of text.matchAll(
    /(?:import|export)\s+(?:type\s+)?(\{[^}]*\}|\*(?:\s+as\s+\w+)?|\w+)\s+from\s+"([^"]+)"/g,
  )) {
    const door = meant(file, spec);
    if (!door) continue;
    if (!what.startsWith("{")) take(door, "*", file);
    else
      for (const one of namesIn(what.slice(1, -1)))
        take(door, one.replace(/^type /, "").split(" as ")[0], file);
  }
  // Scripts take the whole of a module when they run.
  for (const [, spec] of text.matchAll(/import\(\s*"([^"]+)"/g)) {
    const door = meant(file, spec);
    if (door) take(door, "*", file);
  }
  // So does what is put together of sources, which are named from the root.
  for (const [, files] of text.matchAll(/fromSources\(([^)]*)\)/g))
    for (const [, place] of files.matchAll(/"([^"]+)"/g)) take(path.join(ROOT, place), "*", file);
}

let doors = 0;
const unused = [];
for (const [door, text] of textOf) {
  if (path.basename(door) !== "index.ts") continue;
  doors++;
  const folder = path.dirname(door) + path.sep;
  const outside = (name) => (taken.get(`${door} ${name}`) ?? []).some((by) => !by.startsWith(folder));
  if (outside("*")) continue;
  for (const [, isType, braces] of text.matchAll(/export\s+(type\s+)?\{([^}]*)\}/g)) {
    if (isType) continue;
    for (const one of namesIn(braces)) {
      const name = one.split(" as ").at(-1);
      if (!one.startsWith("type ") && !outside(name)) unused.push(`${path.relative(ROOT, door)}: ${name}`);
    }
  }
}
for (const one of unused) console.error(`${one} leaves by the door, and nobody outside takes it`);
if (doors < 15) {
  console.error(`Only ${doors} doors were read; the checker is broken.`);
  process.exit(1);
}
console.log(`${doors} doors, ${unused.length} values that nobody takes`);
process.exit(unused.length === 0 ? 0 : 1);
