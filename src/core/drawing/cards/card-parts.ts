/** What all parts of a card are drawn with. */
import type { Vec2 } from "../../geometry";
import { CAPITAL_HEIGHT, type DrawItem, type Stroke } from "../display";

export const WIDE: Stroke = { ink: "ink", width: 0.4 };
export const NARROW: Stroke = { ink: "ink", width: 0.2 };
export const THIN: Stroke = { ink: "ink", width: 0.13 };
/** mm. The least letters of ISO 3098, and the size of the type that has them. */
export const LETTERS = 2.5;
export const SIZE = LETTERS / CAPITAL_HEIGHT;

/** A small word about its middle, which may be turned. */
export const smallWord = (at: Vec2, text: string, ink: "ink" | "soft", turn?: number): DrawItem => ({
  kind: "text",
  at,
  text,
  size: SIZE * 0.9,
  face: "condensed",
  align: "centre",
  ink,
  layer: "TEXTS",
  ...(turn === undefined ? {} : { turn }),
});
