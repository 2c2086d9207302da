/**
 * Colours of a file as looks. Where a file has one colour for each material, the material says it; where pieces of one material have
 * different colours, the most frequent one is that of the material, and the others are the looks that come nearest.
 */
import { LOOK_COLOURS, LOOKS, type Look } from "../job";
import { colourDistance, grouped, type LinearColour, linearColour } from "../kernel";
import { type FoundFile, timesOf } from "./found";

const PALETTE = LOOKS.map((look) => ({ look, colour: linearColour(LOOK_COLOURS[look]) }));

/** The look that comes nearest to a colour. */
const nearestLook = (colour: LinearColour): Look =>
  PALETTE.reduce((best, one) =>
    colourDistance(one.colour, colour) < colourDistance(best.colour, colour) ? one : best,
  ).look;

/** Colours that look nearer to one another than this are one. */
const SAME = 3;

/** The look of each part by its key; those that are not in it look as their material. */
export function looksOf(file: FoundFile): ReadonlyMap<string, Look> {
  const times = timesOf(file);
  const coloured = file.products.flatMap(({ id, material, parts }) =>
    parts.flatMap(({ key, colour }) =>
      colour ? [{ key, colour, material, count: times.get(id) ?? 0 }] : [],
    ),
  );
  const looks = new Map<string, Look>();
  for (const own of grouped(coloured, ({ material }) => material).values()) {
    const shades: { readonly colour: LinearColour; readonly keys: string[]; count: number }[] = [];
    for (const { key, colour, count } of own) {
      const shade = shades.find((one) => colourDistance(one.colour, colour) < SAME);
      if (shade) {
        shade.keys.push(key);
        shade.count += count;
      } else shades.push({ colour, keys: [key], count });
    }
    const [, ...others] = shades.toSorted((a, b) => b.count - a.count);
    for (const { colour, keys } of others) for (const key of keys) looks.set(key, nearestLook(colour));
  }
  return looks;
}
