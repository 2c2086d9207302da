/** Use cases of batches: open one with its jobs, its layouts and the rack. */
import { type BatchJob, batchTasks } from "@/core/batch";
import type { DiagramInput } from "@/core/drawing";
import { emptyJob } from "@/core/job";
import { indexStockroom, type Rack, type StockroomData } from "@/core/stockroom";
import {
  type Batch,
  type Connection,
  findBatch,
  findJob,
  readLayouts,
  readRack,
  readSetting,
  readStock,
  type StoredLayout,
  UnreadableJob,
} from "@/db";

export type OpenBatch = {
  readonly batch: Batch;
  /** Those of its jobs that are still there. */
  readonly jobs: readonly BatchJob[];
  readonly gone: number;
  readonly layouts: readonly StoredLayout[];
  readonly rack: Rack;
  readonly stockroom: StockroomData;
};

export async function openBatch(db: Connection, id: string): Promise<OpenBatch | null> {
  const batch = await findBatch(db, id);
  if (!batch) return null;
  const [found, layouts, pieces, { data }] = await Promise.all([
    Promise.all(batch.jobs.map((job) => readable(db, job))),
    readLayouts(db, { batch: id, code: batch.name }),
    readRack(db),
    readStock(db),
  ]);
  const jobs = found.flatMap((stored) =>
    stored ? [{ id: stored.id, code: stored.code, job: stored.job }] : [],
  );
  return {
    batch,
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

/** What the diagrams of a batch are made from. */
export async function batchInput(db: Connection, open: OpenBatch, made: Date): Promise<DiagramInput> {
  const stockroom = indexStockroom(open.stockroom);
  const { info } = emptyJob({ code: "Batch", title: open.batch.name });
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
    results: { tasks: batchTasks(open.jobs, stockroom, open.rack) },
    kept: open.layouts,
    saws: stockroom.saws,
  };
}
