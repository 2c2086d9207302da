/**
 * The connection: one SQLite file in WAL mode under the data folder, or a libSQL server when RUSTIC_TALLY_DB names one.
 * The file is looked at before it is used, then migrations run. Writes go one after the other over a connection of their
 * own, which waits for what is written to reach the disk.
 */
import { existsSync, mkdirSync, statSync } from "node:fs";
import path from "node:path";
import { type Client, createClient } from "@libsql/client";
import { drizzle, type LibSQLDatabase } from "drizzle-orm/libsql";
import { migrate } from "drizzle-orm/libsql/migrator";
import pLimit from "p-limit";
import { moveAssetsOut } from "./assets-out";
import { asFault, DatabaseFault, withFaults } from "./fault";
import journal from "./migrations/meta/_journal.json";
import * as schema from "./schema";

export type Database = LibSQLDatabase<typeof schema>;
export type Connection = {
  readonly db: Database;
  /** Runs a write after all earlier ones: SQLite has one writer, and waiting here is better than "busy". */
  readonly write: <T>(work: (db: Database) => Promise<T>) => Promise<T>;
  readonly close: () => void;
};

/** How long a connection waits for another program that is writing. */
const BUSY_MS = 5_000;

export function databaseUrl(): string {
  const given = process.env["RUSTIC_TALLY_DB"];
  if (given) return given;
  return `file:${path.join(/* turbopackIgnore: true */ process.cwd(), "data", "rustic-tally.db")}`;
}

/** The file of a database address; null: it is no file. */
export const databaseFile = (url: string): string | null =>
  url.startsWith("file:") ? path.resolve(/* turbopackIgnore: true */ url.slice("file:".length)) : null;

export function clientFor(url: string, concurrency = 20): Client {
  return createClient({
    url,
    concurrency,
    timeout: BUSY_MS,
    ...(process.env["RUSTIC_TALLY_DB_TOKEN"] ? { authToken: process.env["RUSTIC_TALLY_DB_TOKEN"] } : {}),
  });
}

/** Opens the database and brings it up to date. Throws a DatabaseFault with a sentence when it cannot be used. */
export function openDatabase(url: string): Promise<Connection> {
  return withFaults(async () => {
    const file = databaseFile(url);
    if (file !== null) prepareFile(file);
    const reading = clientFor(url);
    const writing = file === null ? reading : clientFor(url, 1);
    const close = () => {
      reading.close();
      writing.close();
    };
    try {
      if (file !== null) {
        await writing.execute("PRAGMA journal_mode = WAL");
        // What was acknowledged survives a loss of power: every commit waits for the disk.
        await writing.execute("PRAGMA synchronous = FULL");
        await lookOver(writing, file);
      }
      await refuseNewer(writing);
      const db = drizzle(reading, { schema });
      const writer = drizzle(writing, { schema });
      const migrationsFolder = path.join(
        /* turbopackIgnore: true */ process.cwd(),
        "src",
        "db",
        "migrations",
      );
      await migrate(writer, { migrationsFolder });
      await moveAssetsOut(writer);
      const oneByOne = pLimit(1);
      return { db, write: (work) => withFaults(() => oneByOne(() => work(writer))), close };
    } catch (fault) {
      close();
      throw fault;
    }
  });
}

function prepareFile(file: string): void {
  const folder = path.dirname(file);
  try {
    mkdirSync(/* turbopackIgnore: true */ folder, { recursive: true });
  } catch (fault) {
    throw new DatabaseFault(
      `The folder ${folder} cannot be made. Give this program the right to write there, or name another with RUSTIC_TALLY_DB.`,
      { cause: fault },
    );
  }
  // An empty file is no new shop: something emptied it.
  if (existsSync(/* turbopackIgnore: true */ file) && statSync(/* turbopackIgnore: true */ file).size === 0)
    throw new DatabaseFault(
      `The file of the database, ${file}, is empty. Restore a backup: npm run restore -- FILE. To begin a new shop, remove the empty file.`,
    );
}

/** A damaged file is told before anything is written into it. */
async function lookOver(client: Client, file: string): Promise<void> {
  const { rows } = await client.execute("PRAGMA quick_check(1)");
  const word = String(rows[0]?.[0] ?? "ok");
  if (word !== "ok")
    throw new DatabaseFault(
      `The database, ${file}, is damaged (${word.slice(0, 120)}). Stop the server and keep the file. Restore a backup: npm run restore -- FILE`,
    );
}

/** A database that a newer program brought up to date is left alone by an older one. */
async function refuseNewer(client: Client): Promise<void> {
  const tables = await client.execute("SELECT 1 FROM sqlite_master WHERE name = '__drizzle_migrations'");
  if (tables.rows.length === 0) return;
  const { rows } = await client.execute("SELECT max(created_at) FROM __drizzle_migrations");
  const known = Math.max(...journal.entries.map(({ when }) => when));
  if (Number(rows[0]?.[0] ?? 0) > known)
    throw new DatabaseFault(
      "The database was written by a newer version of Rustic Tally. Start that version, or restore a backup of this one; nothing was changed.",
    );
}

/** Reads without a fault in words would end as a stack: the same sentences as for writes. */
export const readFault = (thrown: unknown): DatabaseFault | null => {
  const fault = asFault(thrown);
  return fault instanceof DatabaseFault ? fault : null;
};
