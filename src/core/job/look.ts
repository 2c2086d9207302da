/** Looks: the colour that a piece is shown in, whatever it is made of. Lists and layouts know nothing of it. */
import * as v from "valibot";

export const LOOKS = [
  "chalk white",
  "slate",
  "coal",
  "brick",
  "straw",
  "leaf green",
  "sea blue",
  "plum",
] as const;
export const look = v.nullable(v.picklist(LOOKS));
export type Look = (typeof LOOKS)[number];

/** As pictures and files for other programs mix them. */
export const LOOK_COLOURS: Readonly<Record<Look, string>> = {
  "chalk white": "#f7f6f0",
  slate: "#8d9899",
  coal: "#4b4f50",
  brick: "#c4745c",
  straw: "#e6cf83",
  "leaf green": "#8fb07a",
  "sea blue": "#84a9c4",
  plum: "#9a7a96",
};
