/** What a running server does by itself: says at start what is wrong with the database, and takes a backup every day. */
import { backupFaultWords, DatabaseFault, dailyBackup, databaseUrl } from "@/db";
import { connection } from "./connection";

const HOUR_MS = 3_600_000;

export function watchOver(): void {
  const look = async () => {
    try {
      await connection();
    } catch (fault) {
      console.error(fault instanceof DatabaseFault ? `\n${fault.message}\n` : fault);
      return;
    }
    const fault = await dailyBackup(databaseUrl(), new Date());
    if (fault !== null) console.error(`No backup was taken today. ${backupFaultWords(fault)}`);
  };
  void look();
  // The server may end while it waits.
  setInterval(() => void look(), HOUR_MS).unref();
}
