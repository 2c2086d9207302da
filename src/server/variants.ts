/** The variants of a job side by side, each computed with the layouts that are kept for it. */
import { setImmediate } from "node:timers/promises";
import { type ComparedVariant, type ListTable, variantsTable } from "@/core/lists";
import type { Connection } from "@/db";
import { type ListFormat, listFile } from "@/formats/list-file";
import { type ComputedJob, computeJob, headOf } from "./papers";

export type Compared = { readonly computed: ComputedJob; readonly table: ListTable };

/** The job's own sizes first, then its variants in their order; null: there is no such job. */
export async function compareVariants(db: Connection, id: string): Promise<Compared | null> {
  const base = await computeJob(db, id, "");
  if (!base) return null;
  const variants: ComparedVariant[] = [{ id: "", name: "Base design", ...base.results }];
  const all = Object.values(base.open.job.variants).sort((a, b) => a.position - b.position);
  for (const { id: variant, name } of all) {
    // Others are answered between two of them.
    await setImmediate();
    const computed = await computeJob(db, id, variant);
    if (computed) variants.push({ id: variant, name, ...computed.results });
  }
  return { computed: base, table: variantsTable(base.open.job, variants) };
}

/** The variants side by side as a file. */
export async function printVariants(
  { computed, table }: Compared,
  format: ListFormat,
): Promise<Uint8Array | string> {
  const made = new Date();
  const { tally } = computed.results;
  return listFile(format, { table, tally, head: headOf(computed, "", made), made, page: "a4" });
}
