/** Colours of solids in files for other programs: one for each material. */
import type { Model } from "@/core/brep";
import { at } from "@/core/kernel";

/** Red, green and blue from 0 to 1, in proportion to light. */
export type LinearColour = readonly [number, number, number];

/** For materials that are told apart, from the first on. */
const COLOURS: readonly LinearColour[] = [
  [0.42, 0.45, 0.48],
  [0.62, 0.45, 0.27],
  [0.24, 0.36, 0.47],
  [0.5, 0.56, 0.36],
];

/** The colours of the materials of a model, null: of what has none. */
export function coloursOf({ products }: Model): ReadonlyMap<string | null, LinearColour> {
  const colours = new Map<string | null, LinearColour>();
  for (const { material, brep, mesh } of products)
    if ((brep || mesh) && !colours.has(material))
      colours.set(material, at(COLOURS, colours.size % COLOURS.length));
  return colours;
}

/** As screens take them (IEC 61966-2-1). */
export const screenColour = (colour: LinearColour): LinearColour => {
  const [r, g, b] = colour.map((value) =>
    value <= 0.0031308 ? 12.92 * value : 1.055 * value ** (1 / 2.4) - 0.055,
  );
  return [r ?? 0, g ?? 0, b ?? 0];
};
