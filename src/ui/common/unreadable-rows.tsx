/** Rows of a list that could not be read, each with its text and why; of many the first. */
import { rowFaultWords, type UnreadableRow } from "@/core/job";

const MOST_TOLD = 100;

export function UnreadableRows({ rows }: { readonly rows: readonly UnreadableRow[] }) {
  return (
    <>
      {rows.slice(0, MOST_TOLD).map(({ row, text, fault }) => (
        <p key={row} className="border-seam border-b bg-amber-pale px-3 py-0.5 text-[13px] text-amber">
          Row {row} (“{text}”): {rowFaultWords(fault)}
        </p>
      ))}
      {rows.length > MOST_TOLD ? (
        <p className="px-3 py-0.5 text-[13px]">and {rows.length - MOST_TOLD} more</p>
      ) : null}
    </>
  );
}
