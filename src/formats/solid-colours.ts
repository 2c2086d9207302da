/** Colours of solids in files for other programs: one for each material, unless a look says another. */
import type { Model, ModelProduct } from "@/core/brep";
import { LOOK_COLOURS } from "@/core/job";
import { at, type LinearColour, linearColour } from "@/core/kernel";

/** For materials that are told apart, from the first on. */
const COLOURS: readonly LinearColour[] = [
  [0.42, 0.45, 0.48],
  [0.62, 0.45, 0.27],
  [0.24, 0.36, 0.47],
  [0.5, 0.56, 0.36],
];

type Coloured = Pick<ModelProduct, "material" | "look">;

/** The colour of each product of a model: that of its look, else of its material. */
export function coloursOf({ products }: Model): (product: Coloured) => LinearColour {
  const colours = new Map<string | null, LinearColour>();
  for (const { material, brep, mesh } of products)
    if ((brep || mesh) && !colours.has(material))
      colours.set(material, at(COLOURS, colours.size % COLOURS.length));
  return ({ material, look }) =>
    look ? linearColour(LOOK_COLOURS[look]) : (colours.get(material) ?? at(COLOURS, 0));
}
