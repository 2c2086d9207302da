"use client";
/** How drawings and shapes are read from files; the formats folder gives it, and the page hands it in. */
import { createContext, useContext } from "react";
import type { DrawnOutline } from "@/core/job";
import { invariant, type Problem, type Result } from "@/core/kernel";
import type { ReadShape } from "@/core/shape";

export type DrawingReaders = {
  /** The outline of one piece, from DXF. */
  readonly outline: (file: File) => Promise<Result<DrawnOutline, Problem>>;
  /** The shape that stands for a bought part, from STL. */
  readonly standIn: (file: File) => Promise<Result<ReadShape, Problem>>;
};

export const DrawingReadersContext = createContext<DrawingReaders | null>(null);

export function useDrawingReaders(): DrawingReaders {
  const readers = useContext(DrawingReadersContext);
  invariant(readers, "a drawing is read outside a desk");
  return readers;
}
