/**
 * The job file (`.tally.json`): one job with the part of the stockroom that it uses, so that it can be
 * computed anywhere. Its schema is published in docs/schema/.
 */
import * as v from "valibot";
import {
  AssetSchema,
  type Assets,
  assetId,
  assetIdOf,
  assetsOfFile,
  inlineAssets,
  issueWords,
  type Job,
  JobSchema,
  lawFault,
  pictureFault,
  readJob,
} from "@/core/job";
import { err, ok, type Problem, type Result } from "@/core/kernel";
import { type Stockroom, type StockroomData, StockroomSchema } from "@/core/stockroom";

const JOB_FILE_KIND = "rustic-tally-job";

export const JobFileSchema = v.object({
  kind: v.literal(JOB_FILE_KIND),
  version: v.literal(1),
  /** Of the job when the file was written; a file made by hand has none. */
  revision: v.optional(v.pipe(v.number(), v.integer(), v.minValue(0))),
  job: JobSchema,
  stockroom: StockroomSchema,
  /** Shapes from files that the job refers to, by their content (SHA-256). */
  assets: v.optional(v.record(assetId, AssetSchema), {}),
});
export type JobFile = {
  readonly job: Job;
  readonly stockroom: StockroomData;
  readonly assets: Assets;
  readonly revision: number | null;
};

type With = { readonly assets: Assets; readonly revision?: number };

/** The job with those entries of the stockroom that it names, and the shapes from files that it refers to. */
export function writeJobFile(job: Job, stockroom: Stockroom, { assets, revision }: With): string {
  const used = new Set<string>();
  for (const member of Object.values(job.members)) if (member.section) used.add(member.section);
  for (const panel of Object.values(job.panels)) {
    for (const id of [panel.board, ...Object.values(panel.edging)]) if (id) used.add(id);
  }
  for (const { section, board } of [
    job.info.job.usual,
    ...Object.values(job.assemblies).map((assembly) => assembly.usual),
  ])
    for (const id of [section, board]) if (id) used.add(id);
  for (const part of Object.values(job.boughtParts)) if (part.entry) used.add(part.entry);
  for (const { entry } of Object.values(job.assemblies)) if (entry) used.add(entry);
  for (const typed of Object.values(job.typedPieces)) if (typed.stock) used.add(typed.stock);
  const named = <T extends { readonly id: string }>(entries: readonly T[]) =>
    entries.filter((entry) => used.has(entry.id));
  const { currency, sections, boards, edging, bought, saws, titleBlock, setRecipe } = stockroom;
  const part = {
    currency,
    sections: named(sections),
    boards: named(boards),
    edging: named(edging),
    bought: named(bought),
    saws,
    titleBlock,
    setRecipe,
  };
  const shapes = Object.fromEntries(
    [...assetsOfFile(job, stockroom)].flatMap((id) => (assets.has(id) ? [[id, assets.get(id)]] : [])),
  );
  const file = { kind: JOB_FILE_KIND, version: 1, revision, job, stockroom: part, assets: shapes };
  return `${JSON.stringify(file, null, 2)}\n`;
}

/** Reads a job file; the problem says what does not fit and where. */
export function readJobFile(text: string): Result<JobFile, Problem> {
  const malformed = (why: string) => err({ kind: "malformed", what: "The job file", why } as const);
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    return malformed("it is not JSON");
  }
  const envelope = v.safeParse(
    v.object({
      kind: v.literal(JOB_FILE_KIND),
      version: v.literal(1),
      revision: JobFileSchema.entries.revision,
      job: v.unknown(),
      stockroom: v.unknown(),
      assets: JobFileSchema.entries.assets,
    }),
    data,
  );
  if (!envelope.success) return malformed(issueWords(envelope.issues));
  const job = readJob(envelope.output.job);
  if (!job.ok) return job;
  const fault = lawFault(job.value);
  if (fault !== null) return malformed(fault);
  const stockroom = v.safeParse(StockroomSchema, envelope.output.stockroom);
  if (!stockroom.success) return malformed(`stockroom ${issueWords(stockroom.issues)}`);
  const { revision = null } = envelope.output;
  const assets = new Map(inlineAssets(envelope.output.job));
  for (const asset of Object.values(envelope.output.assets)) {
    // Whatever draws it takes it for what it says.
    const wrong = asset.kind === "picture" ? pictureFault(asset) : null;
    if (wrong !== null) return malformed(`a picture in it ${wrong}`);
    assets.set(assetIdOf(asset), asset);
  }
  return ok({ job: job.value, stockroom: stockroom.output, assets, revision });
}
