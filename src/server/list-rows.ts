/** Rows of a list file, read in a thread with bounds. */
import { createThreadReader } from "./reader-thread";

export const readListRows = createThreadReader<Uint8Array | string, readonly (readonly string[])[]>({
  script: "list-reader.mjs",
  mostMs: 20_000,
  mostMemoryMb: 512,
  what: "The list",
  tooLong: "it takes too long to read; split it",
  unreadable: "it cannot be read; save it again, as CSV or XLSX",
});
