/**
 * The command line over core, engines and formats. Results go to stdout, words to stderr. Exit code 0:
 * fine; 1: something was found that a person should look at; 2: bad use or a file that cannot be read.
 */
import { readFileSync } from "node:fs";
import path from "node:path";
import * as v from "valibot";
import { modelOf, modelWords } from "@/core/brep";
import type { PageHead } from "@/core/drawing";
import { imported, layersOf, scaledFile, skeletonEdit } from "@/core/imports";
import {
  type Asset,
  type Assets,
  assetIdOf,
  emptyJob,
  issueWords,
  type Job,
  NO_ASSETS,
  type PageId,
  type PageItemId,
  pagesInOrder,
  plainCheck,
  readCuttingList,
  rowFaultWords,
  type VariantId,
  withEdit,
} from "@/core/job";
import { counted, err, ok, type Result, sentence } from "@/core/kernel";
import { LAYOUT_KINDS } from "@/core/layout";
import { BarProblemSchema, layOutBars, lockedBarFault } from "@/core/layout/bars";
import { layOutNesting, lockedNestingFault, NestingProblemSchema } from "@/core/layout/nesting";
import { layOutSheets, lockedFault, SheetProblemSchema } from "@/core/layout/sheets";
import { reasonWords, type UnplacedReason } from "@/core/layout/stock";
import { listNames, namedTable } from "@/core/lists";
import { type LengthStyle, type LengthUnit, PLAIN_MM } from "@/core/measure";
import { pagesForFile } from "@/core/paper-set";
import { createPipeline, type Results } from "@/core/pipeline";
import { EMPTY_STOCKROOM, indexStockroom, type Stockroom, StockroomSchema } from "@/core/stockroom";
import { createSetDrawing, withSet } from "@/core/whole-set";
import { loadLinearSolver } from "@/engines/linear-solver";
import { loadStepReader } from "@/engines/step-reader";
import { listRows } from "@/formats/csv";
import { writeGlb } from "@/formats/glb";
import { readJobFile, writeJobFile } from "@/formats/job-file";
import { type ListFormat, listFile } from "@/formats/list-file";
import { isPageFormat, pagesFile } from "@/formats/pages-file";
import { readSkeleton } from "@/formats/skeleton-in";
import { foundInStep, writeStep } from "@/formats/step";
import { tallyToJson } from "@/formats/tally-json";
import { isZip, xlsxRows } from "@/formats/xlsx-in";
import { numberOption, readWords } from "./arguments";

const USAGE = `rustic-tally COMMAND FILE [options]

  tally FILE    rows of a job file (.tally.json), a cut list (CSV, XLSX) or a STEP file
                --format json|csv|xlsx|pdf|svg   --list cut|buying|NAME of a list of the job
                (json without --list, or of the cut list, is the whole tally)
                --variant NAME   --page a4|letter (for pdf)
                --unit mm|cm|m|in|ft (numbers without unit in a cut list)   --stockroom FILE.json
  draw FILE     the drawing pages of a job file
                --format pdf|svg|dxf   --page HEADING (pdf: all where not said)   --variant NAME
                --stockroom FILE.json   --set whole (with the pages that the job still needs)
  import FILE   a STEP file, or the lines of a DXF file, as a job file, or into one
                --into JOB.tally.json   --title TITLE   --scale NUMBER   --stockroom FILE.json
  export FILE   the solids of a job file
                --format step|glb   --assembly NAME   --variant NAME   --stockroom FILE.json
  check FILE    list the checks of a job file or cut list; same options
  bars FILE     a bar layout for a problem file (JSON)      --seconds N
  sheets FILE   a sheet layout for a problem file (JSON)    --seconds N   --seed N
  nest FILE     nesting of outlined panels (JSON)           --seconds N   --seed N

Exit code 0: no problem, 1: checks found, 2: wrong command or unreadable file.`;

type Output = {
  readonly code: 0 | 1;
  readonly stdout: string | Uint8Array;
  readonly stderr?: string;
};

/** What a command says and ends with. */
export type Answer = {
  readonly code: 0 | 1 | 2;
  readonly stdout: string | Uint8Array;
  readonly stderr: string;
};

