"use client";
/** How the pages read lists: pasted text here, a file on the server, which also knows spreadsheets and bounds what a file may take. */
import { err, ok, type Result } from "@/core/kernel";
import { listRows, MOST_LIST_BYTES } from "@/formats/csv";
import { sendFile } from "@/ui/common/http";
import type { ListFileFault, ListReader, ListRows } from "@/ui/common/list-reader";

async function rowsOfFile(file: File): Promise<Result<ListRows, ListFileFault>> {
  if (file.size > MOST_LIST_BYTES)
    return err({ kind: "tooLarge", file: file.name, mostBytes: MOST_LIST_BYTES });
  const answer = await sendFile<{ readonly rows: ListRows }>("/api/read-list", file);
  if (answer.ok) return ok(answer.value.rows);
  const { body, message } = answer.problem;
  return err(body === null ? { kind: "unanswered" } : { kind: "refused", message });
}

export const LIST_READER: ListReader = { rows: listRows, file: rowsOfFile };
