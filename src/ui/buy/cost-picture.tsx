"use client";
/** Cost by stock as a chart: by rule beside by layout. */
import { useDeskState } from "../desk/desk-context";
import { type CostBars, useCostBars } from "./use-cost-bars";

function useBars(): CostBars {
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
  const currency = useDeskState((state) => state.results.quantities.currency);
  const missing = useDeskState((state) => state.results.quantities.byRule.missing);
  const { names, rule, layout } = useBars();
  const box = useCostBars({ names, layout, rule }, currency, { legend: { y: 1.08 } });
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