/** Runs one command and writes what it says; gives the exit code. */
export async function main(words: readonly string[]): Promise<number> {
  const { code, stdout, stderr } = await answer(words);
  if (stderr) process.stderr.write(`${stderr}\n`);
  await new Promise<void>((resolve) => process.stdout.write(stdout, () => resolve()));
  return code;
}

/** Runs one command. Whatever a file does to its reader ends in one sentence. */
export async function answer(words: readonly string[]): Promise<Answer> {
  try {
    return await answerTo(words);
  } catch (thrown) {
    const why = thrown instanceof Error ? thrown.message : String(thrown);
    const words = why.replace(/\s+/g, " ").slice(0, 300);
    return {
      code: 2,
      stdout: "",
      stderr: `rustic-tally: the file holds something that cannot be computed (${words})`,
    };
  }
}

async function answerTo(words: readonly string[]): Promise<Answer> {
  const [command, ...rest] = words;
  if (command === undefined || command === "help" || command === "--help")
    return { code: command === undefined ? 2 : 0, stdout: "", stderr: USAGE };
  const run = COMMANDS.get(command);
  const result = run ? await run(rest) : err(`unknown command "${command}". Run: rustic-tally help`);
  if (!result.ok)
    return { code: 2, stdout: "", stderr: `rustic-tally: ${result.problem.replace(/\s+/g, " ")}` };
  return { stderr: "", ...result.value };
}

type Command = (words: readonly string[]) => Promise<Result<Output, string>> | Result<Output, string>;
const COMMANDS: ReadonlyMap<string, Command> = new Map<string, Command>([
  ["tally", tallyCommand],
  ["draw", drawCommand],
  ["import", importCommand],
  ["export", exportCommand],
  ["check", checkCommand],
  ["bars", barsCommand],
  ["sheets", sheetsCommand],
  ["nest", nestingCommand],
  // The name before; scripts may still use it.
  ["shapes", nestingCommand],
]);

const json = (value: unknown) => `${JSON.stringify(value, null, 2)}\n`;

function readFile(file: string): Result<Uint8Array, string> {
  try {
    return ok(readFileSync(file));
  } catch {
    return err(`${file} cannot be opened`);
  }
}

function readJson(file: string): Result<unknown, string> {
  const bytes = readFile(file);
  if (!bytes.ok) return bytes;
  try {
    return ok(JSON.parse(new TextDecoder().decode(bytes.value)));
  } catch {
    return err(`${file} is not JSON`);
  }
}

const LIST_OPTIONS = {
  format: ["json", "csv", "xlsx", "pdf", "svg"],
  page: ["a4", "letter"],
  list: "any",
  unit: ["mm", "cm", "m", "in", "ft"],
  stockroom: "any",
  variant: "any",
} as const;

const DRAW_OPTIONS = {
  format: ["pdf", "svg", "dxf"],
  page: "any",
  set: ["asIs", "whole"],
  unit: LIST_OPTIONS.unit,
  stockroom: "any",
  variant: "any",
} as const;

type Loaded = {
  readonly job: Job;
  readonly revision: number;
  readonly variant: VariantId | null;
  readonly variantName: string | null;
  readonly assets: Assets;
  readonly stockroom: Stockroom;
  readonly results: Results;
  readonly stderr: string;
  readonly found: boolean;
};

/** A job file or cutting list, computed. Unreadable rows become checks of their own. */
async function load(
  words: readonly string[],
  allowed: Parameters<typeof readWords>[1] = LIST_OPTIONS,
): Promise<Result<Loaded & { readonly options: ReadonlyMap<string, string> }, string>> {
  const read = readWords(words, allowed);
  if (!read.ok) return read;
  const { file, options } = read.value;
  const bytes = readFile(file);
  if (!bytes.ok) return bytes;
  const given = readStockroom(options.get("stockroom"));
  if (!given.ok) return given;
  const loaded = /\.json$/i.test(file)
    ? loadJob(bytes.value, given.value, options)
    : isStepName(file)
      ? await loadStep(path.basename(file), bytes.value, given.value ?? EMPTY_STOCKROOM)
      : await loadList(bytes.value, given.value ?? EMPTY_STOCKROOM, options);
  return loaded.ok ? ok({ ...loaded.value, options }) : loaded;
}

