import type { PageHead } from "@/core/drawing";
import { type Job, type PageId, type PageItemId, pagesInOrder } from "@/core/job";
import { ok, type Result } from "@/core/kernel";
import { listNames, namedTable } from "@/core/lists";
import { pagesForFile } from "@/core/paper-set";
import { createSetDrawing, withSet } from "@/core/whole-set";
import { type ListFormat, listFile } from "@/formats/list-file";
import { isPageFormat, pagesFile } from "@/formats/pages-file";
import { tallyToJson } from "@/formats/tally-json";
import { type CommandFault, commandWords, fault, ofCore } from "./command-fault";
import { barsCommand, nestingCommand, sheetsCommand } from "./layouts";
import { DRAW_OPTIONS, json, type Loaded, load, type Output } from "./loading";
import { exportCommand, importCommand } from "./solids";

const USAGE = `rustic-tally COMMAND FILE [options]

  tally FILE    rows of a job file (.tally.json), a cut list (CSV, XLSX) or a STEP file
                --format json|csv|xlsx|pdf|svg   --list cut|buying|NAME of a list of the job
                (json without --list, or of the cut list, is the whole tally)
                --variant NAME   --page a4|letter (for pdf)
                --unit mm|cm|m|in|ft (numbers without unit in a cut list)   --stockroom FILE.json
  draw FILE     the drawing pages of a job file
                --format pdf|svg|dxf   --page HEADING (pdf: all where not said)   --variant NAME
                --stockroom FILE.json   --set whole (with the pages that the job still needs)
  import FILE   a STEP file, or the panels or the lines of a DXF file, as a job file, or into one
                --into JOB.tally.json   --title TITLE   --scale NUMBER   --stockroom FILE.json
                --as panels|frame (for DXF; panels where all its lines close)
  export FILE   the solids of a job file, or its panels laid flat (dxf)
                --format step|glb|dxf   --assembly NAME   --piece MARK (one piece alone)
                --variant NAME   --stockroom FILE.json
  check FILE    list the checks of a job file or cut list; same options
  bars FILE     a bar layout for a problem file (JSON)      --seconds N
  sheets FILE   a sheet layout for a problem file (JSON)    --seconds N   --seed N
  nest FILE     nesting of outlined panels (JSON)           --seconds N   --seed N

Exit code 0: no problem, 1: checks found, 2: wrong command or unreadable file.`;

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
  await new Promise<void>((resolve) => {
    // Whoever reads may have seen enough: `| head` closes the pipe.
    process.stdout.once("error", () => resolve());
    process.stdout.write(stdout, () => resolve());
  });
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
  const result = run ? await run(rest) : fault({ kind: "unknownCommand", command });
  if (!result.ok)
    return {
      code: 2,
      stdout: "",
      stderr: `rustic-tally: ${commandWords(result.problem).replace(/\s+/g, " ")}`,
    };
  return { stderr: "", ...result.value };
}

type Command = (
  words: readonly string[],
) => Promise<Result<Output, CommandFault>> | Result<Output, CommandFault>;
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

async function tallyCommand(words: readonly string[]): Promise<Result<Output, CommandFault>> {
  const loaded = await load(words);
  if (!loaded.ok) return loaded;
  const { job, results, stockroom, stderr, found, options } = loaded.value;
  const name = options.get("list") ?? "cut";
  const table = namedTable(name, { job, stockroom, ...results });
  if (!table) return fault({ kind: "noList", name, there: listNames(job) });
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
}: Loaded): Result<{ readonly job: Job; readonly lacking: readonly string[] }, CommandFault> {
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
  if (!made.ok) return ofCore(made.problem);
  const set = withSet(job, made.value);
  return set.ok ? ok({ job: set.value, lacking: made.value.lacking }) : ofCore(set.problem);
}

async function drawCommand(words: readonly string[]): Promise<Result<Output, CommandFault>> {
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
  const there = all.map(({ heading }) => heading);
  if (all.length === 0) return fault({ kind: "noPages" });
  if (pages.length === 0) return fault({ kind: "noPage", name: wanted ?? "", there });
  if (format !== "pdf" && pages.length > 1) return fault({ kind: "onePageOnly", format, there });
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

async function checkCommand(words: readonly string[]): Promise<Result<Output, CommandFault>> {
  const loaded = await load(words);
  if (!loaded.ok) return loaded;
  const { checks, balance } = loaded.value.results.tally;
  return ok({ code: checks.length > 0 ? 1 : 0, stdout: json({ checks, balance }) });
}
