"use client";
import { ListReaderContext } from "@/ui/common/list-reader";
/** The desk with what it needs from folders that it does not know: the layout worker, and readers of lists and drawings. */
import { Desk, type DeskProps } from "@/ui/desk/desk";
import { type DrawingReaders, DrawingReadersContext } from "@/ui/desk/drawing-readers";
import { LIST_READER } from "../list-reader";
import { outlineOfFile, standInOfFile } from "./read-drawing";
import { startLayoutWorker } from "./start-worker";

const DRAWINGS: DrawingReaders = { outline: outlineOfFile, standIn: standInOfFile };

export function DeskHere(props: Omit<DeskProps, "startWorker">) {
  return (
    <ListReaderContext value={LIST_READER}>
      <DrawingReadersContext value={DRAWINGS}>
        <Desk {...props} startWorker={startLayoutWorker} />
      </DrawingReadersContext>
    </ListReaderContext>
  );
}