function readStockroom(file: string | undefined): Result<Stockroom | null, string> {
  if (file === undefined) return ok(null);
  const data = readJson(file);
  if (!data.ok) return data;
  const checked = v.safeParse(StockroomSchema, data.value);
  return checked.success ? ok(indexStockroom(checked.output)) : err(`${file}: ${issueWords(checked.issues)}`);
}

function loadJob(
  bytes: Uint8Array,
  stockroom: Stockroom | null,
  options: ReadonlyMap<string, string>,
): Result<Loaded, string> {
  const file = readJobFile(new TextDecoder().decode(bytes));
  if (!file.ok) return err(sentence(file.problem));
  const { job } = file.value;
  const name = options.get("variant");
  const variant =
    name === undefined
      ? undefined
      : Object.values(job.variants).find((one) => one.name === name || one.id === name);
  if (name !== undefined && !variant) return err(`the job has no variant "${name}"`);
  const used = stockroom ?? indexStockroom(file.value.stockroom);
  const results = createPipeline()(job, (variant?.id ?? null) as VariantId | null, used, []);
  return ok({
    job,
    revision: file.value.revision ?? 0,
    variant: variant?.id ?? null,
    variantName: variant?.name ?? null,
    assets: file.value.assets,
    stockroom: used,
    results,
    stderr: "",
    found: results.tally.checks.some((check) => check.severity === "error"),
  });
}

async function loadList(
  bytes: Uint8Array,
  stockroom: Stockroom,
  options: ReadonlyMap<string, string>,
): Promise<Result<Loaded, string>> {
  const unit = (options.get("unit") ?? "mm") as LengthUnit;
  const rows = isZip(bytes) ? await xlsxRows(bytes) : listRows(bytes);
  if (!rows.ok) return err(sentence(rows.problem));
  const list = readCuttingList(rows.value, { unit, stockroom, newId: (index) => `T${index + 1}` });
  if (!list.ok) return err(sentence(list.problem));
  const { pieces, unreadable, notes, usedUnit } = list.value;
  const job: Job = {
    ...emptyJob({ code: "list", title: "Cut list", unit }),
    typedPieces: Object.fromEntries(pieces.map((piece) => [piece.id, piece])),
  };
  const results = createPipeline()(job, null, stockroom, []);
  const badRows = unreadable.map(({ row, text, fault }) => ({
    ...plainCheck("unreadableRow", "error", `Row ${row} ("${text}"): ${rowFaultWords(fault)}`, []),
    listRow: { row, text },
  }));
  const tally = { ...results.tally, checks: [...badRows, ...results.tally.checks] };
  const said = [
    ...notes,
    ...(usedUnit && !options.has("unit")
      ? ["Numbers without unit are read as mm. Use --unit to change this."]
      : []),
    ...badRows.map((check) => check.message),
  ];
  return ok({
    job,
    revision: 0,
    variant: null,
    variantName: null,
    assets: NO_ASSETS,
    stockroom,
    results: { ...results, tally },
    stderr: said.join("\n"),
    found: unreadable.length > 0,
  });
}

const isStepName = (file: string) => /\.(stp|step|p21)$/i.test(file);

const titleOf = (file: string) =>
  path
    .basename(file)
    .replace(/\.[^.]+$/, "")
    .slice(0, 80) || "From a file";

/** What a STEP file holds, as a job of its own. */
async function loadStep(
  name: string,
  bytes: Uint8Array,
  stockroom: Stockroom,
): Promise<Result<Loaded, string>> {
  const job = emptyJob({ code: "file", title: titleOf(name), unit: "mm" });
  const read = await importedFrom(name, bytes, { job, stockroom, scale: 1 });
  if (!read.ok) return read;
  const { value } = read;
  return ok({
    job: value.job,
    revision: 0,
    variant: null,
    variantName: null,
    assets: new Map(value.assets.map((asset) => [assetIdOf(asset), asset])),
    stockroom: value.stockroom,
    results: createPipeline()(value.job, null, value.stockroom, []),
    stderr: value.told.join("\n"),
    found: value.told.length > 0,
  });
}

type ImportGround = { readonly job: Job; readonly stockroom: Stockroom; readonly scale: number };
/** A job with what was read into it. */
type Brought = {
  readonly job: Job;
  readonly stockroom: Stockroom;
  readonly assets: readonly Asset[];
  readonly told: readonly string[];
};

