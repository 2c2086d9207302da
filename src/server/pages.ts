/** The drawing pages of a job as files. */
import { setImmediate } from "node:timers/promises";
import type { Drawing } from "@/core/drawing";
import { assetsOfPapers, pagesInOrder, type VariantId } from "@/core/job";
import { ok, type Problem, type Result } from "@/core/kernel";
import { createFilePages } from "@/core/paper-set";
import { type WholeSet, withSet } from "@/core/whole-set";
import { type Connection, readAssets } from "@/db";
import { type PageFormat, pagesFile } from "@/formats/pages-file";
import { type ComputedJob, headOf } from "./papers";

/**
 * The pages of a computed job as display lists, all when none is named. Between two of them others are answered; a request that is
 * given up ends it.
 */
export async function drawnPages(
  db: Connection,
  computed: ComputedJob,
  variant: string,
  { page = null, signal }: { readonly page?: string | null; readonly signal?: AbortSignal } = {},
): Promise<readonly Drawing[]> {
  const { open, results, stockroom } = computed;
  const pages = pagesInOrder(open.job).filter(
    ({ id, heading }) => page === null || id === page || heading === page,
  );
  const draw = createFilePages({
    job: open.job,
    results,
    stockroom,
    layouts: open.layouts,
    assets: await readAssets(db, assetsOfPapers(open.job, stockroom)),
    variant: variant === "" ? null : (variant as VariantId),
    head: headOf(computed, variant, new Date()),
  });
  const drawings: Drawing[] = [];
  for (const one of pages) {
    await setImmediate();
    if (signal?.aborted) throw new Error("aborted");
    drawings.push(draw(one));
  }
  return drawings;
}

/** A computed job with pages more, which are nowhere kept; the problem says why they do not fit. */
export function withPages(computed: ComputedJob, set: WholeSet): Result<ComputedJob, Problem> {
  const job = withSet(computed.open.job, set);
  return job.ok ? ok({ ...computed, open: { ...computed.open, job: job.value } }) : job;
}

/** Some pages of a computed job as one file, all when none is named; null: it has none of that name. */
export async function printPages(
  db: Connection,
  computed: ComputedJob,
  how: {
    readonly page: string | null;
    readonly format: PageFormat;
    readonly variant: string;
    readonly signal?: AbortSignal;
  },
): Promise<Uint8Array | string | null> {
  const drawings = await drawnPages(db, computed, how.variant, how);
  return pagesFile(how.format, drawings, { info: computed.open.job.info.job, made: new Date() });
}
