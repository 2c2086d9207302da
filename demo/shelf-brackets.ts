/**
 * HL-214: wall brackets for the shelves of a seed store, twelve alike. An arm of square tube butts against an upright; a gusset
 * with snipped corners stands in between, a lug hangs under the end of the arm, and a plate with rounded corners and four holes
 * goes against the wall. The plates are cut along their outlines.
 */
import { buttEnd, type Job, newJob, type OutlineCorner } from "@/core/job";

const tube = "sht-40-3";
const plate = "plate-6";

type Edge = readonly ["left" | "right", string, "front" | "back", string];
const corners = (...all: readonly (readonly [Edge, string?])[]): OutlineCorner[] =>
  all.map(([[fromX, x, fromY, y], radius = "0"], i) => ({ id: `c${i + 1}`, fromX, x, fromY, y, radius }));

export function shelfBrackets(): Job {
  return newJob({
    info: { code: "HL-214", title: "Shelf brackets for a seed store", batch: 12 },
    keySizes: {
      reach: {
        formula: "320 mm",
        least: "180 mm",
        greatest: "600 mm",
        note: "from the wall to the end of the arm",
      },
      height: { formula: "300 mm", least: "200 mm", greatest: "600 mm", note: "of the upright" },
      gusset: { formula: "max(100 mm, reach * 0.4)", note: "along the arm and down the upright" },
      tube: { formula: "40 mm", locked: true, note: "side of the tube" },
    },
    variants: [{ id: "deep", name: "For deep shelves", formulas: { reach: "440 mm", height: "380 mm" } }],
    points: {
      U1: ["tube/2", "0", "0"],
      U2: ["tube/2", "0", "height"],
      A1: ["tube/2", "0", "height - tube/2"],
      A2: ["reach", "0", "height - tube/2"],
    },
    members: {
      upright: { name: "Upright", from: "U1", to: "U2", section: tube },
      arm: { name: "Arm", from: "A1", to: "A2", section: tube, start: buttEnd("upright") },
    },
    panels: {
      gusset: {
        name: "Gusset",
        board: plate,
        origin: ["tube", "-3", "height - tube"],
        faceAxis: ["0", "1", "0"],
        length: "gusset",
        width: "gusset",
        grain: "any",
        outline: corners(
          [["left", "12 mm", "front", "0"]],
          [["right", "0", "front", "0"]],
          [["right", "0", "front", "20 mm"]],
          [["left", "20 mm", "back", "0"]],
          [["left", "0", "back", "0"]],
          [["left", "0", "front", "12 mm"]],
        ),
      },
      lug: {
        name: "Lug",
        board: plate,
        origin: ["reach - 50 mm", "-3", "height - tube"],
        faceAxis: ["0", "1", "0"],
        length: "40 mm",
        width: "55 mm",
        grain: "any",
        outline: corners(
          [["left", "0", "front", "0"]],
          [["right", "0", "front", "0"]],
          [["right", "0", "back", "0"], "20 mm"],
          [["left", "0", "back", "0"], "20 mm"],
        ),
        work: [hole("lug-hole", "20 mm", "35 mm", "11 mm")],
      },
      wallPlate: {
        name: "Wall plate",
        board: plate,
        origin: ["0", "-50", "-30"],
        lengthAxis: ["0", "0", "1"],
        faceAxis: ["-1", "0", "0"],
        length: "height + 60 mm",
        width: "100 mm",
        grain: "any",
        outline: corners(
          [["left", "0", "front", "0"], "15 mm"],
          [["right", "0", "front", "0"], "15 mm"],
          [["right", "0", "back", "0"], "15 mm"],
          [["left", "0", "back", "0"], "15 mm"],
        ),
        work: [
          { ...hole("holes-front", "15 mm", "15 mm", "9 mm"), count: "2", step: "height + 30 mm" },
          { ...hole("holes-back", "15 mm", "85 mm", "9 mm"), count: "2", step: "height + 30 mm" },
        ],
      },
    },
    boughtParts: { screws: { name: "Wall screw", entry: "screw-5x40", count: "4" } },
  });
}

/** One hole right through. */
const hole = (id: string, x: string, y: string, diameter: string) =>
  ({
    id,
    kind: "hole",
    face: "good",
    x,
    y,
    diameter,
    depth: null,
    count: "1",
    step: "0",
    along: "length",
  }) as const;
