/**
 * Fails when a folder imports against the order of ARCHITECTURE.md, or when the checker itself saw
 * nothing (a checker that reads no module finds no fault).
 */
import { cruise } from "dependency-cruiser";
import { ROOT } from "./setup.mjs";

process.chdir(ROOT);

/** In the order in which data flows; a folder may import from those above it. */
const CORE = [
  "kernel",
  "transfer",
  "measure",
  "geometry",
  "stockroom",
  "ends",
  "recognise",
  "job",
  "jigs",
  "shape",
  "imports",
  "brep",
  "apart",
  "steps",
  "tally",
  "layout/stock",
  "layout/bars",
  "layout/sheets",
  "layout/nesting",
  "layout",
  "quantities",
  "lists",
  "drawing",
  "placing",
  "release",
];
const FOLDERS = ["engines", "formats", "db", "access", "server", "workers", "ui", "app", "cli"];

/** Tests and what they share may use later stages to set up what they look at. */
const TESTS = "\\.(test|oracle|fixture)\\.ts$";
const inCore = (folder) => `^src/core/${folder}/`;
const rules = [];
const forbid = (name, from, to) => rules.push({ name, severity: "error", from, to });

CORE.forEach((folder, i) => {
  const later = CORE.slice(i + 1).filter((other) => !folder.startsWith(`${other}/`) || other === folder);
  const below = later.map(inCore);
  // What is inside a folder that stands above (layout/bars in layout) is not "below" it.
  const pathNot = CORE.slice(0, i + 1).map(inCore);
  forbid(
    `core/${folder} imports what comes after it`,
    { path: inCore(folder), pathNot: TESTS },
    { path: [...below, "^src/core/pipeline"], pathNot },
  );
  // The door rule: other folders come in by index.ts only.
  forbid(
    `core/${folder} is entered past its door`,
    { path: "^(src|demo|bench|e2e)/", pathNot: [inCore(folder), TESTS] },
    {
      path: inCore(folder),
      pathNot: [
        `^src/core/${folder}/index\\.ts$`,
        ...CORE.filter((c) => c.startsWith(`${folder}/`)).map(inCore),
      ],
    },
  );
});
forbid(
  "the core knows nothing outside itself",
  { path: "^src/core/", pathNot: TESTS },
  { path: "^(src/(?!core/)|demo|bench|e2e)" },
);
forbid(
  "the core knows no Node module",
  { path: "^src/core/", pathNot: TESTS },
  { dependencyTypes: ["core"] },
);
forbid(
  "the core knows no interface or database package",
  { path: "^src/core/" },
  { path: "node_modules/(react|react-dom|next|drizzle-orm|@libsql|three|zustand)/" },
);
FOLDERS.forEach((folder, i) => {
  const later = FOLDERS.slice(i + 1).map((other) => `^src/${other}/`);
  if (later.length > 0)
    forbid(
      `${folder} imports what comes after it`,
      { path: `^src/${folder}/`, pathNot: TESTS },
      { path: later },
    );
});
forbid(
  "ui takes only the core",
  { path: "^src/ui/" },
  { path: "^src/(engines|formats|db|server|workers|app|cli)/" },
);
forbid(
  "cli stands on core, engines and formats",
  { path: "^src/cli/", pathNot: TESTS },
  { path: "^src/(db|server|workers|ui|app)/" },
);
forbid("no loops", {}, { circular: true });

const { output } = await cruise(
  ["src", "demo", "bench"],
  {
    validate: true,
    ruleSet: { forbidden: rules },
    doNotFollow: { path: "node_modules" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
    enhancedResolveOptions: { extensions: [".ts", ".tsx", ".mjs", ".js"] },
  },
  {},
);
const { summary } = output;
for (const { rule, from, to, cycle } of summary.violations) {
  console.error(
    `${rule.name}: ${from} → ${to}${cycle ? ` (${cycle.map((step) => step.name).join(" → ")})` : ""}`,
  );
}
if (summary.totalCruised < 150 || summary.totalDependenciesCruised < 300) {
  console.error(
    `Only ${summary.totalCruised} modules with ${summary.totalDependenciesCruised} imports were read; the checker is broken.`,
  );
  process.exit(1);
}
console.log(
  `${summary.totalCruised} modules, ${summary.totalDependenciesCruised} imports, ${summary.violations.length} against the order`,
);
process.exit(summary.violations.length === 0 ? 0 : 1);