async function importedFrom(
  name: string,
  bytes: Uint8Array,
  { job, stockroom, scale }: ImportGround,
): Promise<Result<Brought, string>> {
  const reader = await loadStepReader();
  const found = foundInStep(name, bytes, reader);
  if (!found.ok) return err(sentence(found.problem));
  const file = scaledFile(found.value, scale);
  const entered = imported(file, {}, job, stockroom, idsIn(job));
  const after = withEdit(job, entered.edit);
  if (!after.ok) return err(sentence(after.problem));
  const partNames = new Map(
    file.products.flatMap((one) => one.parts.map((part) => [part.key, part.name || one.name])),
  );
  const told = entered.remarks.map(({ part, words }) =>
    part === null ? words : `${partNames.get(part)}: ${words}`,
  );
  return ok({ job: after.value, stockroom: entered.stockroom, assets: entered.assets, told });
}

/** The lines of a drawing, with members on layers that are called as a section of the stockroom. */
function linesFrom(
  name: string,
  bytes: Uint8Array,
  { job, stockroom, scale }: ImportGround,
): Result<Brought, string> {
  const read = readSkeleton(name, new TextDecoder().decode(bytes));
  if (!read.ok) return err(sentence(read.problem));
  const skeleton = read.value;
  const sections = new Map(
    layersOf(skeleton).flatMap((layer) => {
      const entry = stockroom.sections.find((one) => one.name === layer.name || one.id === layer.name);
      return entry ? [[layer.name, entry.id] as const] : [];
    }),
  );
  const unit = (skeleton.unit ?? 1) * scale;
  const { edit, double } = skeletonEdit(skeleton, { unit, sections }, job, idsIn(job));
  const after = withEdit(job, edit);
  if (!after.ok) return err(sentence(after.problem));
  const told = [
    ...(skeleton.unit === null
      ? ["The file tells no unit; millimetres are taken. Use --scale to change this."]
      : []),
    ...(skeleton.skipped.length > 0
      ? [`Left out, since no member is curved: ${skeleton.skipped.join(", ")}.`]
      : []),
    ...(double > 0 ? [`${counted(double, "line")} left out, since each lies on another.`] : []),
  ];
  return ok({ job: after.value, stockroom, assets: [], told });
}

/** Ids that no table of a job has yet. */
function idsIn(job: Job): (kind: string) => string {
  let prefix = "read";
  while (Object.values(job).some((table) => Object.keys(table).some((id) => id.startsWith(prefix))))
    prefix += "+";
  let count = 0;
  return (kind) => `${prefix}-${kind}${++count}`;
}

const IMPORT_OPTIONS = { into: "any", title: "any", scale: "any", stockroom: "any" } as const;

async function importCommand(words: readonly string[]): Promise<Result<Output, string>> {
  const read = readWords(words, IMPORT_OPTIONS);
  if (!read.ok) return read;
  const { file, options } = read.value;
  const bytes = readFile(file);
  if (!bytes.ok) return bytes;
  const given = readStockroom(options.get("stockroom"));
  if (!given.ok) return given;
  const scale = numberOption(options, "scale", 1);
  if (!scale.ok) return scale;
  const isLines = /\.dxf$/i.test(file);
  const into = options.get("into");
  const before = into === undefined ? ok(null) : readFile(into);
  if (!before.ok) return before;
  const known = before.value === null ? null : readJobFile(new TextDecoder().decode(before.value));
  if (known && !known.ok) return err(sentence(known.problem));
  const title = options.get("title") ?? titleOf(file);
  const job = known?.value.job ?? emptyJob({ code: "file", title, unit: "mm" });
  const stockroom = given.value ?? (known ? indexStockroom(known.value.stockroom) : EMPTY_STOCKROOM);
  const name = path.basename(file);
  const ground = { job, stockroom, scale: scale.value };
  const entered = isLines
    ? linesFrom(name, bytes.value, ground)
    : await importedFrom(name, bytes.value, ground);
  if (!entered.ok) return entered;
  const { told } = entered.value;
  const assets = new Map(known?.value.assets ?? []);
  for (const asset of entered.value.assets) assets.set(assetIdOf(asset), asset);
  return ok({
    code: told.length > 0 ? 1 : 0,
    stdout: writeJobFile(entered.value.job, entered.value.stockroom, {
      assets,
      revision: known?.value.revision ?? 0,
    }),
    stderr: told.join("\n"),
  });
}

