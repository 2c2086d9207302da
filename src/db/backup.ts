/**
 * Backups of the database file: taken while the server runs, as one file that is opened and looked over before it counts; one
 * a day, kept for two weeks.
 */
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from "node:fs";
import path from "node:path";
import { ok, type Result } from "@/core/kernel";
import { type BackupFault, backupFault } from "./backup-fault";
import { clientFor, databaseFile } from "./database";
import { asFault, DatabaseFault } from "./fault";

const KEPT_DAYS = 14;
const DAY_MS = 86_400_000;

export type BackupFacts = { readonly file: string; readonly jobs: number; readonly bytes: number };

export const wordsOf = (thrown: unknown): string => {
  const fault = asFault(thrown);
  return fault instanceof DatabaseFault || fault instanceof Error ? fault.message : String(fault);
};

/** Writes the database into a new file, also while it is in use; why not, or what the file holds. */
export async function backUp(url: string, file: string): Promise<Result<BackupFacts, BackupFault>> {
  const from = databaseFile(url);
  if (from === null) return backupFault({ kind: "elsewhere", what: "back it up" });
  if (!existsSync(from)) return backupFault({ kind: "noDatabase", file: from });
  const target = path.resolve(/* turbopackIgnore: true */ file);
  if (existsSync(target)) return backupFault({ kind: "isThere", file: target });
  // Under another name until it is known to be whole.
  const begun = `${target}.begun`;
  rmSync(begun, { force: true });
  try {
    mkdirSync(path.dirname(target), { recursive: true });
    const client = clientFor(url, 1);
    try {
      await client.execute({ sql: "VACUUM INTO ?", args: [begun] });
    } finally {
      client.close();
    }
    const facts = await lookedOver(begun);
    if (!facts.ok) return facts;
    renameSync(begun, target);
    return ok({ ...facts.value, file: target });
  } catch (thrown) {
    return backupFault({ kind: "notWritten", why: wordsOf(thrown) });
  } finally {
    for (const rest of ["", "-wal", "-shm"]) rmSync(`${begun}${rest}`, { force: true });
  }
}

/** What a backup holds, or why it is none. */
export async function lookedOver(file: string): Promise<Result<BackupFacts, BackupFault>> {
  if (!existsSync(file)) return backupFault({ kind: "noFile", file });
  if (statSync(file).size === 0) return backupFault({ kind: "empty", file });
  try {
    const client = clientFor(`file:${file}`, 1);
    try {
      const check = await client.execute("PRAGMA integrity_check(1)");
      const word = String(check.rows[0]?.[0] ?? "");
      if (word !== "ok") return backupFault({ kind: "damaged", file, why: word.slice(0, 120) });
      const { rows } = await client.execute("SELECT count(*) FROM jobs WHERE deleted_at IS NULL");
      return ok({ file, jobs: Number(rows[0]?.[0] ?? 0), bytes: statSync(file).size });
    } finally {
      client.close();
    }
  } catch {
    return backupFault({ kind: "noBackup", file });
  }
}

const NAME = /^rustic-tally-(\d{4}-\d{2}-\d{2})\.db$/;

/** The folder of the daily backups, beside the database; null: it is no file. */
const backupFolder = (url: string): string | null => {
  const file = databaseFile(url);
  return file === null ? null : path.join(path.dirname(file), "backups");
};

/** Takes today's backup unless it is there, and removes those older than two weeks. Why not, or null. */
export async function dailyBackup(url: string, now: Date): Promise<BackupFault | null> {
  const folder = backupFolder(url);
  if (folder === null) return null;
  const today = now.toISOString().slice(0, 10);
  const file = path.join(folder, `rustic-tally-${today}.db`);
  if (existsSync(file)) return null;
  const made = await backUp(url, file);
  if (!made.ok) return made.problem;
  for (const name of readdirSync(folder)) {
    const day = NAME.exec(name)?.[1];
    if (day && now.getTime() - Date.parse(day) >= KEPT_DAYS * DAY_MS) rmSync(path.join(folder, name));
  }
  return null;
}
