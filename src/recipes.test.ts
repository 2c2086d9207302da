/**
 * The recipes of ARCHITECTURE.md against the compiler: the types are widened by one kind each, in a copy, and what no longer
 * compiles must be what each recipe marks with *.
 */
import { spawnSync } from "node:child_process";
import { cpSync, existsSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { fileURLToPath } from "node:url";
import { describe, expect, it } from "vitest";

const ROOT = fileURLToPath(new URL("..", import.meta.url));
const TSC = path.join(ROOT, "node_modules/typescript-native/bin/tsc");

/** By the heading of the recipe: the name of the kind that is added, and where its type is widened. */
const TRIALS: readonly (readonly [heading: string, name: string, file: string, from: string, to: string])[] =
  [
    [
      "A kind of end cut",
      "trialCut",
      "src/core/job/end-cuts/index.ts",
      'v.variant("kind", [',
      'v.variant("kind", [\n  v.object({ kind: v.literal("trialCut") }),',
    ],
    [
      "A kind of end",
      "trialEnd",
      "src/core/ends/end.ts",
      "export type End = PlaneEnd",
      'export type End = { readonly kind: "trialEnd" } | PlaneEnd',
    ],
    [
      "A kind of work",
      "trialWork",
      "src/core/job/panel.ts",
      'const WorkSchema = v.variant("kind", [',
      'const WorkSchema = v.variant("kind", [v.object({ id: recordId, kind: v.literal("trialWork") }), ',
    ],
    [
      "A kind of work on members",
      "trialMemberWork",
      "src/core/job/member-work.ts",
      'export const MemberWorkSchema = v.variant("kind", [',
      'export const MemberWorkSchema = v.variant("kind", [v.object({ id: recordId, kind: v.literal("trialMemberWork") }), ',
    ],
    [
      "A kind of layout",
      "trialLayout",
      "src/core/layout/types.ts",
      "type Kinds = {",
      `type Kinds = {
  readonly trialLayout: { readonly problem: BarProblem; readonly layout: BarLayout; readonly entry: SectionEntry };`,
    ],
    [
      "A page item",
      "trialItem",
      "src/core/job/page-item.ts",
      'export const PageItemSchema = v.variant("kind", [',
      'export const PageItemSchema = v.variant("kind", [\n  v.object({ ...placed, kind: v.literal("trialItem") }),',
    ],
    [
      "A format of lists",
      "trialFormat",
      "src/formats/list-file.ts",
      "export const LIST_FORMATS = {",
      'export const LIST_FORMATS = {\n  trialFormat: "text/plain",',
    ],
  ];

/** The recipes by their headings: the files that each names, and those that it marks. */
function recipes(): ReadonlyMap<
  string,
  { readonly files: readonly string[]; readonly marked: readonly string[] }
> {
  const text = readFileSync(path.join(ROOT, "ARCHITECTURE.md"), "utf8");
  const section = text.slice(text.indexOf("## Recipes"));
  return new Map(
    section.split(/^\*\*/m).flatMap((part) => {
      const [heading, body] = part.split("**");
      if (heading === undefined || body === undefined) return [];
      const named = [...body.matchAll(/`(src\/[^`]+)`(\*?)/g)];
      const files = named.map(([, file = ""]) => file);
      return [
        [heading, { files, marked: named.flatMap(([, file = "", mark]) => (mark ? [file] : [])) }] as const,
      ];
    }),
  );
}

/** The sources as they are, each trial's file widened, in a folder of their own beside the same packages. */
function widened(folder: string): void {
  const plain = (file: string) => !/\.(test|fixture)\.tsx?$/.test(file);
  cpSync(path.join(ROOT, "src"), path.join(folder, "src"), { recursive: true, filter: plain });
  symlinkSync(path.join(ROOT, "node_modules"), path.join(folder, "node_modules"));
  const options = { incremental: false, noErrorTruncation: true, paths: { "@/*": ["./src/*"] } };
  const config = { extends: path.join(ROOT, "tsconfig.json"), compilerOptions: options, include: ["src"] };
  writeFileSync(path.join(folder, "tsconfig.json"), JSON.stringify(config));
  for (const [, name, file, from, to] of TRIALS) {
    const text = readFileSync(path.join(folder, file), "utf8");
    if (!text.includes(from)) throw new Error(`${file} is widened at another place for ${name}`);
    writeFileSync(path.join(folder, file), text.replace(from, to));
  }
}

/** Files that no longer compile with all trials in place, by the trial that each error names. */
function gaps(): ReadonlyMap<string, ReadonlySet<string>> {
  const folder = mkdtempSync(path.join(tmpdir(), "recipes-"));
  try {
    widened(folder);
    const words = [TSC, "--noEmit", "--pretty", "false"];
    const { stdout } = spawnSync(process.execPath, words, {
      cwd: folder,
      encoding: "utf8",
      maxBuffer: 2 ** 26,
    });
    const found = new Map<string, Set<string>>();
    // An error begins with its file; what belongs to it stands further in on the lines below.
    for (const said of stdout.split(/^(?=\S)/m)) {
      const [, file] = said.match(/^([^(\n]+)\(\d+,\d+\): error/) ?? [];
      const [name] = said.match(/trial[A-Z]\w+/) ?? [];
      // Errors that follow from others name no trial; they stand in files that are found by themselves or by their types.
      if (file === undefined || name === undefined) continue;
      found.set(name, (found.get(name) ?? new Set<string>()).add(file));
    }
    return found;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

describe("the recipes of ARCHITECTURE.md", () => {
  const all = recipes();

  it("name files that are there", () => {
    expect([...all.keys()]).toEqual(TRIALS.map(([heading]) => heading));
    for (const { files } of all.values())
      for (const file of files) expect(`${file} ${existsSync(path.join(ROOT, file))}`).toBe(`${file} true`);
  });

  it("mark what the compiler lists when a kind is added, all of it and nothing else", () => {
    const found = gaps();
    for (const [heading, name] of TRIALS) {
      const listed = [...(found.get(name) ?? [])].sort();
      expect({ heading, listed }).toEqual({ heading, listed: [...(all.get(heading)?.marked ?? [])].sort() });
    }
  }, 120_000);
});
