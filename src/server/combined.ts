/** Use cases of combined layouts: open one with its jobs, its layouts and the rack. */
import { type CombinedJob, combinedTasks } from "@/core/combined";
import type { DiagramInput } from "@/core/drawing";
import { emptyJob } from "@/core/job";
import { indexStockroom, type Rack, type StockroomData } from "@/core/stockroom";
import {
  type Combined,
  type Connection,
  findCombined,
  findJob,
  readLayouts,
  readRack,
  readSetting,
  readStock,
  type StoredLayout,
  UnreadableJob,
} from "@/db";

export type OpenCombined = {
  readonly combined: Combined;
  /** Those of its jobs that are still there. */
  readonly jobs: readonly CombinedJob[];
  readonly gone: number;
  readonly layouts: readonly StoredLayout[];
  readonly rack: Rack;
  readonly stockroom: StockroomData;
};

export async function openCombined(db: Connection, id: string): Promise<OpenCombined | null> {
  const combined = await findCombined(db, id);
  if (!combined) return null;
  const [found, layouts, pieces, { data }] = await Promise.all([
    Promise.all(combined.jobs.map((job) => readable(db, job))),
    readLayouts(db, { combined: id, code: combined.name }),
    readRack(db),
    readStock(db),
  ]);
  const jobs = found.flatMap((stored) =>
    stored ? [{ id: stored.id, code: stored.code, job: stored.job }] : [],
  );
  return {
    combined,
    jobs,
    gone: found.length - jobs.length,
    layouts,
    rack: { owner: id, pieces },
    stockroom: data,
  };
}

/** A job that can be read; null: it is gone, or cannot be. */
const readable = (db: Connection, id: string) =>
  findJob(db, id).catch((thrown) => {
    if (thrown instanceof UnreadableJob) return null;
    throw thrown;
  });

/** What the diagrams of a combined layout are made from. */
export async function combinedInput(db: Connection, open: OpenCombined, made: Date): Promise<DiagramInput> {
  const stockroom = indexStockroom(open.stockroom);
  const { info } = emptyJob({ code: "Combined", title: open.combined.name });
  return {
    info: {
      ...info.job,
      ...(open.jobs[0]
        ? { unit: open.jobs[0].job.info.job.unit, format: open.jobs[0].job.info.job.format }
        : {}),
    },
    revision: 1,
    date: made.toISOString().slice(0, 10),
    variantName: null,
    shop: (await readSetting(db, "shop")) ?? "",
    results: { tasks: combinedTasks(open.jobs, stockroom, open.rack) },
    saved: open.layouts,
    saws: stockroom.saws,
  };
}
