"use client";
/** The page for a new job from a cutting list, with the reader of its text. */
import type { StockroomData } from "@/core/stockroom";
import { decodeText, listRows, MOST_LIST_BYTES } from "@/formats/csv";
import { FromListPage } from "@/ui/jobs/from-list-page";

const TEXT = { decode: decodeText, rows: listRows, mostBytes: MOST_LIST_BYTES };

export function ListHere({ stockroom }: { readonly stockroom: StockroomData }) {
  return <FromListPage stockroom={stockroom} text={TEXT} />;
}
