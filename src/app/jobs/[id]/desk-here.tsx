"use client";
/** The desk with what it needs from folders that it does not know: the layout worker, and readers of lists and drawings. */
import { err, ok } from "@/core/kernel";
import { listRows, MOST_LIST_BYTES } from "@/formats/csv";
import { Desk, type DeskProps } from "@/ui/desk/desk";
import { type DrawingReaders, DrawingReadersContext } from "@/ui/desk/drawing-readers";
import { type ListReader, ListReaderContext } from "@/ui/desk/list-reader";
import { outlineOfFile, standInOfFile } from "./read-drawing";
import { startLayoutWorker } from "./start-worker";

type Rows = readonly (readonly string[])[];

const READER: ListReader = { rows: listRows, file: rowsOfFile };

/** A file is read by the server, which also knows spreadsheets. */
async function rowsOfFile(file: File) {
  if (file.size > MOST_LIST_BYTES)
    return err(`${file.name} is larger than ${MOST_LIST_BYTES / 1e6} MB; split the list.`);
  const reply = await fetch("/api/read-list", {
    method: "POST",
    headers: { "content-type": "application/octet-stream" },
    body: file,
  }).catch(() => null);
  const data: unknown = await reply?.json().catch(() => null);
  if (reply?.ok) return ok((data as { rows: Rows }).rows);
  const told = typeof data === "object" && data !== null && "message" in data ? String(data.message) : null;
  return err(told ?? "The file could not be read; the server did not answer. Try again.");
}

const DRAWINGS: DrawingReaders = { outline: outlineOfFile, standIn: standInOfFile };

export function DeskHere(props: Omit<DeskProps, "startWorker">) {
  return (
    <ListReaderContext value={READER}>
      <DrawingReadersContext value={DRAWINGS}>
        <Desk {...props} startWorker={startLayoutWorker} />
      </DrawingReadersContext>
    </ListReaderContext>
  );
}
