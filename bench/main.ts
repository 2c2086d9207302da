/**
 * `npm run bench`: what a key-size edit costs from shape to lists, how that grows with the job, and the
 * layouts of the demo beside simple rules. Medians of several runs; each time stands beside a reference
 * run on the same machine in the same moment, so that figures from two machines can be compared.
 */
import { type Edit, type Job, withEdit } from "@/core/job";
import { layoutTasks } from "@/core/layout";
import { layOutBars } from "@/core/layout/bars";
import { layOutNesting } from "@/core/layout/nesting";
import { layOutSheets } from "@/core/layout/sheets";
import { createPipeline } from "@/core/pipeline";
import { stockroomOf } from "@/core/stockroom";
import { loadLinearSolver } from "@/engines/linear-solver";
import { noticeBoard } from "../demo/notice-board";
import { pottingBench } from "../demo/potting-bench";
import { seedPacketCabinet } from "../demo/seed-packet-cabinet";
import { shelfBrackets } from "../demo/shelf-brackets";
import { demoStockroom } from "../demo/stockroom";
import { actionTable } from "./actions";
import { barTable } from "./bars";
import { generatedJob } from "./generated";
import { lineTable } from "./lines";
import { shapeTable } from "./nesting";
import { pageTable } from "./pages";
import { firstFitBars, shelfSheets } from "./references";
import { sheetTable } from "./sheets";
import { stepTable } from "./step";
import { groupingTable, listTable } from "./tally";

const stockroom = stockroomOf(demoStockroom);
const now = () => performance.now();

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? 0;
}

function timed(work: () => void): number {
  const start = now();
  work();
  return now() - start;
}

type EditAt = (i: number) => Edit;

const sizeEdit =
  (id: string, low: number): EditAt =>
  (i) => ({ kind: "setKeySize", id, formula: String(low + (i % 2)), variant: null });

/** One member in the middle of a large job is turned about its line and back. */
const memberEdit =
  (job: Job): EditAt =>
  (i) => ({
    kind: "changeMembers",
    ids: [Object.keys(job.members)[100] ?? ""],
    set: { roll: String(90 * (i % 2)) },
  });

/** An edit on an open desk: everything from the edited document to the lists, no layouts. */
function recompute(
  job: Job,
  editAt: EditAt,
  runs: number,
): { readonly edit: number; readonly reference: number } {
  const pipeline = createPipeline();
  pipeline(job, null, stockroom, []);
  let document = job;
  const text = JSON.stringify(job);
  const edits: number[] = [];
  const references: number[] = [];
  for (let i = 0; i < runs; i++) {
    edits.push(
      timed(() => {
        const next = withEdit(document, editAt(i));
        if (!next.ok) throw new Error("the edit is possible");
        document = next.value;
        pipeline(document, null, stockroom, []);
      }),
    );
    // The reference: reading the same document from its text, which no job can be opened without.
    references.push(timed(() => JSON.parse(text)));
  }
  return { edit: median(edits), reference: median(references) };
}

const ms = (value: number) => `${value.toFixed(value < 10 ? 2 : 0).padStart(8)} ms`;

function recomputeTable(): void {
  console.log("Recompute after an edit, shape to lists (median)");
  const [large, largest] = [generatedJob(2_000), generatedJob(20_000)];
  const width = sizeEdit("size-width", 900);
  const rows = [
    {
      name: "size, potting bench",
      job: pottingBench(),
      edit: sizeEdit("size-width", 1400),
      runs: 60,
      aim: 16,
    },
    { name: "size, cabinet", job: seedPacketCabinet(), edit: sizeEdit("size-width", 620), runs: 60, aim: 16 },
    { name: "size, 2,000 pieces", job: large, edit: width, runs: 15, aim: 150 },
    { name: "size, 20,000 pieces", job: largest, edit: width, runs: 5, aim: null },
    { name: "one member of 2,000", job: large, edit: memberEdit(large), runs: 60, aim: 30 },
  ];
  const times = rows.map(({ name, job, edit: editAt, runs, aim }) => {
    const { edit, reference } = recompute(job, editAt, runs);
    const ratio = (edit / reference).toFixed(1);
    console.log(
      `  ${name.padEnd(26)}${ms(edit)}   ${ratio.padStart(6)} × reading its document${aim === null ? "" : `   (aim: ${aim} ms)`}`,
    );
    return edit;
  });
  const growth = (times[3] ?? 0) / (times[2] ?? 1);
  console.log(`  ten times the pieces take ${growth.toFixed(1)} times as long (10 is linear)\n`);
}

async function layoutTable(): Promise<void> {
  const solver = await loadLinearSolver();
  console.log("Layouts of the demo (median of 5), beside first-fit decreasing and shelf first-fit");
  for (const job of [pottingBench(), seedPacketCabinet(), noticeBoard(), shelfBrackets()]) {
    const { tally } = createPipeline()(job, null, stockroom, []);
    for (const task of layoutTasks(tally, stockroom)) {
      let words = "";
      const times = Array.from({ length: 5 }, () =>
        timed(() => {
          if (task.kind === "bars") {
            const layout = layOutBars(task.problem, { solver, now, budgetMs: 10_000 });
            const simple = firstFitBars(task.problem);
            words = `${layout.count} bars, cost ${layout.cost}, ${layout.proven ? "proven" : `bound ${layout.lowerBound}`}; first-fit ${simple.count} bars, cost ${simple.cost}`;
          } else if (task.kind === "shapes") {
            const layout = layOutNesting(task.problem, { seed: 1, now, budgetMs: 4_000, passes: 8 });
            words = `${layout.count} sheets along outlines, ${(100 * layout.utilisation).toFixed(1)} %, bound ${layout.lowerBound}`;
          } else {
            const layout = layOutSheets(task.problem, { seed: 1, now, budgetMs: 4_000 });
            words = `${layout.count} sheets, ${(100 * layout.utilisation).toFixed(1)} %, ${layout.proven ? "proven" : `bound ${layout.lowerBound}`}; shelf first-fit ${shelfSheets(task.problem)} sheets`;
          }
        }),
      );
      console.log(`  ${`${job.info.job.code} ${task.name}`.padEnd(52)}${ms(median(times))}   ${words}`);
    }
  }
}

// One part alone: npm run bench -- tally; the page is measured only when it is asked for, since it needs a build.
const part = process.argv[2];
if (part === undefined || part === "recompute") recomputeTable();
if (part === undefined || part === "tally") {
  groupingTable(timed, median);
  listTable(stockroom, timed, median);
}
if (part === undefined || part === "layout") await layoutTable();
if (part === undefined || part === "bars") {
  // Ten times as many instances of one class: npm run bench -- bars "three lengths" 10
  const [only, times] = process.argv.slice(3);
  await barTable(median, only, Number(times ?? 1));
}
if (part === "kernel") await (await import("./kernel")).kernelTable(stockroom, timed, median);
if (part === "page") await (await import("./page")).pageTable(timed, median);
if (part === undefined || part === "step") await stepTable();
if (part === undefined || part === "lines") lineTable(stockroom, timed, median);
if (part === undefined || part === "pages") pageTable(stockroom, timed, median);
if (part === undefined || part === "actions") actionTable();
if (part === undefined || part === "sheets") sheetTable();
if (part === undefined || part === "nesting") shapeTable();
