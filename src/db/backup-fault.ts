/** Why a backup is not taken or not put back, as data, and the one place where that is put into words. */
import { type Err, err, unreachable } from "@/core/kernel";

export type BackupFault =
  /** The database is no file of this machine. */
  | { readonly kind: "elsewhere"; readonly what: "back it up" | "restore it" }
  | { readonly kind: "noDatabase"; readonly file: string }
  | { readonly kind: "isThere"; readonly file: string }
  | { readonly kind: "notWritten"; readonly why: string }
  | { readonly kind: "noFile" | "empty" | "noBackup"; readonly file: string }
  | { readonly kind: "damaged"; readonly file: string; readonly why: string }
  | { readonly kind: "inUse" };

export const backupFault = (fault: BackupFault): Err<BackupFault> => err(fault);

/** A sentence with what to do. */
export function backupFaultWords(fault: BackupFault): string {
  switch (fault.kind) {
    case "elsewhere":
      return `The database is on a server; ${fault.what} there.`;
    case "noDatabase":
      return `There is no database at ${fault.file}.`;
    case "isThere":
      return `${fault.file} is there already; name a new file.`;
    case "notWritten":
      return `The backup could not be written: ${fault.why}`;
    case "noFile":
      return `There is no file ${fault.file}.`;
    case "empty":
      return `${fault.file} is empty; it is no backup.`;
    case "noBackup":
      return `${fault.file} is no backup of Rustic Tally.`;
    case "damaged":
      return `${fault.file} is damaged: ${fault.why}.`;
    case "inUse":
      return "The database is in use. Stop the server first, then restore.";
    default:
      return unreachable(fault);
  }
}
