/**
 * The recipes of ARCHITECTURE.md against the compiler: the types are widened by one kind each, in memory, and what no longer
 * compiles must be what each recipe marks with *.
 */
import { existsSync, readFileSync } from "node:fs";
import path from "node:path";
import { fileURLToPath } from "node:url";
import ts from "typescript";
import { describe, expect, it } from "vitest";

const ROOT = fileURLToPath(new URL("..", import.meta.url));

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

/** Files that no longer compile with all trials in place, by the trial that each error names. */
function gaps(): ReadonlyMap<string, ReadonlySet<string>> {
  const config = ts.getParsedCommandLineOfConfigFile(
    path.join(ROOT, "tsconfig.json"),
    { noEmit: true, incremental: false },
    {
      ...ts.sys,
      onUnRecoverableConfigFileDiagnostic: () => undefined,
    },
  );
  if (!config) throw new Error("tsconfig.json is read");
  const host = ts.createCompilerHost(config.options);
  const read = host.readFile;
  host.readFile = (file) => {
    const own = path.relative(ROOT, file);
    return TRIALS.filter(([, , widened]) => widened === own).reduce(
      (text: string | undefined, [, name, , from, to]) => {
        if (!text?.includes(from)) throw new Error(`${own} is widened at another place for ${name}`);
        return text.replace(from, to);
      },
      read(file),
    );
  };
  host.getSourceFile = (file, options) => {
    const text = host.readFile(file);
    return text === undefined ? undefined : ts.createSourceFile(file, text, options);
  };
  const sources = config.fileNames.filter(
    (file) => /\/src\//.test(file) && !/\.(test|fixture)\.tsx?$/.test(file),
  );
  const program = ts.createProgram(sources, config.options, host);
  const found = new Map<string, Set<string>>();
  for (const { file, messageText } of program.getSemanticDiagnostics()) {
    const [name] = ts.flattenDiagnosticMessageText(messageText, "\n").match(/trial[A-Z]\w+/) ?? [];
    // Errors that follow from others name no trial; they stand in files that are found by themselves or by their types.
    if (!file || name === undefined) continue;
    const files = found.get(name) ?? new Set<string>();
    found.set(name, files.add(path.relative(ROOT, file.fileName)));
  }
  return found;
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
