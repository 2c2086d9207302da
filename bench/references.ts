/** Simple rules to stand beside: first-fit decreasing on bars, shelves on sheets. Not used by the product. */
import type { BarProblem } from "@/core/layout/bars";
import type { SheetProblem } from "@/core/layout/sheets";

/** First-fit decreasing on the single bar length, of those without limit, that comes out cheapest. */
export function firstFitBars({ kerf, trim, stock, pieces }: BarProblem): {
  readonly count: number;
  readonly cost: number | null;
} {
  const trims = typeof trim === "number" ? 2 * trim : trim.start + trim.end;
  const lengths = pieces
    .flatMap((piece) => Array.from({ length: piece.qty }, () => piece.length))
    .sort((a, b) => b - a);
  let best: { count: number; cost: number | null } | null = null;
  for (const bar of stock.filter(({ count }) => count === null)) {
    const rests: number[] = [];
    const usable = bar.length - trims + kerf;
    if ((lengths[0] ?? 0) + kerf > usable) continue;
    for (const length of lengths) {
      const at = rests.findIndex((rest) => rest >= length + kerf - 1e-6);
      if (at < 0) rests.push(usable - length - kerf);
      else rests[at] = (rests[at] ?? 0) - length - kerf;
    }
    const cost = bar.price === null ? null : Math.round(rests.length * bar.price * 100) / 100;
    if (best === null || (cost ?? rests.length) < (best.cost ?? best.count))
      best = { count: rests.length, cost };
  }
  return best ?? { count: 0, cost: null };
}

/** Shelves, tallest first, on the first sheet size. */
export function shelfSheets({ kerf, trim, stock, panels }: SheetProblem): number {
  const sheet = stock[0];
  if (!sheet) return 0;
  const [length, width] = [sheet.length - 2 * trim + kerf, sheet.width - 2 * trim + kerf];
  const all = panels
    .flatMap((panel) =>
      Array.from({ length: panel.qty }, () => [panel.length + kerf, panel.width + kerf] as const),
    )
    .sort((a, b) => b[1] - a[1]);
  type Shelf = { room: number; readonly height: number };
  const sheets: { room: number; readonly shelves: Shelf[] }[] = [];
  for (const [l, w] of all) {
    const shelf = sheets.flatMap((one) => one.shelves).find((one) => one.room >= l && one.height >= w);
    if (shelf) {
      shelf.room -= l;
      continue;
    }
    let home = sheets.find((one) => one.room >= w);
    if (!home) {
      home = { room: width, shelves: [] };
      sheets.push(home);
    }
    home.room -= w;
    home.shelves.push({ room: length - l, height: w });
  }
  return sheets.length;
}
