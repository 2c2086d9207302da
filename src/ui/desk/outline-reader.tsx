"use client";
/** How the outline of one piece is read from a drawing; the formats folder gives it, and the page hands it in. */
import { createContext, useContext } from "react";
import type { DrawnOutline } from "@/core/job";
import { invariant, type Problem, type Result } from "@/core/kernel";

export type OutlineReader = (file: File) => Promise<Result<DrawnOutline, Problem>>;

export const OutlineReaderContext = createContext<OutlineReader | null>(null);

export function useOutlineReader(): OutlineReader {
  const reader = useContext(OutlineReaderContext);
  invariant(reader, "an outline is read outside a desk");
  return reader;
}
