/** How wide texts are, the same for the screen and for every file, since all of them use the fonts that ship with the product. */
import type { Face } from "./face";
import { FONT_WIDTHS } from "./font-widths";

const FACES = Object.keys(FONT_WIDTHS) as readonly Face[];

/** The widths of a face by the codes of its signs, in thousandths of the size. */
const widths = Object.fromEntries(
  FACES.map((face) => [
    face,
    new Map(FONT_WIDTHS[face].flatMap(([first, run]) => run.map((width, i) => [first + i, width] as const))),
  ]),
) as unknown as Readonly<Record<Face, ReadonlyMap<number, number>>>;

const UNKNOWN = "?".charCodeAt(0);

/** The width of a text at a size, in the unit of the size; without kerning, so at most some hundredths too wide. */
export function textWidth(text: string, size: number, face: Face): number {
  const known = widths[face];
  let sum = 0;
  for (const sign of text) sum += known.get(sign.codePointAt(0) ?? UNKNOWN) ?? known.get(UNKNOWN) ?? 0;
  return (sum * size) / 1000;
}
