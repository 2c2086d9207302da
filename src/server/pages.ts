/** The drawing pages of a job as files. */
import { setImmediate } from "node:timers/promises";
import { type Drawing, type DrawnPage, flatPage } from "@/core/drawing";
import { assetsOfPapers, pagesInOrder, type VariantId } from "@/core/job";
import { ok, type Problem, type Result } from "@/core/kernel";
import { asksOfPages, createPageDrawing } from "@/core/paper-set";
import { type PutOut, pageChanges, pageSays, withChangeMarks } from "@/core/release";
import { type WholeSet, withSet } from "@/core/whole-set";
import { type Connection, keepPagesOut, readAssets, readPagesOut } from "@/db";
import { type PageFormat, pagesFile } from "@/formats/pages-file";
import { type ComputedJob, headOf } from "./papers";
import { viewsSideBySide } from "./view-threads";

type Wanted = { readonly page?: string | null; readonly signal?: AbortSignal };

/**
 * The pages of a computed job as display lists, all when none is named. Between two of them others are answered; a request that is
 * given up ends it.
 */
export async function drawnPages(
  db: Connection,
  computed: ComputedJob,
  variant: string,
  wanted: Wanted = {},
): Promise<readonly Drawing[]> {
  return (await pagesWithChanges(db, computed, variant, wanted)).map(({ drawing }) => drawing);
}

const NONE: ReadonlyMap<string, PutOut> = new Map();

type FilePage = { readonly drawn: DrawnPage; readonly drawing: Drawing };

/** Pages as they are drawn, and with bars beside what changed since they were put out where a page wants them. */
async function pagesWithChanges(
  db: Connection,
  computed: ComputedJob,
  variant: string,
  { page = null, signal }: Wanted,
): Promise<readonly FilePage[]> {
  const { open, results, stockroom } = computed;
  const { job } = open;
  const pages = pagesInOrder(job).filter(
    ({ id, heading }) => page === null || id === page || heading === page,
  );
  const marked = pages.filter((one) => one.marksChanges).map((one) => one.id);
  const out = marked.length === 0 ? NONE : await readPagesOut(db, open.id, variant, marked);
  const assets = await readAssets(db, assetsOfPapers(job, stockroom));
  const head = headOf(computed, variant, new Date());
  const draw = createPageDrawing();
  const asks = pages.map((one) => asksOfPages(job, [one], variant === "" ? null : (variant as VariantId)));
  const sideBySide = viewsSideBySide({ job, stockroom, assets }, asks.flat());
  const made: FilePage[] = [];
  try {
    for (const [i, one] of pages.entries()) {
      await setImmediate();
      if (signal?.aborted) throw new Error("aborted");
      const views = await sideBySide.views(asks[i] ?? []);
      const drawn = draw(one, { job, results, stockroom, views, layouts: open.layouts, assets, head });
      const before = out.get(one.id);
      const shown = before ? withChangeMarks(drawn, pageChanges(before.says, pageSays(drawn, job))) : drawn;
      made.push({ drawn, drawing: flatPage(shown) });
    }
  } finally {
    sideBySide.end();
  }
  return made;
}

/**
 * Puts pages out, all when none is named: as a PDF, and kept is what stands on them, so that what changes from now on can be told. Null:
 * it has none of that name.
 */
export async function putPagesOut(
  db: Connection,
  computed: ComputedJob,
  how: Wanted & { readonly variant: string },
): Promise<Uint8Array | string | null> {
  const pages = await pagesWithChanges(db, computed, how.variant, how);
  const { job, id, revision } = computed.open;
  const made = new Date();
  const drawings = pages.map(({ drawing }) => drawing);
  const file = await pagesFile("pdf", drawings, { info: job.info.job, made });
  const at = made.getTime();
  const out = new Map(
    pages.map(({ drawn }): [string, PutOut] => [drawn.page.id, { revision, at, says: pageSays(drawn, job) }]),
  );
  if (file !== null) await keepPagesOut(db, id, how.variant, out);
  return file;
}

/** A computed job with pages more, which are nowhere kept; the problem says why they do not fit. */
export function withPages(
  computed: ComputedJob,
  set: Pick<WholeSet, "pages" | "items">,
): Result<ComputedJob, Problem> {
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
