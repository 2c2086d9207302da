"use client";
/** Cost of the variants as a chart: net with waste beside that from the layouts, where it is known. */
import type { ListTable } from "@/core/lists";
import { useDeskState } from "../desk/desk-context";
import { useCostBars } from "./use-cost-bars";

export function VariantChart({ table }: { readonly table: ListTable }) {
  const currency = useDeskState((state) => state.results.quantities.currency);
  const variants = table.columns.slice(2);
  const rows = table.groups.flatMap((group) => group.rows);
  const values = (name: string) => {
    const row = rows.find(({ cells }) => cells["name"]?.text === name && cells["unit"]?.text === currency);
    return variants.map(({ id }) => row?.cells[id]?.value ?? null);
  };
  const names = variants.map(({ heading }) => heading);
  const [layout, rule] = [values("from layout"), values("net + waste")];
  const box = useCostBars({ names, layout, rule }, currency, {
    layout: { height: 110 + 46 * names.length, margin: { l: 20, r: 20, t: 36, b: 40 } },
    yaxis: { autorange: "reversed" },
    legend: { y: 1.02, yanchor: "bottom" },
  });
  const said = (name: string, own: readonly (number | null)[]) =>
    `${name} ${names.map((one, i) => `${one} ${own[i] ?? "unknown"}`).join(", ")}`;
  const words = `${said("from layout", layout)}; ${said("net + waste", rule)}`;
  return <div ref={box} role="img" aria-label={`Cost of the variants in ${currency}: ${words}`} />;
}
