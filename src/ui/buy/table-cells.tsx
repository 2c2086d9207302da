/** One cell of a list table; what is missing is said in colour as well as in words. */
import type { Cell, Column } from "@/core/lists";

export type TableFieldProps = { readonly column: Column; readonly cells: Readonly<Record<string, Cell>> };

const MISSING = new Set(["price missing", "missing", "unknown", "not all placed"]);

export function TextCell({ column, cells }: TableFieldProps) {
  const text = cells[column.id]?.text ?? "";
  const look = MISSING.has(text)
    ? "text-amber font-semibold"
    : text === "–" || text === "no layout"
      ? "text-ink-soft"
      : "";
  return (
    <td className={`px-2 py-1 align-top ${column.align === "right" ? "text-right" : "text-left"} ${look}`}>
      {text}
    </td>
  );
}
