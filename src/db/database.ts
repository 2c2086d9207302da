/**
 * The connection: one SQLite file in WAL mode under the data folder, or a libSQL server when
 * RUSTIC_TALLY_DB names one. Migrations run before the first use. Writes go one after the other.
 */
import { mkdirSync } from "node:fs";
import path from "node:path";
import { createClient } from "@libsql/client";
import { drizzle, type LibSQLDatabase } from "drizzle-orm/libsql";
import { migrate } from "drizzle-orm/libsql/migrator";
import pLimit from "p-limit";
import * as schema from "./schema";

export type Database = LibSQLDatabase<typeof schema>;
export type Connection = {
  readonly db: Database;
  /** Runs a write after all earlier ones: SQLite has one writer, and waiting here is better than "busy". */
  readonly write: <T>(work: (db: Database) => Promise<T>) => Promise<T>;
  readonly close: () => void;
};

export function databaseUrl(): string {
  const given = process.env["RUSTIC_TALLY_DB"];
  if (given) return given;
  return `file:${path.join(/* turbopackIgnore: true */ process.cwd(), "data", "rustic-tally.db")}`;
}

export async function openDatabase(url: string): Promise<Connection> {
  const isFile = url.startsWith("file:");
  if (isFile) mkdirSync(path.dirname(url.slice("file:".length)), { recursive: true });
  const client = createClient({
    url,
    ...(process.env["RUSTIC_TALLY_DB_TOKEN"] ? { authToken: process.env["RUSTIC_TALLY_DB_TOKEN"] } : {}),
  });
  if (isFile) await client.execute("PRAGMA journal_mode = WAL");
  const db = drizzle(client, { schema });
  const migrationsFolder = path.join(/* turbopackIgnore: true */ process.cwd(), "src", "db", "migrations");
  await migrate(db, { migrationsFolder });
  const oneByOne = pLimit(1);
  return { db, write: (work) => oneByOne(() => work(db)), close: () => client.close() };
}
