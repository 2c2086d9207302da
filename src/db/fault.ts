/**
 * What can be wrong with the database, as a sentence with what to do. Codes are those of SQLite (sqlite.org/rescode.html).
 */
import { LibsqlError } from "@libsql/client";

/** The database cannot be used: the message is for people. */
export class DatabaseFault extends Error {}

const RESTORE = "Restore a backup: npm run restore -- FILE";

/** By the first part of the code: SQLITE_IOERR_READ begins like SQLITE_IOERR. */
const SENTENCES: readonly (readonly [string, string])[] = [
  ["SQLITE_FULL", "The disk is full, so nothing was changed. Make room on it and try again."],
  [
    "SQLITE_READONLY",
    "The database may not be written, so nothing was changed. Give this program the right to write its file and folder, and start again.",
  ],
  ["SQLITE_CORRUPT", `The database is damaged. Stop the server and keep the file. ${RESTORE}`],
  ["SQLITE_NOTADB", `The file of the database is no database. Stop the server and keep the file. ${RESTORE}`],
  ["SQLITE_BUSY", "Another program holds the database, so nothing was changed. Close it and try again."],
  [
    "SQLITE_CANTOPEN",
    "The database cannot be opened. Look whether its folder is there and may be written, and start again.",
  ],
  ["SQLITE_IOERR", "The disk does not answer, so nothing was changed. Look at the disk and try again."],
];

/** The error of a database as a fault with a sentence; everything else stays what it is. */
export function asFault(thrown: unknown): unknown {
  const code = codeOf(thrown);
  const found = code && SENTENCES.find(([start]) => code.startsWith(start));
  return found ? new DatabaseFault(found[1], { cause: thrown }) : thrown;
}

/** The code of a database error, also where another error was put round it. */
function codeOf(thrown: unknown): string | null {
  for (let error = thrown, i = 0; error instanceof Error && i < 5; error = error.cause, i++) {
    if (error instanceof LibsqlError) return error.extendedCode ?? error.code;
    // The driver opens without a code of its own.
    if (error.message.startsWith("ConnectionFailed(")) return "SQLITE_CANTOPEN";
  }
  return null;
}

/** Carries work out; an error of the database comes as a fault with a sentence. */
export async function withFaults<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (thrown) {
    throw asFault(thrown);
  }
}
