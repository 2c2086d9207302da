/** Puts a backup back. Only for the command: a server that runs has the database open. */
import { copyFileSync, existsSync, mkdirSync, renameSync, statSync } from "node:fs";
import path from "node:path";
import { ok, type Result } from "@/core/kernel";
import { type BackupFacts, lookedOver, wordsOf } from "./backup";
import { type BackupFault, backupFault } from "./backup-fault";
import { clientFor, databaseFile } from "./database";

/**
 * Puts a backup in the place of the database, which is kept beside it under another name. Refused while any program has
 * the database open. Gives what the backup holds, with the name under which the old file is kept (null: there was none).
 */
export async function restore(
  url: string,
  file: string,
  now: Date,
): Promise<Result<BackupFacts & { readonly kept: string | null }, BackupFault>> {
  const target = databaseFile(url);
  if (target === null) return backupFault({ kind: "elsewhere", what: "restore it" });
  const facts = await lookedOver(path.resolve(/* turbopackIgnore: true */ file));
  if (!facts.ok) return facts;
  const stamp = now.toISOString().slice(0, 19).replaceAll(":", "-");
  const kept = existsSync(target) ? `${target}.before-${stamp}` : null;
  if (kept !== null) {
    if (!(await isFree(url, target))) return backupFault({ kind: "inUse" });
    for (const rest of ["", "-wal", "-shm"])
      if (existsSync(`${target}${rest}`)) renameSync(`${target}${rest}`, `${kept}${rest}`);
  }
  mkdirSync(path.dirname(target), { recursive: true });
  copyFileSync(facts.value.file, target);
  return ok({ ...facts.value, kept });
}

/** Whether nobody else has the database open: only then can its journal be put away. A damaged file counts as free. */
async function isFree(url: string, file: string): Promise<boolean> {
  if (statSync(file).size === 0) return true;
  try {
    const client = clientFor(url, 1);
    try {
      await client.execute("PRAGMA busy_timeout = 200");
      const { rows } = await client.execute("PRAGMA journal_mode = DELETE");
      return String(rows[0]?.[0] ?? "") === "delete";
    } finally {
      client.close();
    }
  } catch (thrown) {
    return !/busy|locked/i.test(wordsOf(thrown) + String(thrown));
  }
}
