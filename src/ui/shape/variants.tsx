"use client";
import { Plus } from "lucide-react";
import { useMemo, useState } from "react";
import { type Job, resolveSizes, type Variant, type VariantId } from "@/core/job";
import { styleOf } from "@/core/lists";
import { formatLength, MM_PER_UNIT, roundTo } from "@/core/measure";
import { Button } from "../common/button";
/** Variants: named sets of key-size values, side by side; the one in use is set while it is chosen in the head. */
import { newId } from "../common/fresh-id";
import { Table, TableCell } from "../common/table";
import { TextField } from "../common/text-field";
import { useDesk, useDeskState } from "../desk/desk-context";

export function Variants() {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const shown = useDeskState((state) => state.variant);
  const [adding, setAdding] = useState(false);
  const variants = Object.values(job.variants).sort((a, b) => a.position - b.position);
  const add = (name: string): string | null => {
    if (name.trim() === "") return null;
    const id = newId("variant") as VariantId;
    const refused = desk.submit({
      kind: "addVariant",
      variant: { id, name: name.trim(), formulas: {}, position: variants.length },
    });
    if (refused === null) {
      setAdding(false);
      void desk.setVariant(id);
    }
    return refused;
  };
  if (Object.keys(job.keySizes).length === 0) return null;
  return (
    <section aria-label="Variants">
      <h3 className="flex justify-between bg-ground px-3.5 py-1 text-[13px]">
        <b className="font-semibold">Variants</b>
        <span className="text-ink-soft">
          {shown === null ? "key sizes above are the job's own" : "key sizes above are the variant's"}
        </span>
      </h3>
      {variants.length > 0 ? <SideBySide job={job} variants={variants} shown={shown} /> : null}
      <div className="px-3.5 py-1">
        {adding ? (
          <span className="block w-[240px]">
            <TextField label="Name of the variant" value="" onCommit={add} />
          </span>
        ) : (
          <Button look="plain" icon={<Plus size={15} aria-hidden />} onClick={() => setAdding(true)}>
            Add variant
          </Button>
        )}
      </div>
    </section>
  );
}

type SideProps = {
  readonly job: Job;
  readonly variants: readonly Variant[];
  readonly shown: VariantId | null;
};

/** Only the sizes that differ somewhere have a row. */
function SideBySide({ job, variants, shown }: SideProps) {
  const desk = useDesk();
  const columns = useMemo(
    () => [null, ...variants.map((variant) => variant.id)].map((id) => resolveSizes(job, id)),
    [job, variants],
  );
  const sizes = Object.values(job.keySizes).sort((a, b) => a.position - b.position);
  const rows = sizes
    .map((size) => ({
      size,
      texts: columns.map(({ scope }) => textOf(job, size.measure, scope.get(size.name))),
    }))
    .filter(({ texts }) => new Set(texts).size > 1);
  const remove = (id: VariantId) => {
    if (shown === id) void desk.setVariant(null);
    desk.submit({ kind: "removeVariant", id });
  };
  return (
    <div className="overflow-x-auto px-3.5">
      <Table
        width="content"
        className="font-table"
        columns={[
          { id: "size", heading: "Size" },
          { id: "drawn", heading: "base design", align: "right" },
          ...variants.map((variant) => ({
            id: variant.id,
            align: "right" as const,
            className: shown === variant.id ? "font-semibold text-brass-ink" : "",
            heading: (
              <>
                {variant.name}{" "}
                <button
                  type="button"
                  aria-label={`Remove variant ${variant.name}`}
                  className="inline-block h-6 w-6 text-oxide hover:underline"
                  onClick={() => remove(variant.id)}
                >
                  ×
                </button>
              </>
            ),
          })),
        ]}
      >
        <tbody>
          {rows.map(({ size, texts }) => (
            <tr key={size.id} className="border-seam border-t">
              <th scope="row" className="px-2 py-0.5 text-left font-normal">
                {size.name}
              </th>
              {texts.map((text, i) => (
                <TableCell key={variants[i - 1]?.id ?? "drawn"} align="right" className="py-0.5">
                  {text}
                </TableCell>
              ))}
            </tr>
          ))}
        </tbody>
      </Table>
      {rows.length === 0 ? (
        <p className="text-[13px] text-ink-soft">
          No different sizes yet. Select the variant at the top, then change key sizes.
        </p>
      ) : null}
    </div>
  );
}

function textOf(job: Job, measure: string, value: number | boolean | string | undefined): string {
  const { info } = job;
  if (value === undefined) return "cannot be computed";
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (typeof value === "string") return value;
  return measure === "length"
    ? formatLength(value * MM_PER_UNIT[info.job.unit], styleOf(info.job), 0.1)
    : String(roundTo(value, 3));
}
