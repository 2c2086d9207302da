"use client";
/** The cutting order under a layout: what to set, what to cut, what comes of it; folded until it is wanted. */
import { ListOrdered } from "lucide-react";
import type { ReactNode } from "react";
import { type ListTable, SILHOUETTE_COLUMN } from "@/core/lists";

export function CuttingOrder({
  table,
  draw,
}: {
  readonly table: ListTable;
  /** What stands in the column of drawings. */
  readonly draw?: (rowId: string) => ReactNode;
}) {
  const rows = table.groups.flatMap((group) => group.rows);
  if (rows.length === 0) return null;
  return (
    <details className="mt-1.5 text-[13px]">
      <summary className="inline-flex items-start gap-1.5 font-semibold text-enamel hover:underline">
        <ListOrdered size={14} aria-hidden className="mt-0.5 shrink-0" />
        <span className="shrink-0 whitespace-nowrap">{table.title}</span>
        <span className="font-normal text-ink-soft">{table.notes.join(" ")}</span>
      </summary>
      <table className="mt-1 border-collapse font-table text-[14px]">
        <thead>
          <tr className="text-[12px] text-ink-soft">
            {table.columns.map(({ id, heading, align }) => (
              <th
                key={id}
                scope="col"
                className={`border-seam border-b px-2 py-0.5 font-normal ${align === "right" ? "text-right" : "text-left"}`}
              >
                {heading}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.id} className="border-seam border-b">
              {table.columns.map(({ id, align }) => (
                <td key={id} className={`px-2 py-0.5 ${align === "right" ? "text-right" : ""}`}>
                  {id === SILHOUETTE_COLUMN ? draw?.(row.id) : (row.cells[id]?.text ?? "")}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
