"use client";
/** Cost of the variants as a chart: net with waste beside that from the layouts, where it is known. */
import { useEffect, useRef } from "react";
import type { ListTable } from "@/core/lists";
import { useDeskState } from "../desk/desk-context";

const SHOWN = [
  ["from layout", "#fae8ca", "/"],
  ["net + waste", "#dce0df", ""],
] as const;

export function VariantChart({ table }: { readonly table: ListTable }) {
  const box = useRef<HTMLDivElement>(null);
  const currency = useDeskState((state) => state.results.quantities.currency);
  const variants = table.columns.slice(2);
  const rows = table.groups.flatMap((group) => group.rows);
  const values = (name: string) => {
    const row = rows.find(({ cells }) => cells["name"]?.text === name && cells["unit"]?.text === currency);
    return variants.map(({ id }) => row?.cells[id]?.value ?? null);
  };
  const series = SHOWN.map(([name, color, pattern]) => ({ name, color, pattern, values: values(name) }));
  const names = variants.map(({ heading }) => heading);
  const key = JSON.stringify([names, series]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: `key` stands for the lists, which are new at each render
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    let gone = false;
    void import("plotly.js-dist-min").then(({ default: Plotly }) => {
      if (gone) return;
      void Plotly.react(
        element,
        series.map(({ name, color, pattern, values: own }) => ({
          type: "bar" as const,
          orientation: "h" as const,
          name,
          y: names,
          x: own,
          marker: {
            color,
            pattern: { shape: pattern, fgcolor: "#1d2321", size: 6, solidity: 0.12 },
            line: { color: "#1d2321", width: 1 },
          },
          hovertemplate: `%{y}: %{x:.2f} ${currency}<extra>${name}</extra>`,
        })),
        {
          font: { family: "Barlow, sans-serif", size: 13, color: "#1d2321" },
          height: 110 + 46 * names.length,
          margin: { l: 20, r: 20, t: 36, b: 40 },
          paper_bgcolor: "#ffffff",
          plot_bgcolor: "#ffffff",
          xaxis: { title: { text: currency }, gridcolor: "#d9d9cf", automargin: true, fixedrange: true },
          yaxis: { automargin: true, fixedrange: true, autorange: "reversed" },
          legend: { orientation: "h", y: 1.02, yanchor: "bottom", traceorder: "reversed" },
          bargap: 0.35,
        },
        { displayModeBar: false, responsive: true },
      );
    });
    return () => {
      gone = true;
    };
  }, [key, currency]);
  const said = series.map(
    ({ name, values: own }) => `${name} ${names.map((one, i) => `${one} ${own[i] ?? "unknown"}`).join(", ")}`,
  );
  return <div ref={box} role="img" aria-label={`Cost of the variants in ${currency}: ${said.join("; ")}`} />;
}
