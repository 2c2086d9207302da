"use client";
/** The variants side by side in a dialog: a table to read and to take away, and their costs and masses as a chart. */
import { Columns3 } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import type { ListTable } from "@/core/lists";
import { Button } from "../common/button";
import { Dialog } from "../common/dialog";
import { call } from "../common/http";
import { Fault } from "../common/notice";
import { OUT_ITEM, OutMenu, OutWords } from "../common/out-menu";
import { useDesk, useDeskState } from "../desk/desk-context";
import { takeAway } from "../desk/pane-head";
import { VariantChart } from "./variant-chart";

export function CompareVariants() {
  const desk = useDesk();
  const several = useDeskState((state) => Object.keys(state.job.variants).length > 0);
  const [open, setOpen] = useState(false);
  const [table, setTable] = useState<ListTable | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  if (!several) return null;
  const read = async () => {
    setTable(null);
    setFault(null);
    await desk.flush();
    const { id } = desk.store.getState();
    const reply = await call<{ table: ListTable }>("GET", `/api/jobs/${encodeURIComponent(id)}/variants`);
    if (reply.ok) setTable(reply.value.table);
    else setFault(reply.problem.message);
  };
  return (
    <>
      <Button
        look="plain"
        icon={<Columns3 size={15} aria-hidden />}
        onClick={() => {
          setOpen(true);
          void read();
        }}
      >
        Compare variants
      </Button>
      <Dialog
        open={open}
        onOpen={setOpen}
        title="Variants compared"
        about="Each with its own sizes and with the layouts that are kept for it."
        width="wide"
        trigger={null}
        head={table ? <TableOut /> : null}
        close="Close"
      >
        {fault ? <Fault>{fault}</Fault> : null}
        {table ? (
          <div className="mt-3 space-y-4">
            <VariantChart table={table} />
            <Compared table={table} />
          </div>
        ) : fault ? null : (
          <p className="py-6 text-ink-soft">Computing the variants…</p>
        )}
      </Dialog>
    </>
  );
}

const FORMATS = [
  ["xlsx", "XLSX", "numbers as numbers"],
  ["csv", "CSV", "plain rows"],
  ["pdf", "PDF", "on A4"],
] as const;

function TableOut() {
  const desk = useDesk();
  return (
    <OutMenu heading="The table of variants">
      {FORMATS.map(([format, name, contains]) => (
        <DropdownMenu.Item
          key={format}
          className={OUT_ITEM}
          onSelect={() =>
            void takeAway(desk, { label: name, contains, path: `/variants?format=${format}` }, null)
          }
        >
          <OutWords label={`Variants (${name})`} contains={contains} />
        </DropdownMenu.Item>
      ))}
    </OutMenu>
  );
}

function Compared({ table: { columns, groups } }: { readonly table: ListTable }) {
  return (
    <section aria-label="Variants, rows" tabIndex={0} className="overflow-x-auto">
      <table className="w-full font-table text-[14px]">
        <thead>
          <tr className="border-ink border-b text-[12px] text-ink-soft">
            {columns.map(({ id, heading, align }) => (
              <th
                key={id}
                scope="col"
                className={`px-2 py-1 ${align === "right" ? "text-right" : "text-left"}`}
              >
                {heading}
              </th>
            ))}
          </tr>
        </thead>
        {groups.map(({ heading, rows }) => (
          <tbody key={heading}>
            <tr className="bg-ground">
              <th scope="rowgroup" colSpan={columns.length} className="px-2 py-1 text-left font-semibold">
                {heading}
              </th>
            </tr>
            {rows.map(({ id, cells }) => {
              const texts = columns.slice(2).map((column) => cells[column.id]?.text);
              const differs = new Set(texts).size > 1;
              return (
                <tr key={id} className="border-seam border-b">
                  {columns.map((column) => {
                    const cell = cells[column.id];
                    const isValue = column.align === "right";
                    return (
                      <td
                        key={column.id}
                        className={`px-2 py-0.5 ${isValue ? "text-right" : ""} ${column.id === "unit" ? "text-ink-soft" : ""} ${isValue && cell?.lack === "missing" ? "text-amber" : isValue && differs ? "font-semibold" : ""}`}
                      >
                        {cell?.text ?? ""}
                      </td>
                    );
                  })}
                </tr>
              );
            })}
          </tbody>
        ))}
      </table>
    </section>
  );
}
