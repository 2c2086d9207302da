/** Pages of drawings as they were put out last. */
import { and, eq, inArray } from "drizzle-orm";
import * as v from "valibot";
import { type PutOut, PutOutSchema } from "@/core/release";
import type { Connection } from "./database";
import { pagesOut } from "./schema";

/** What stood on pages of a variant of a job when they were put out, by their ids; what this version cannot read is left out. */
export async function readPagesOut(
  { db }: Connection,
  job: string,
  variant: string,
  pages: readonly string[],
): Promise<ReadonlyMap<string, PutOut>> {
  const ofJob = and(eq(pagesOut.jobId, job), eq(pagesOut.variant, variant));
  const rows = await db
    .select()
    .from(pagesOut)
    .where(and(ofJob, inArray(pagesOut.pageId, [...pages])));
  return new Map(
    rows.flatMap(({ pageId, revision, at, says }): readonly (readonly [string, PutOut])[] => {
      const read = v.safeParse(PutOutSchema, { revision, at, says: JSON.parse(says) });
      return read.success ? [[pageId, read.output]] : [];
    }),
  );
}

/** Keeps what stands on pages that are put out, in the place of what was kept of them. */
export async function keepPagesOut(
  { write }: Connection,
  job: string,
  variant: string,
  pages: ReadonlyMap<string, PutOut>,
): Promise<void> {
  await write((db) =>
    db.transaction(async (all) => {
      for (const [pageId, { revision, at, says }] of pages) {
        const row = { jobId: job, variant, pageId, revision, at, says: JSON.stringify(says) };
        await all
          .insert(pagesOut)
          .values(row)
          .onConflictDoUpdate({ target: [pagesOut.jobId, pagesOut.variant, pagesOut.pageId], set: row });
      }
    }),
  );
}
