/**
 * Loads the demo data into a new database: the stockroom, the jobs and a first layout of each. Runs once;
 * a database that already holds anything is left alone.
 */
import { type LayoutTask, layoutTasks, type SavedLayout, savedLayout } from "@/core/layout";
import { type LinearSolver, layOutBars } from "@/core/layout/bars";
import { layOutNesting } from "@/core/layout/nesting";
import { layOutSheets } from "@/core/layout/sheets";
import { createPipeline } from "@/core/pipeline";
import { stockroomOf } from "@/core/stockroom";
import {
  databaseUrl,
  findJob,
  openDatabase,
  readSetting,
  readStock,
  saveLayout,
  saveRackPiece,
  saveStockEntry,
  writeSetting,
} from "@/db";
import { loadLinearSolver } from "@/engines/linear-solver";
import { createJob } from "@/server/jobs";
import { layoutTime } from "@/server/layout-time";
import { noticeBoard } from "./notice-board";
import { withPages } from "./pages";
import { pottingBench } from "./potting-bench";
import { seedPacketCabinet } from "./seed-packet-cabinet";
import { shelfBrackets } from "./shelf-brackets";
import { demoRack, demoStockroom } from "./stockroom";

const now = () => performance.now();

async function loadDemo(url: string): Promise<"loaded" | "already there"> {
  const db = await openDatabase(url);
  try {
    const { data } = await readStock(db);
    const used =
      (await readSetting(db, "demo")) !== null ||
      data.sections.length + data.boards.length + data.edging.length + data.bought.length > 0;
    if (used) return "already there";
    const stockroom = stockroomOf(demoStockroom);
    for (const entry of stockroom.sections) await saveStockEntry(db, { kind: "section", entry }, null);
    for (const entry of stockroom.boards) await saveStockEntry(db, { kind: "board", entry }, null);
    for (const entry of stockroom.edging) await saveStockEntry(db, { kind: "edging", entry }, null);
    for (const entry of stockroom.bought) await saveStockEntry(db, { kind: "bought", entry }, null);
    for (const entry of stockroom.saws) await saveStockEntry(db, { kind: "saw", entry }, null);
    for (const piece of demoRack) await saveRackPiece(db, piece, Date.now());
    await writeSetting(db, "currency", demoStockroom.currency);
    await writeSetting(db, "shop", "Hollow Lane Works");
    await writeSetting(db, "unit", "mm");
    const solver = await loadLinearSolver();
    for (const [id, job] of [
      ["hl-204", pottingBench()],
      ["hl-207", seedPacketCabinet()],
      ["hl-211", noticeBoard()],
      ["hl-214", shelfBrackets()],
    ] as const) {
      await createJob(db, withPages(job, stockroom), id);
      const stored = await findJob(db, id);
      if (!stored) continue;
      const { tally } = createPipeline()(stored.job, null, stockroom, []);
      for (const task of layoutTasks(tally, stockroom))
        await saveLayout(
          db,
          { job: id, variant: "", code: stored.code },
          firstLayout(task, stored.revision, solver),
          Date.now(),
        );
    }
    await writeSetting(db, "demo", "loaded");
    return "loaded";
  } finally {
    db.close();
  }
}

/** A layout of each kind within a few seconds. */
function firstLayout(task: LayoutTask, revision: number, solver: LinearSolver): SavedLayout {
  switch (task.kind) {
    case "bars":
      return savedLayout(
        task,
        layOutBars(task.problem, { solver, now, budgetMs: 10_000 * layoutTime() }),
        revision,
      );
    case "sheets":
      return savedLayout(
        task,
        layOutSheets(task.problem, { seed: 1, now, budgetMs: 5_000 * layoutTime() }),
        revision,
      );
    default:
      return savedLayout(
        task,
        layOutNesting(task.problem, { seed: 1, now, budgetMs: 3_000 * layoutTime() }),
        revision,
      );
  }
}

const outcome = await loadDemo(databaseUrl());
console.log(
  outcome === "loaded"
    ? "Demo data loaded."
    : "The database is already in use; demo data is not loaded again.",
);
