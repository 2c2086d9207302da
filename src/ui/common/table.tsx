/** A plain table that is shown whole, with one look for its headings and cells. Lists that can be long are grids (`long-list`). */
import type { ComponentProps, ReactNode } from "react";

export type TableColumn = {
  readonly id: string;
  /** Only read out where `hidden`. */
  readonly heading: ReactNode;
  readonly hidden?: boolean;
  readonly align?: "left" | "right" | "centre";
  readonly className?: string;
};

const ALIGN = { left: "text-left", right: "text-right", centre: "text-center" } as const;

type TableProps = {
  readonly columns: readonly TableColumn[];
  /** As wide as what holds it, or as its cells need. */
  readonly width?: "whole" | "content";
  /** Headings stay in view while the rows are scrolled. */
  readonly stickyHead?: boolean;
  readonly className?: string;
  /** Groups of rows: `tbody` elements. */
  readonly children: ReactNode;
};

export function Table({
  columns,
  width = "whole",
  stickyHead = false,
  className = "",
  children,
}: TableProps) {
  return (
    <table
      className={`border-collapse text-[14px] ${width === "whole" ? "w-full" : "min-w-max"} ${className}`}
    >
      <thead className={stickyHead ? "sticky top-0 z-10 bg-leaf" : ""}>
        <tr>
          {columns.map(({ id, heading, hidden = false, align = "left", className: own = "" }) => (
            <th
              key={id}
              scope="col"
              className={`border-seam border-b px-2 py-1 font-normal text-[12px] text-ink-soft ${ALIGN[align]} ${own}`}
            >
              {hidden ? <span className="sr-only">{heading}</span> : heading}
            </th>
          ))}
        </tr>
      </thead>
      {children}
    </table>
  );
}

/** A cell; `align` as its column's. */
export function TableCell({
  align = "left",
  className = "",
  ...cell
}: Omit<ComponentProps<"td">, "align"> & { readonly align?: TableColumn["align"] }) {
  return <td className={`px-2 py-1 ${ALIGN[align]} ${className}`} {...cell} />;
}
