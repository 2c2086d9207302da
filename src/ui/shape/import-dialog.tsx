"use client";
/** A STEP file before it enters the job: what was found in it, as what each piece enters, and what has to be known of it. */
import { FileInput } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import type { FoundFile } from "@/core/imports";
import { sentence } from "@/core/kernel";
import { Button } from "../common/button";
import { Dialog, DialogClose } from "../common/dialog";
import { FileField } from "../common/file-field";
import { type SolidsReading, useDrawingReaders } from "../desk/drawing-readers";
import { DrawingForm, type ReadDrawing } from "./drawing-form";
import { FoundForm } from "./found-form";

export function ImportDialog({
  open,
  onOpen,
}: {
  readonly open: boolean;
  readonly onOpen: (open: boolean) => void;
}) {
  return (
    <Dialog
      open={open}
      onOpen={onOpen}
      title="Import"
      about="STEP: solids become members, panels and bought parts. DXF: closed outlines become panels, or lines a skeleton with members where you choose a section. Nothing enters the job before you say so."
      width="wide"
      trigger={
        <Button look="plain" icon={<FileInput size={15} aria-hidden />}>
          Import
        </Button>
      }
      close={null}
    >
      {open ? <ImportForm onDone={() => onOpen(false)} /> : null}
    </Dialog>
  );
}

function ImportForm({ onDone }: { readonly onDone: () => void }) {
  const { solids, skeleton: readLines, pieces: readPieces } = useDrawingReaders();
  const [drawing, setDrawing] = useState<ReadDrawing | null>(null);
  const [file, setFile] = useState<FoundFile | null>(null);
  const [progress, setProgress] = useState<{ readonly words: string; readonly share: number } | null>(null);
  const reading = useRef<SolidsReading | null>(null);
  // A dialog that is closed stops what it was reading.
  useEffect(() => () => reading.current?.stop(), []);
  const read = async (chosen: File): Promise<string | null> => {
    reading.current?.stop();
    setFile(null);
    setDrawing(null);
    if (/\.dxf$/i.test(chosen.name)) {
      const [lines, pieces] = [await readLines(chosen), await readPieces(chosen)];
      const skeleton = lines.ok ? lines.value : null;
      const panels = pieces.ok && pieces.value.pieces.length > 0 ? pieces.value : null;
      if (!lines.ok && !panels) return sentence(lines.problem);
      setDrawing({ name: chosen.name, skeleton, panels });
      return null;
    }
    setProgress({ words: "Opening the file", share: 0 });
    const next = solids(chosen, (words, share) => setProgress({ words, share }));
    reading.current = next;
    const found = await next.found;
    if (reading.current !== next) return null;
    setProgress(null);
    if (found === null) return "Stopped. Nothing was imported.";
    if (!found.ok) return sentence(found.problem);
    setFile(found.value);
    return null;
  };
  return (
    <div className="mt-3 flex min-h-0 flex-col gap-3">
      <div className="flex">
        <FileField
          label={
            file || drawing ? `${(file ?? drawing)?.name}: choose another file` : "Choose a STEP or DXF file"
          }
          accept=".stp,.step,.p21,.dxf"
          onFile={read}
        />
      </div>
      {progress ? (
        <div className="flex items-center gap-3">
          <progress
            aria-label="Reading the file"
            className="h-2 flex-1 accent-enamel"
            value={progress.share}
            max={1}
          />
          <span className="text-[13px] text-ink-soft" aria-live="polite">
            {progress.words}
          </span>
          <Button onClick={() => reading.current?.stop()}>Stop</Button>
        </div>
      ) : null}
      {file ? (
        <FoundForm file={file} onDone={onDone} />
      ) : drawing ? (
        <DrawingForm key={drawing.name} drawing={drawing} onDone={onDone} />
      ) : (
        <div className="flex justify-end">
          <DialogClose />
        </div>
      )}
    </div>
  );
}
