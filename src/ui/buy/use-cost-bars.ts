"use client";
/** Costs as lying bars: from the layouts beside net with waste, in one look for all charts. */
import { type RefObject, useEffect, useRef } from "react";

export type CostBars = {
  readonly names: readonly string[];
  readonly layout: readonly (number | null)[];
  readonly rule: readonly (number | null)[];
};

type Look = {
  /** Of the chart itself, over what all have. */
  readonly layout?: Readonly<Record<string, unknown>>;
  readonly yaxis?: Readonly<Record<string, unknown>>;
  readonly legend: Readonly<Record<string, unknown>>;
};

/** Draws them into a box whenever they change; `look` does not. */
export function useCostBars(
  { names, layout, rule }: CostBars,
  currency: string,
  look: Look,
): RefObject<HTMLDivElement | null> {
  const box = useRef<HTMLDivElement>(null);
  const key = JSON.stringify([names, layout, rule]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: `key` stands for the lists, which are new at each render
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    let gone = false;
    // The chart package is large and needs a document: it is fetched when a chart is opened.
    void import("plotly.js-basic-dist-min").then(({ default: Plotly }) => {
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
          yaxis: { ...axis, ...look.yaxis },
          legend: { orientation: "h", traceorder: "reversed", ...look.legend },
          bargap: 0.35,
          ...look.layout,
        },
        { displayModeBar: false, responsive: true },
      );
    });
    return () => {
      gone = true;
    };
  }, [key, currency]);
  return box;
}
