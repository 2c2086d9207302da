/** The one connection of a running server; kept over module reloads in development. */
import { type Connection, databaseUrl, openDatabase } from "@/db";

const held = globalThis as { rusticTallyConnection?: Promise<Connection> };

export function connection(): Promise<Connection> {
  if (held.rusticTallyConnection) return held.rusticTallyConnection;
  const opening = openDatabase(databaseUrl());
  held.rusticTallyConnection = opening;
  // What failed once may go the next time: the disk has room again, the file is back.
  opening.catch(() => {
    if (held.rusticTallyConnection === opening) delete held.rusticTallyConnection;
  });
  return opening;
}
