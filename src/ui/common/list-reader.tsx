"use client";
/** How rows of a list are read from text and files; the formats folder gives it, and the page hands it in. */
import { createContext, useContext } from "react";
import { invariant, type Problem, type Result, unreachable } from "@/core/kernel";

/** The cells of a list, row by row. */
export type ListRows = readonly (readonly string[])[];

export type ListReader = {
  /** Rows of pasted text. */
  readonly rows: (text: string) => Result<ListRows, Problem>;
  /** Rows of a file, CSV or a spreadsheet. */
  readonly file: (file: File) => Promise<Result<ListRows, ListFileFault>>;
};

/** Why a file gives no rows; `refused`: what the server said of it. */
export type ListFileFault =
  | { readonly kind: "tooLarge"; readonly file: string; readonly mostBytes: number }
  | { readonly kind: "refused"; readonly message: string }
  | { readonly kind: "unanswered" };

export function listFileFaultWords(fault: ListFileFault): string {
  switch (fault.kind) {
    case "tooLarge":
      return `${fault.file} is larger than ${fault.mostBytes / 1e6} MB; split the list.`;
    case "refused":
      return fault.message;
    case "unanswered":
      return "The file could not be read; the server did not answer. Try again.";
    default:
      return unreachable(fault);
  }
}

export const ListReaderContext = createContext<ListReader | null>(null);

export function useListReader(): ListReader {
  const reader = useContext(ListReaderContext);
  invariant(reader, "a list is read on a page without a reader");
  return reader;
}
