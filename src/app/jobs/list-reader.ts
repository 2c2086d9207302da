"use client";
/** How the pages read lists: pasted text here, a file on the server, which also knows spreadsheets and bounds what a file may take. */
import { err, ok } from "@/core/kernel";
import { listRows, MOST_LIST_BYTES } from "@/formats/csv";
import type { ListReader, ListRows } from "@/ui/common/list-reader";

async function rowsOfFile(file: File) {
  if (file.size > MOST_LIST_BYTES)
    return err(`${file.name} is larger than ${MOST_LIST_BYTES / 1e6} MB; split the list.`);
  const reply = await fetch("/api/read-list", {
    method: "POST",
    headers: { "content-type": "application/octet-stream" },
    body: file,
  }).catch(() => null);
  const data: unknown = await reply?.json().catch(() => null);
  if (reply?.ok) return ok((data as { rows: ListRows }).rows);
  const told = typeof data === "object" && data !== null && "message" in data ? String(data.message) : null;
  return err(told ?? "The file could not be read; the server did not answer. Try again.");
}

export const LIST_READER: ListReader = { rows: listRows, file: rowsOfFile };
