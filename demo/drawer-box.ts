/** The five panels of a drawer box in 12 mm board with a floor in grooves, its lower front left corner at the origin. */
import type { Groove, PanelParts } from "@/core/job";

export type DrawerSizes = { readonly width: string; readonly depth: string; readonly height: string };

const X: [string, string, string] = ["1", "0", "0"];
const LEFT: [string, string, string] = ["-1", "0", "0"];
const BACK: [string, string, string] = ["0", "1", "0"];
const FRONT: [string, string, string] = ["0", "-1", "0"];

/** Upright panels stand on their front edge: the groove for the floor runs near it on the inside. */
const floorGroove: Groove = {
  id: "floor",
  kind: "groove",
  face: "good",
  from: "front",
  distance: "8",
  width: "6",
  depth: "5",
  stopAtStart: "0",
  stopAtEnd: "0",
};

/** Ids carry `prefix`, so that a job may hold several drawers. */
export function drawerPanels(
  prefix: string,
  { width, depth, height }: DrawerSizes,
  floor: string,
): Readonly<Record<string, PanelParts>> {
  const wall = (
    name: string,
    [origin, lengthAxis, faceAxis]: readonly [PanelParts["origin"], typeof X, typeof X],
    length: string,
  ): PanelParts => ({
    name,
    board: null,
    ...(origin ? { origin } : {}),
    lengthAxis,
    faceAxis,
    length,
    width: height,
    work: [floorGroove],
  });
  const clear = `${width} - 24`;
  return {
    [`${prefix}Left`]: wall("Drawer side", [["0", "0", "0"], BACK, X], depth),
    [`${prefix}Right`]: wall("Drawer side", [[width, depth, "0"], FRONT, LEFT], depth),
    [`${prefix}Front`]: wall("Drawer front", [[`${width} - 12`, "0", "0"], LEFT, BACK], clear),
    [`${prefix}Back`]: wall("Drawer back", [["12", depth, "0"], X, FRONT], clear),
    [`${prefix}Floor`]: {
      name: "Drawer bottom",
      board: floor,
      origin: ["7", "7", "8"],
      length: `${width} - 14`,
      width: `${depth} - 14`,
    },
  };
}
