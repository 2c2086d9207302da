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