async function tallyCommand(words: readonly string[]): Promise<Result<Output, string>> {
  const loaded = await load(words);
  if (!loaded.ok) return loaded;
  const { job, results, stockroom, stderr, found, options } = loaded.value;
  const name = options.get("list") ?? "cut";
  const table = namedTable(name, { job, stockroom, ...results });
  if (!table) return err(`there is no list "${name}"; there are ${listNames(job).join(", ")}`);
  const format = (options.get("format") ?? "json") as ListFormat;
  const code = found ? 1 : 0;
  if (format === "json" && name === "cut")
    return ok({ code, stdout: json(tallyToJson(job, results.tally)), stderr });
  const made = new Date();
  const head = headOf(loaded.value, made);
  const page = options.get("page") === "letter" ? "letter" : "a4";
  return ok({
    code,
    stdout: await listFile(format, { table, tally: results.tally, head, made, page }),
    stderr,
  });
}

const headOf = ({ job, revision, variantName }: Loaded, made: Date): PageHead => ({
  info: job.info.job,
  revision,
  date: made.toISOString().slice(0, 10),
  variantName,
  shop: "",
});

/** The job with the pages that its set still needs. */
function withMissing({
  job,
  stockroom,
  assets,
  variant,
}: Loaded): Result<{ readonly job: Job; readonly lacking: readonly string[] }, string> {
  const taken = [...Object.keys(job.pages), ...Object.keys(job.pageItems)];
  let prefix = "set";
  while (taken.some((id) => id.startsWith(prefix))) prefix += "+";
  let count = 0;
  const ids = {
    page: () => `${prefix}${++count}` as PageId,
    item: () => `${prefix}${++count}` as PageItemId,
  };
  const inputs = { job, stockroom, assets, variant, layouts: [] };
  const made = createSetDrawing()(inputs, stockroom.setRecipe, ids);
  if (!made.ok) return err(sentence(made.problem));
  const set = withSet(job, made.value);
  return set.ok ? ok({ job: set.value, lacking: made.value.lacking }) : err(sentence(set.problem));
}

async function drawCommand(words: readonly string[]): Promise<Result<Output, string>> {
  const loaded = await load(words, DRAW_OPTIONS);
  if (!loaded.ok) return loaded;
  const { results, stockroom, assets, variant, found, stderr, options } = loaded.value;
  const whole =
    options.get("set") === "whole" ? withMissing(loaded.value) : ok({ job: loaded.value.job, lacking: [] });
  if (!whole.ok) return whole;
  const { job, lacking } = whole.value;
  const format = options.get("format") ?? "pdf";
  const wanted = options.get("page");
  const all = pagesInOrder(job);
  const pages = all.filter(({ id, heading }) => wanted === undefined || heading === wanted || id === wanted);
  if (all.length === 0) return err("the job has no pages");
  if (pages.length === 0)
    return err(`there is no page "${wanted}"; there are ${all.map(({ heading }) => heading).join(", ")}`);
  if (format !== "pdf" && pages.length > 1)
    return err(
      `${format} holds one page; say which with --page: ${all.map(({ heading }) => heading).join(", ")}`,
    );
  const made = new Date();
  const head = headOf(loaded.value, made);
  const drawings = pagesForFile(pages, { job, results, stockroom, layouts: [], assets, variant, head });
  const file = isPageFormat(format) ? await pagesFile(format, drawings, { info: job.info.job, made }) : null;
  const told = lacking.map((name) => `rustic-tally: the set names a list "${name}"; the job has none`);
  return ok({
    code: found ? 1 : 0,
    stdout: file ?? "",
    stderr: [stderr, ...told].filter((line) => line !== "").join("\n"),
  });
}

const EXPORT_OPTIONS = {
  format: ["step", "glb"],
  assembly: "any",
  stockroom: "any",
  variant: "any",
} as const;

