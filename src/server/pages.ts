/** The drawing pages of a job as files. */
import type { Drawing } from "@/core/drawing";
import { assetsOfPapers, pagesInOrder, type VariantId } from "@/core/job";
import { pagesForFile } from "@/core/paper-set";
import { type Connection, readAssets } from "@/db";
import { type PageFormat, pagesFile } from "@/formats/pages-file";
import { type ComputedJob, headOf } from "./papers";

/** The pages of a computed job as display lists, all when none is named. */
export async function drawnPages(
  db: Connection,
  computed: ComputedJob,
  variant: string,
  page: string | null = null,
): Promise<readonly Drawing[]> {
  const { open, results, stockroom } = computed;
  const pages = pagesInOrder(open.job).filter(
    ({ id, heading }) => page === null || id === page || heading === page,
  );
  return pagesForFile(pages, {
    job: open.job,
    results,
    stockroom,
    layouts: open.layouts,
    assets: await readAssets(db, assetsOfPapers(open.job, stockroom)),
    variant: variant === "" ? null : (variant as VariantId),
    head: headOf(computed, variant, new Date()),
  });
}

/** Some pages of a computed job as one file, all when none is named; null: it has none of that name. */
export async function printPages(
  db: Connection,
  computed: ComputedJob,
  how: { readonly page: string | null; readonly format: PageFormat; readonly variant: string },
): Promise<Uint8Array | string | null> {
  const drawings = await drawnPages(db, computed, how.variant, how.page);
  return pagesFile(how.format, drawings, { info: computed.open.job.info.job, made: new Date() });
}
