/** The drawing pages of a job as files. */
import { assetsOf, pagesInOrder, type VariantId } from "@/core/job";
import { pagesForFile } from "@/core/paper-set";
import { type Connection, readAssets } from "@/db";
import { type PageFormat, pagesFile } from "@/formats/pages-file";
import { type ComputedJob, headOf } from "./papers";

/** Some pages of a computed job as one file, all when none is named; null: it has none of that name. */
export async function printPages(
  db: Connection,
  computed: ComputedJob,
  {
    page,
    format,
    variant,
  }: { readonly page: string | null; readonly format: PageFormat; readonly variant: string },
): Promise<Uint8Array | string | null> {
  const { open, results, stockroom } = computed;
  const pages = pagesInOrder(open.job).filter(
    ({ id, heading }) => page === null || id === page || heading === page,
  );
  if (pages.length === 0) return null;
  const made = new Date();
  const drawings = pagesForFile(pages, {
    job: open.job,
    results,
    stockroom,
    assets: await readAssets(db, assetsOf(open.job)),
    variant: variant === "" ? null : (variant as VariantId),
    head: headOf(computed, variant, made),
  });
  return pagesFile(format, drawings, { info: open.job.info.job, made });
}
