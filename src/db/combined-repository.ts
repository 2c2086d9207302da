/** Combined layouts: jobs that are laid out together, by their ids. */
import { asc, eq } from "drizzle-orm";
import type { Connection } from "./database";
import { letGoAll } from "./rack-repository";
import { combinedJobs } from "./schema";

export type Combined = { readonly id: string; readonly name: string; readonly jobs: readonly string[] };

const combinedOf = (row: typeof combinedJobs.$inferSelect): Combined => ({
  id: row.id,
  name: row.name,
  jobs: JSON.parse(row.jobs) as string[],
});

export async function listCombined({ db }: Connection): Promise<readonly Combined[]> {
  return (await db.select().from(combinedJobs).orderBy(asc(combinedJobs.at))).map(combinedOf);
}

export async function findCombined({ db }: Connection, id: string): Promise<Combined | null> {
  const [row] = await db.select().from(combinedJobs).where(eq(combinedJobs.id, id));
  return row ? combinedOf(row) : null;
}

export async function saveCombined({ write }: Connection, combined: Combined, at: number): Promise<void> {
  const row = { id: combined.id, name: combined.name, jobs: JSON.stringify(combined.jobs), at };
  await write((db) =>
    db.insert(combinedJobs).values(row).onConflictDoUpdate({ target: combinedJobs.id, set: row }),
  );
}

/** Removes a combined layout with its layouts; what they had set aside in the rack is free again. */
export async function removeCombined({ write }: Connection, id: string): Promise<boolean> {
  return write((db) =>
    db.transaction(async (tx) => {
      await letGoAll(tx, id);
      return (
        (await tx.delete(combinedJobs).where(eq(combinedJobs.id, id)).returning({ id: combinedJobs.id }))
          .length > 0
      );
    }),
  );
}
