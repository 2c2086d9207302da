/** List setups that the stockroom keeps, each under its name; keeping one under a name that is taken replaces it. */
import { asc, eq } from "drizzle-orm";
import * as v from "valibot";
import { type KeptSetup, KeptSetupSchema } from "@/core/job";
import type { Connection } from "./database";
import { listSetups } from "./schema";

/** All kept setups by name; one that this version cannot read is left out, and stays stored. */
export async function readListSetups({ db }: Connection): Promise<readonly KeptSetup[]> {
  const rows = await db.select().from(listSetups).orderBy(asc(listSetups.name));
  return rows.flatMap((row) => {
    const kept = v.safeParse(KeptSetupSchema, JSON.parse(row.kept));
    return kept.success ? [kept.output] : [];
  });
}

export async function keepListSetup({ write }: Connection, kept: KeptSetup, at: number): Promise<void> {
  const row = { name: kept.name, kept: JSON.stringify(kept), at };
  await write((db) =>
    db.insert(listSetups).values(row).onConflictDoUpdate({ target: listSetups.name, set: row }),
  );
}

/** Whether there was one of that name. */
export async function removeListSetup({ write }: Connection, name: string): Promise<boolean> {
  const gone = await write((db) => db.delete(listSetups).where(eq(listSetups.name, name)));
  return gone.rowsAffected > 0;
}
