/** An outline out of a drawing as what is set on a panel: its size, its corners, its holes and its cut-outs, as texts in the job's unit. */

import type { LengthUnit } from "../measure";
import { MM_PER_UNIT, roundTo } from "../measure";
import { panelHolesInRows } from "./hole-rows";
import type { OutlineCorner, Panel, Work } from "./panel";
import { textOf } from "./place-text";

/** Millimetres. */
export type CornerPlace = { readonly x: number; readonly y: number; readonly radius: number };

/** In mm from the low corner of its box; corners anticlockwise, each rounded by its radius. */
export type DrawnOutline = {
  readonly length: number;
  readonly width: number;
  readonly corners: readonly CornerPlace[];
  readonly holes: readonly { readonly x: number; readonly y: number; readonly diameter: number }[];
  /** What is cut out of it and is no circle, each as its corners. */
  readonly cutOuts: readonly (readonly CornerPlace[])[];
};

/** Arcs of large radii that run on smoothly from one another cross already where their corners are a micron off. */
const PLACES = 7;

/** What a panel takes from a drawing: grooves stay; holes, cut-outs and notches are those of the drawing. */
export function panelFromDrawing(
  drawn: DrawnOutline,
  panel: Pick<Panel, "between" | "work">,
  unit: LengthUnit,
  newId: () => string,
): Partial<Pick<Panel, "length" | "width" | "outline" | "work">> {
  const text = (mm: number) => textOf(roundTo(mm / MM_PER_UNIT[unit], PLACES));
  const holes = drawn.holes.map(
    ({ x, y, diameter }): Work => ({
      id: newId(),
      kind: "hole",
      face: "good",
      x: text(x),
      y: text(y),
      diameter: text(diameter),
      depth: null,
      count: "1",
      step: "0",
      along: "length",
    }),
  );
  const cutOuts = drawn.cutOuts.map(
    (corners): Work => ({
      id: newId(),
      kind: "cutOut",
      corners: corners.map((corner) => cornerFromLeft(corner, text, newId)),
    }),
  );
  return {
    // The size of a panel that follows two others is theirs to say.
    ...(panel.between ? {} : { length: text(drawn.length), width: text(drawn.width) }),
    outline: drawn.corners.map((corner) => cornerFromLeft(corner, text, newId)),
    work: [
      ...panel.work.filter(({ kind }) => kind === "groove"),
      ...panelHolesInRows(holes, unit),
      ...cutOuts,
    ],
  };
}

/** A corner as it is set: from the left and the front edge. */
export const cornerFromLeft = (
  { x, y, radius }: CornerPlace,
  text: (mm: number) => string,
  newId: () => string,
): OutlineCorner => ({
  id: newId(),
  fromX: "left",
  x: text(x),
  fromY: "front",
  y: text(y),
  radius: text(radius),
});
