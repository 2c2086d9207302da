"use client";
/** Cost by stock as a chart: by rule beside by layout. */
import { useEffect, useRef } from "react";
import { useDeskState } from "../desk/desk-context";

type Bars = {
  readonly names: readonly string[];
  readonly rule: readonly (number | null)[];
  readonly layout: readonly (number | null)[];
};

function useBars(): Bars {
  const { lines } = useDeskState((state) => state.results.quantities);
  const byMaterial = new Map<string, { rule: number; layout: number }>();
  for (const line of lines) {
    const name = line.group === "bought" ? "bought parts" : (line.material ?? line.name);
    const sum = byMaterial.get(name) ?? { rule: 0, layout: 0 };
    sum.rule += line.cost ?? 0;
    sum.layout += (line.byLayout ? line.byLayout.cost : line.cost) ?? 0;
    byMaterial.set(name, sum);
  }
  const sorted = [...byMaterial].sort((a, b) => a[1].rule - b[1].rule);
  return {
    names: sorted.map(([name]) => name),
    rule: sorted.map(([, { rule }]) => rule / 100),
    layout: sorted.map(([, { layout }]) => layout / 100),
  };
}

export function CostPicture() {
  const box = useRef<HTMLDivElement>(null);
  const currency = useDeskState((state) => state.results.quantities.currency);
  const missing = useDeskState((state) => state.results.quantities.byRule.missing);
  const { names, rule, layout } = useBars();
  const key = JSON.stringify([names, rule, layout]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: `key` stands for the three lists, which are new at each render
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    let gone = false;
    // The chart package is large and needs a document: it is fetched when the stage is opened.
    void import("plotly.js-dist-min").then(({ default: Plotly }) => {
      if (gone) return;
      const axis = {
        gridcolor: "#d9d9cf",
        zerolinecolor: "#1d2321",
        automargin: true,
        fixedrange: true,
      } as const;
      const bar = (name: string, values: readonly (number | null)[], color: string, pattern: string) => ({
        type: "bar" as const,
        orientation: "h" as const,
        name,
        y: [...names],
        x: [...values],
        marker: {
          color,
          pattern: { shape: pattern, fgcolor: "#1d2321", size: 6, solidity: 0.12 },
          line: { color: "#1d2321", width: 1 },
        },
        hovertemplate: `%{y}: %{x:.2f} ${currency}<extra>${name}</extra>`,
      });
      void Plotly.react(
        element,
        [bar("from layout", layout, "#fae8ca", "/"), bar("net + waste", rule, "#dce0df", "")],
        {
          font: { family: "Barlow, sans-serif", size: 13, color: "#1d2321" },
          margin: { l: 20, r: 20, t: 10, b: 40 },
          paper_bgcolor: "#ffffff",
          plot_bgcolor: "#ffffff",
          xaxis: { ...axis, title: { text: currency } },
          yaxis: { ...axis },
          legend: { orientation: "h", y: 1.08, traceorder: "reversed" },
          bargap: 0.35,
        },
        { displayModeBar: false, responsive: true },
      );
    });
    return () => {
      gone = true;
    };
  }, [key, currency]);
  return (
    <>
      <div className="flex h-[41px] shrink-0 items-center gap-3 border-seam border-b px-3.5">
        <h2 className="font-semibold font-slab text-[16px]">Cost by material</h2>
        {missing > 0 ? <p className="text-[13px] text-amber">without {missing} of unknown price</p> : null}
      </div>
      <div
        ref={box}
        role="img"
        aria-label={`Cost by material in ${currency}: ${names.map((name, i) => `${name} ${rule[i]}`).join(", ")}`}
        className="min-h-0 flex-1"
      />
    </>
  );
}
