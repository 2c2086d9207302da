"use client";
/** How rows of a list are read from text and files; the formats folder gives it, and the page hands it in. */
import { createContext, useContext } from "react";
import { invariant, type Problem, type Result } from "@/core/kernel";

export type ListReader = {
  /** Rows of pasted text. */
  readonly rows: (text: string) => Result<readonly (readonly string[])[], Problem>;
  /** Rows of a file, CSV or a spreadsheet; the error is a sentence. */
  readonly file: (file: File) => Promise<Result<readonly (readonly string[])[], string>>;
};

export const ListReaderContext = createContext<ListReader | null>(null);

export function useListReader(): ListReader {
  const reader = useContext(ListReaderContext);
  invariant(reader, "a list is read outside a desk");
  return reader;
}
