"use client";
/** How drawings and shapes are read from files; the formats folder gives it, and the page hands it in. */
import { createContext, useContext } from "react";
import type { DrawnPieces, FoundFile, ImportAsked, Imported, Skeleton } from "@/core/imports";
import type { DrawnOutline } from "@/core/job";
import { invariant, type Problem, type Result } from "@/core/kernel";
import type { ReadShape } from "@/core/shape";

export type DrawingReaders = {
  /** The outline of one piece, from DXF. */
  readonly outline: (file: File) => Promise<Result<DrawnOutline, Problem>>;
  /** The shape that stands for a bought part, from STL or glTF. */
  readonly standIn: (file: File) => Promise<Result<ReadShape, Problem>>;
  /** The straight lines of a frame, from DXF. */
  readonly skeleton: (file: File) => Promise<Result<Skeleton, Problem>>;
  /** The closed outlines of a drawing, from DXF. */
  readonly pieces: (file: File) => Promise<Result<DrawnPieces, Problem>>;
  /** Starts to read the solids of a STEP file. */
  readonly solids: (file: File, onProgress: (words: string, share: number) => void) => SolidsReading;
  /** What a file of solids enters into a job; null: there is not memory enough. */
  readonly imported: (asked: ImportAsked) => Promise<Imported | null>;
};

/** A file that is being read: what it was found to hold, null where it was stopped; and what stops it at once. */
export type SolidsReading = {
  readonly found: Promise<Result<FoundFile, Problem> | null>;
  readonly stop: () => void;
};

export const DrawingReadersContext = createContext<DrawingReaders | null>(null);

export function useDrawingReaders(): DrawingReaders {
  const readers = useContext(DrawingReadersContext);
  invariant(readers, "a drawing is read outside a desk");
  return readers;
}
