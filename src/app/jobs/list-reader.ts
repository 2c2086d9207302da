"use client";
/** How the pages read lists: pasted text here, a file on the server, which also knows spreadsheets and bounds what a file may take. */
import { err, ok, type Result } from "@/core/kernel";
import { listRows, MOST_LIST_BYTES } from "@/formats/csv";
import type { ListFileFault, ListReader, ListRows } from "@/ui/common/list-reader";

async function rowsOfFile(file: File): Promise<Result<ListRows, ListFileFault>> {
  if (file.size > MOST_LIST_BYTES)
    return err({ kind: "tooLarge", file: file.name, mostBytes: MOST_LIST_BYTES });
  const reply = await fetch("/api/read-list", {
    method: "POST",
    headers: { "content-type": "application/octet-stream" },
    body: file,
  }).catch(() => null);
  const data: unknown = await reply?.json().catch(() => null);
  if (reply?.ok) return ok((data as { rows: ListRows }).rows);
  const told = typeof data === "object" && data !== null && "message" in data ? String(data.message) : null;
  return err(told === null ? { kind: "unanswered" } : { kind: "refused", message: told });
}

export const LIST_READER: ListReader = { rows: listRows, file: rowsOfFile };
