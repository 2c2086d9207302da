/**
 * TypeScript sources as one module that Node loads at once. They are put together when one of them has changed since the last
 * time, and otherwise taken as they were: what reads hundreds of files one by one starts several times as slowly. Packages stay
 * packages. Where nothing can be written beside them the sources are read one by one.
 */
import { createHash } from "node:crypto";
import { mkdirSync, readFileSync, renameSync, statSync, writeFileSync } from "node:fs";
import { readFile } from "node:fs/promises";
import path from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";

const ROOT = fileURLToPath(new URL("..", import.meta.url));
/** Within the packages, so that they are found from there. */
const FOLDER = path.join(ROOT, "node_modules", ".cache", "rustic-tally");

/** What a file was when it was taken in. */
const stampOf = (file) => {
  const { mtimeMs, size } = statSync(path.join(ROOT, file));
  return `${mtimeMs} ${size}`;
};

function isFresh(list) {
  try {
    const { stamps } = JSON.parse(readFileSync(list, "utf8"));
    return Object.entries(stamps).every(([file, stamp]) => stampOf(file) === stamp);
  } catch {
    return false;
  }
}

/** A file asks where it stands: there, and not where it was put together with others. */
const ownPlace = {
  name: "own-place",
  setup: (build) =>
    build.onLoad({ filter: /\.ts$/ }, async ({ path: file }) => {
      const text = await readFile(file, "utf8");
      const contents = text.replaceAll("import.meta.url", JSON.stringify(pathToFileURL(file).href));
      return { contents, loader: "ts" };
    }),
};

function replaceFile(file, text) {
  // Another process may put the same together just now.
  const own = `${file}.${process.pid}.${performance.now()}`;
  writeFileSync(own, text);
  renameSync(own, file);
}

/** The values of some source files, named from the root of the repository. */
export async function fromSources(...files) {
  const name = `${path.basename(files[0], ".ts")}-${createHash("sha256").update(files.join("\n")).digest("hex").slice(0, 12)}`;
  const [code, list] = [path.join(FOLDER, `${name}.mjs`), path.join(FOLDER, `${name}.json`)];
  if (isFresh(list)) return import(pathToFileURL(code).href);
  const begun = Date.now();
  const { build } = await import("esbuild");
  const made = await build({
    stdin: {
      contents: files.map((file) => `export * from ${JSON.stringify(`./${file}`)};`).join("\n"),
      resolveDir: ROOT,
    },
    absWorkingDir: ROOT,
    bundle: true,
    write: false,
    metafile: true,
    platform: "node",
    format: "esm",
    target: "node20",
    packages: "external",
    alias: { "@": "./src" },
    logLevel: "error",
    plugins: [ownPlace],
  });
  const read = Object.keys(made.metafile.inputs).filter((file) => file !== "<stdin>");
  try {
    mkdirSync(FOLDER, { recursive: true });
    const text = made.outputFiles[0].text;
    replaceFile(code, text);
    // What was saved meanwhile may have been read before: the next start puts it together again.
    const stands = read.every((file) => statSync(path.join(ROOT, file)).mtimeMs < begun);
    if (stands)
      replaceFile(
        list,
        JSON.stringify({ stamps: Object.fromEntries(read.map((file) => [file, stampOf(file)])) }),
      );
  } catch {
    const { tsImport } = await import("tsx/esm/api");
    const parts = await Promise.all(
      files.map((file) => tsImport(pathToFileURL(path.join(ROOT, file)).href, import.meta.url)),
    );
    // Reading TypeScript switched on maps of sources, which would be read with every file that is loaded from now on.
    process.setSourceMapsEnabled(false);
    return Object.assign({}, ...parts);
  }
  return import(pathToFileURL(code).href);
}
