"use client";
/** The desk with what it needs from folders that it does not know: the layout worker, and readers of lists and drawings. */
import { ListReaderContext } from "@/ui/common/list-reader";
import { type DrawingReaders, DrawingReadersContext } from "@/ui/desk/drawing-readers";
import { OpeningDesk, type OpeningProps } from "@/ui/desk/opening";
import { LayoutTime } from "@/ui/layout/layout-time";
import { LIST_READER } from "../list-reader";
import {
  importOfSolids,
  outlineOfFile,
  piecesOfFile,
  skeletonOfFile,
  solidsOfFile,
  standInOfFile,
} from "./read-drawing";
import { drawingWorkers, startDeskWorker, startLayoutWorker } from "./start-worker";

const DRAWINGS: DrawingReaders = {
  outline: outlineOfFile,
  standIn: standInOfFile,
  solids: solidsOfFile,
  imported: importOfSolids,
  skeleton: skeletonOfFile,
  pieces: piecesOfFile,
};

type Props = Omit<OpeningProps, "startWorker" | "startDeskWorker" | "drawingWorkers"> & {
  readonly layoutTime: number;
};

export function DeskHere({ layoutTime, ...props }: Props) {
  return (
    <ListReaderContext value={LIST_READER}>
      <DrawingReadersContext value={DRAWINGS}>
        <LayoutTime value={layoutTime}>
          <OpeningDesk
            {...props}
            startWorker={startLayoutWorker}
            startDeskWorker={startDeskWorker}
            drawingWorkers={drawingWorkers}
          />
        </LayoutTime>
      </DrawingReadersContext>
    </ListReaderContext>
  );
}
