/** Ends in a word, for tests. */
import type { Vec2 } from "../geometry";
import type { End, PlaneEnd } from "./end";

export const planeEnd = (slope: Vec2): PlaneEnd => ({ kind: "plane", slope });

/** The slope of an end that has to be plane. */
export function slopeOf(end: End | undefined): Vec2 {
  if (end?.kind !== "plane") throw new Error(`the end is ${end?.kind}, not plane`);
  return end.slope;
}
