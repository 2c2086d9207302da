/** Batches: jobs that are laid out together, by their ids. */
import { asc, eq } from "drizzle-orm";
import type { Connection } from "./database";
import { letGoAll } from "./rack-repository";
import { batches } from "./schema";

export type Batch = { readonly id: string; readonly name: string; readonly jobs: readonly string[] };

const batchOf = (row: typeof batches.$inferSelect): Batch => ({
  id: row.id,
  name: row.name,
  jobs: JSON.parse(row.jobs) as string[],
});

export async function listBatches({ db }: Connection): Promise<readonly Batch[]> {
  return (await db.select().from(batches).orderBy(asc(batches.at))).map(batchOf);
}

export async function findBatch({ db }: Connection, id: string): Promise<Batch | null> {
  const [row] = await db.select().from(batches).where(eq(batches.id, id));
  return row ? batchOf(row) : null;
}

export async function saveBatch({ write }: Connection, batch: Batch, at: number): Promise<void> {
  const row = { id: batch.id, name: batch.name, jobs: JSON.stringify(batch.jobs), at };
  await write((db) => db.insert(batches).values(row).onConflictDoUpdate({ target: batches.id, set: row }));
}

/** Removes a batch with its layouts; what they had set aside in the rack is free again. */
export async function removeBatch({ write }: Connection, id: string): Promise<boolean> {
  return write((db) =>
    db.transaction(async (tx) => {
      await letGoAll(tx, id);
      return (await tx.delete(batches).where(eq(batches.id, id)).returning({ id: batches.id })).length > 0;
    }),
  );
}
