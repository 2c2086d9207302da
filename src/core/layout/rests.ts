/** What a layout leaves over that is worth keeping in the rack. */
import { byKey, byNumber, reversed } from "../kernel";
import type { KeptLayout } from "./kept";

export type Rest = { readonly length: number; readonly width: number | null };

/** Rests no smaller than the least one worth keeping, the largest first; with no such size said, none is kept. */
export function restsToKeep({ problem, layout }: KeptLayout): readonly Rest[] {
  if (problem.keep <= 0) return [];
  const rests: Rest[] =
    "bars" in layout
      ? layout.bars.flatMap((bar) =>
          bar.remainder >= problem.keep
            ? Array.from({ length: bar.times }, () => ({ length: bar.remainder, width: null }))
            : [],
        )
      : layout.sheets.flatMap((sheet) =>
          sheet.offcuts
            .filter((rest) => Math.min(rest.length, rest.width) >= problem.keep)
            .map(({ length, width }) => ({ length, width })),
        );
  return rests.sort(reversed(byKey((rest: Rest) => rest.length * (rest.width ?? 1), byNumber)));
}
