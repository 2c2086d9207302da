/** Takes out of documents and steps what they held within themselves before version 8. */
import { eq, like, or } from "drizzle-orm";
import type { LibSQLDatabase } from "drizzle-orm/libsql";
import { type Assets, inlineAssets } from "@/core/job";
import type * as schema from "./schema";
import { assets, editLog, jobs, settings } from "./schema";

type Database = LibSQLDatabase<typeof schema>;

export async function insertAssets(db: Database, some: Assets, at: number): Promise<void> {
  for (const [id, asset] of some)
    await db
      .insert(assets)
      .values({ id, asset: JSON.stringify(asset), at })
      .onConflictDoNothing();
}

const MOVED = "assetsMoved";

/** Stores the shapes that documents and steps from before version 8 hold within themselves; done once. */
export async function moveAssetsOut(db: Database): Promise<void> {
  const [done] = await db.select().from(settings).where(eq(settings.name, MOVED));
  if (done) return;
  const at = Date.now();
  const inline = '%"triangles":[%';
  for (const { document } of await db.select().from(jobs).where(like(jobs.document, inline)))
    await insertAssets(db, inlineAssets(parsed(document)), at);
  const steps = await db
    .select()
    .from(editLog)
    .where(or(like(editLog.diff, inline), like(editLog.edit, inline)));
  for (const { diff, edit } of steps) {
    await insertAssets(db, inlineAssets(parsed(diff)), at);
    if (edit !== null) await insertAssets(db, inlineAssets(parsed(edit)), at);
  }
  await db
    .insert(settings)
    .values({ name: MOVED, value: String(at) })
    .onConflictDoNothing();
}

/** A text that cannot be read holds nothing that could be moved; whoever opens it is told. */
function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
