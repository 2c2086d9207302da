"use client";
/** The cutting order under a layout: what to set, what to cut, what comes of it; folded until it is wanted. */
import { ListOrdered } from "lucide-react";
import type { ReactNode } from "react";
import { type ListTable, SILHOUETTE_COLUMN } from "@/core/lists";
import { Table, TableCell } from "../common/table";

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
      <Table columns={table.columns} width="content" className="mt-1 font-table">
        <tbody>
          {rows.map((row) => (
            <tr key={row.id} className="border-seam border-b">
              {table.columns.map(({ id, align }) => (
                <TableCell key={id} align={align} className="py-0.5">
                  {id === SILHOUETTE_COLUMN ? draw?.(row.id) : (row.cells[id]?.text ?? "")}
                </TableCell>
              ))}
            </tr>
          ))}
        </tbody>
      </Table>
    </details>
  );
}
