/** List setups that the stockroom keeps, each under its name; keeping one under a name that is taken replaces it. */
import { asc, eq } from "drizzle-orm";
import * as v from "valibot";
import { type SavedSetup, SavedSetupSchema } from "@/core/job";
import type { Connection } from "./database";
import { listSetups } from "./schema";

/** All saved setups by name; one that this version cannot read is left out, and stays stored. */
export async function readListSetups({ db }: Connection): Promise<readonly SavedSetup[]> {
  const rows = await db.select().from(listSetups).orderBy(asc(listSetups.name));
  return rows.flatMap((row) => {
    const saved = v.safeParse(SavedSetupSchema, JSON.parse(row.kept));
    return saved.success ? [saved.output] : [];
  });
}

export async function keepListSetup({ write }: Connection, saved: SavedSetup, at: number): Promise<void> {
  const row = { name: saved.name, kept: JSON.stringify(saved), at };
  await write((db) =>
    db.insert(listSetups).values(row).onConflictDoUpdate({ target: listSetups.name, set: row }),
  );
}

/** Whether there was one of that name. */
export async function removeListSetup({ write }: Connection, name: string): Promise<boolean> {
  const gone = await write((db) => db.delete(listSetups).where(eq(listSetups.name, name)));
  return gone.rowsAffected > 0;
}