async function exportCommand(words: readonly string[]): Promise<Result<Output, string>> {
  const loaded = await load(words, EXPORT_OPTIONS);
  if (!loaded.ok) return loaded;
  const { job, results, assets, options } = loaded.value;
  const wanted = options.get("assembly");
  const assembly = Object.values(job.assemblies).find(({ id, name }) => id === wanted || name === wanted);
  if (wanted !== undefined && !assembly)
    return err(
      `the job has no assembly "${wanted}"; it has ${Object.values(job.assemblies)
        .map(({ name }) => name)
        .join(", ")}`,
    );
  const model = modelOf(job, results.shape, assets, assembly?.id ?? null);
  const { leftOut } = model;
  return ok({
    code: leftOut.length > 0 ? 1 : 0,
    stdout:
      options.get("format") === "glb"
        ? await writeGlb(model)
        : writeStep(model, { name: job.info.job.title, made: new Date(), shop: "" }),
    stderr: modelWords(model).join("\n"),
  });
}

async function checkCommand(words: readonly string[]): Promise<Result<Output, string>> {
  const loaded = await load(words);
  if (!loaded.ok) return loaded;
  const { checks, balance } = loaded.value.results.tally;
  return ok({ code: checks.length > 0 ? 1 : 0, stdout: json({ checks, balance }) });
}

/** A problem file with how long and from which seed it is to be searched. */
function problemOf<S extends v.GenericSchema>(
  words: readonly string[],
  schema: S,
  usualSeconds: number,
): Result<{ file: string; problem: v.InferOutput<S>; budgetMs: number; seed: number }, string> {
  const read = readWords(words, { seconds: "any", seed: "any" });
  if (!read.ok) return read;
  const { file, options } = read.value;
  const seconds = numberOption(options, "seconds", usualSeconds);
  if (!seconds.ok) return seconds;
  const seed = numberOption(options, "seed", 1);
  if (!seed.ok) return seed;
  const data = readJson(file);
  if (!data.ok) return data;
  const problem = v.safeParse(schema, data.value);
  if (!problem.success) return err(`${file}: ${issueWords(problem.issues)}`);
  return ok({ file, problem: problem.output, budgetMs: seconds.value * 1000, seed: seed.value });
}

const now = () => performance.now();

/** A layout as it leaves; pieces without a place, and what is odd about the problem, are told. */
function laidOut(
  layout: { readonly unplaced: readonly { readonly why: UnplacedReason }[] },
  { style = PLAIN_MM }: { readonly style?: LengthStyle },
  notes: readonly string[],
): Result<Output, string> {
  const code = layout.unplaced.length > 0 ? 1 : 0;
  const unplaced = layout.unplaced.map((one) => ({
    ...one,
    reason: one.why.kind,
    why: reasonWords(one.why, style),
  }));
  return ok({
    code,
    stdout: json({ ...layout, unplaced }),
    ...(notes.length > 0 ? { stderr: notes.join("\n") } : {}),
  });
}

async function barsCommand(words: readonly string[]): Promise<Result<Output, string>> {
  const read = problemOf(words, BarProblemSchema, 20);
  if (!read.ok) return read;
  const { file, problem, budgetMs } = read.value;
  const locked = lockedBarFault(problem);
  if (locked !== null) return err(`${file}: its locked pieces are not possible: ${locked}`);
  const solver = await loadLinearSolver();
  return laidOut(layOutBars(problem, { solver, now, budgetMs }), problem, LAYOUT_KINDS.bars.notes(problem));
}

function sheetsCommand(words: readonly string[]): Result<Output, string> {
  const read = problemOf(words, SheetProblemSchema, 5);
  if (!read.ok) return read;
  const { file, problem, budgetMs, seed } = read.value;
  const locked = lockedFault(problem);
  if (locked !== null) return err(`${file}: its locked pieces are not possible: ${locked}`);
  return laidOut(layOutSheets(problem, { seed, now, budgetMs }), problem, LAYOUT_KINDS.sheets.notes(problem));
}

function nestingCommand(words: readonly string[]): Result<Output, string> {
  const read = problemOf(words, NestingProblemSchema, 5);
  if (!read.ok) return read;
  const { file, problem, budgetMs, seed } = read.value;
  const locked = lockedNestingFault(problem);
  if (locked !== null) return err(`${file}: its locked pieces are not possible: ${locked}`);
  return laidOut(
    layOutNesting(problem, { seed, now, budgetMs }),
    problem,
    LAYOUT_KINDS.shapes.notes(problem),
  );
}
