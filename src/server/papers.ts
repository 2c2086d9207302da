/** Use cases of everything that leaves a job: the printed papers, lists as CSV, the tally, the job file. */
import { type Drawing, type PageHead, type PageSize, type PrintInput, shopPapers } from "@/core/drawing";
import type { VariantId } from "@/core/job";
import { own } from "@/core/kernel";
import { type Lists, namedTable } from "@/core/lists";
import { createPipeline, type Results } from "@/core/pipeline";
import type { Stockroom } from "@/core/stockroom";
import { type Connection, readSetting } from "@/db";
import type { CsvNumbers } from "@/formats/csv";
import { type ListFormat, listFile } from "@/formats/list-file";
import { pagesToPdf } from "@/formats/pdf";
import { currentStockroom, type OpenJob, openJob } from "./jobs";

export type ComputedJob = {
  readonly open: OpenJob;
  readonly stockroom: Stockroom;
  readonly results: Results;
  readonly shop: string;
};

/** A job with its results for one variant ("" for the job's own sizes); null when there is none. */
export async function computeJob(db: Connection, id: string, variant: string): Promise<ComputedJob | null> {
  const open = await openJob(db, id, variant);
  if (!open || (variant !== "" && !own(open.job.variants, variant))) return null;
  const stockroom = await currentStockroom(db);
  const results = createPipeline()(
    open.job,
    variant === "" ? null : (variant as VariantId),
    stockroom,
    open.layouts,
    open.rack,
  );
  return { open, stockroom, results, shop: (await readSetting(db, "shop")) ?? "" };
}

export const headOf = ({ open, shop }: ComputedJob, variant: string, made: Date): PageHead => ({
  info: open.job.info.job,
  revision: open.revision,
  date: made.toISOString().slice(0, 10),
  variantName: own(open.job.variants, variant)?.name ?? null,
  shop,
});

/** All lists of a computed job. */
const listsOf = ({ open, stockroom, results }: ComputedJob): Lists => ({
  job: open.job,
  stockroom,
  ...results,
});

/** One list of a job as a file; null when there is no list of that name. */
export async function printList(
  computed: ComputedJob,
  name: string,
  format: ListFormat,
  how: { readonly page: PageSize; readonly variant: string; readonly numbers?: CsvNumbers },
): Promise<{ readonly title: string; readonly bytes: Uint8Array | string } | null> {
  const table = namedTable(name, listsOf(computed));
  if (!table) return null;
  const made = new Date();
  const head = headOf(computed, how.variant, made);
  const { tally } = computed.results;
  const { page, numbers = "shown" } = how;
  return { title: table.title, bytes: await listFile(format, { table, tally, head, made, page, numbers }) };
}

/** What papers of a computed job are made from. */
export const printInput = (computed: ComputedJob, variant: string, made: Date): PrintInput => ({
  ...headOf(computed, variant, made),
  results: computed.results,
  saved: computed.open.layouts,
  saws: computed.stockroom.saws,
});

/** The shop papers as one PDF, with pages after them where there are any. */
export function printJob(
  computed: ComputedJob,
  page: PageSize,
  variant: string,
  after: readonly Drawing[] = [],
): Promise<Uint8Array> {
  const { info } = computed.open.job;
  const made = new Date();
  return pagesToPdf(`${info.job.code} ${info.job.title}`, made, [
    ...shopPapers(printInput(computed, variant, made), page),
    ...after,
  ]);
}

const plainWords = (text: string) => text.replace(/[^A-Za-z0-9._-]+/g, "-");

/** A file name that any system takes: code, what it is, the variant where one is named, revision. */
export function fileName({ open }: ComputedJob, what: string, ending: string, variant = ""): string {
  const code = plainWords(open.job.info.job.code);
  const name = own(open.job.variants, variant)?.name;
  const of = name === undefined ? "" : `-${plainWords(name).slice(0, 40)}`;
  return `${code}-${what}${of}-r${open.revision}.${ending}`;
}
