/**
 * What is free on a sheet with locked panels: the sheet is parted by cuts that run right across and past the locked
 * panels, each time at the edge of one of them, until every part is free or a locked panel. There are many ways to do it;
 * a few by chance are tried, and large free parts are liked best.
 */
import { at, type Random } from "../../kernel";
import { type CutRect, crossRun, partedRun, ripRun, sameRect, type ToCut } from "./cuts";
import type { FreeRect } from "./fill";

const TRIES = 24;

/** Free parts in inflated coordinates, or null when the locked panels cannot be parted within the stages. */
export function freeParts(
  sheet: CutRect,
  locked: readonly ToCut[],
  { stages, random }: { readonly stages: number; readonly random: Random },
): readonly FreeRect[] | null {
  let best: { readonly parts: readonly FreeRect[]; readonly score: number } | null = null;
  for (let attempt = 0; attempt < TRIES; attempt++) {
    const parts = parted(sheet, locked, { run: 1, stages, random });
    if (!parts) continue;
    // A little noise, so that not the same parts come each time.
    const score =
      parts.reduce((sum, part) => sum + (part.length * part.width) ** 2, 0) * (1 + 0.2 * random.next());
    if (best === null || score > best.score) best = { parts, score };
  }
  return best?.parts ?? null;
}

type Parting = { readonly run: number; readonly stages: number; readonly random: Random };

function parted(region: CutRect, locked: readonly ToCut[], how: Parting): readonly FreeRect[] | null {
  if (region.length <= 0 || region.width <= 0) return [];
  if (locked.length === 0) return [{ ...region, run: how.run }];
  const [only] = locked;
  if (locked.length === 1 && only && sameRect(only, region))
    return partedRun(only, how.run) > how.stages ? null : [];
  const cuts = [...cutsAlong(region, locked, "x"), ...cutsAlong(region, locked, "y")];
  if (cuts.length === 0) return null;
  const cut = at(cuts, how.random.below(cuts.length));
  const run = cut.axis === "y" ? ripRun(how.run) : crossRun(how.run);
  if (run > how.stages) return null;
  const size = cut.axis === "x" ? "length" : "width";
  const low = { ...region, [size]: cut.place - region[cut.axis] };
  const high = { ...region, [cut.axis]: cut.place, [size]: region[cut.axis] + region[size] - cut.place };
  const first = parted(
    low,
    locked.filter((rect) => rect[cut.axis] < cut.place),
    { ...how, run },
  );
  const second =
    first &&
    parted(
      high,
      locked.filter((rect) => rect[cut.axis] >= cut.place),
      { ...how, run },
    );
  return first && second ? [...first, ...second] : null;
}

/** Places of cuts at the edges of locked panels that run past all of them. */
function cutsAlong(
  region: CutRect,
  locked: readonly CutRect[],
  axis: "x" | "y",
): readonly { readonly axis: "x" | "y"; readonly place: number }[] {
  const size = axis === "x" ? "length" : "width";
  const places = new Set(locked.flatMap((rect) => [rect[axis], rect[axis] + rect[size]]));
  return [...places]
    .filter(
      (place) =>
        place > region[axis] &&
        place < region[axis] + region[size] &&
        locked.every((rect) => place <= rect[axis] || place >= rect[axis] + rect[size]),
    )
    .map((place) => ({ axis, place }));
}
