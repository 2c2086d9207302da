"use client";
/** The page for a new job from a cutting list, with the reader of lists. */
import type { StockroomData } from "@/core/stockroom";
import { ListReaderContext } from "@/ui/common/list-reader";
import { FromListPage } from "@/ui/jobs/from-list-page";
import { LIST_READER } from "../list-reader";

export function ListHere({ stockroom }: { readonly stockroom: StockroomData }) {
  return (
    <ListReaderContext value={LIST_READER}>
      <FromListPage stockroom={stockroom} />
    </ListReaderContext>
  );
}
