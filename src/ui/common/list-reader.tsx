"use client";
/** How rows of a list are read from text and files; the formats folder gives it, and the page hands it in. */
import { createContext, useContext } from "react";
import { invariant, type Problem, type Result } from "@/core/kernel";

/** The cells of a list, row by row. */
export type ListRows = readonly (readonly string[])[];

export type ListReader = {
  /** Rows of pasted text. */
  readonly rows: (text: string) => Result<ListRows, Problem>;
  /** Rows of a file, CSV or a spreadsheet; the error is a sentence. */
  readonly file: (file: File) => Promise<Result<ListRows, string>>;
};

export const ListReaderContext = createContext<ListReader | null>(null);

export function useListReader(): ListReader {
  const reader = useContext(ListReaderContext);
  invariant(reader, "a list is read on a page without a reader");
  return reader;
}
