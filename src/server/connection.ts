/** The one connection of a running server; kept over module reloads in development. */
import { type Connection, databaseUrl, openDatabase } from "@/db";

const held = globalThis as { rusticTallyConnection?: Promise<Connection> };

export function connection(): Promise<Connection> {
  held.rusticTallyConnection ??= openDatabase(databaseUrl());
  return held.rusticTallyConnection;
}
