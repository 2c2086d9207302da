/**
 * HL-207: a cabinet for seed packets. A plywood carcass with grooved, handed sides, a shelf that follows
 * them, rows of small drawers whose number is a key size, and two doors, the right one the mirror image of the left.
 */
import { type AssemblyParts, type Groove, type Hole, type Job, newJob, type PanelParts } from "@/core/job";
import { LIST_STARTS, startList } from "@/core/lists";
import { drawerPanels } from "./drawer-box";

const X: [string, string, string] = ["1", "0", "0"];
const UP: [string, string, string] = ["0", "0", "1"];
const DOWN: [string, string, string] = ["0", "0", "-1"];
const LEFT: [string, string, string] = ["-1", "0", "0"];
const FRONT: [string, string, string] = ["0", "-1", "0"];

const main = "birch-ply-18";
const thin = "birch-ply-12";
const rear = "birch-ply-6";

const groove = (
  id: string,
  from: Groove["from"],
  distance: string,
  width: string,
  more: Partial<Groove> = {},
): Groove => ({
  id,
  kind: "groove",
  face: "good",
  from,
  distance,
  width,
  depth: "housing",
  stopAtStart: "0",
  stopAtEnd: "0",
  ...more,
});

const hole = (id: string, x: string, y: string, diameter: string, more: Partial<Hole> = {}): Hole => ({
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
  ...more,
});

/** Holes for the pins that carry the rows, at the front and at the back. */
const pins = (first: string): readonly Hole[] =>
  [
    ["front", "37"],
    ["back", "depth - 60"],
  ].map(([id = "", y = ""]) =>
    hole(`pin-${id}`, first, y, "5", { depth: "11", count: "rows", step: "pitch" }),
  );

/** Seen on its inside face the left side's left end is its top, the right side's its foot. */
function side(which: "left" | "right"): PanelParts {
  const [foot, top] = which === "left" ? (["right", "left"] as const) : (["left", "right"] as const);
  const first = which === "left" ? "board + pitch + 2.5" : "doors_top - 2.5";
  return {
    name: "Side",
    board: main,
    origin: which === "left" ? ["0", "0", "height"] : ["width", "0", "0"],
    lengthAxis: which === "left" ? DOWN : UP,
    faceAxis: which === "left" ? X : LEFT,
    length: "height",
    width: "depth",
    goodFace: true,
    edging: { front: "birch-edge-1" },
    work: [
      groove("top", top, "0", "board"),
      groove("foot", foot, "0", "board"),
      groove("shelf", foot, "shelf_height", "board", { stopAtStart: "20" }),
      groove("rear", "back", "10", "6"),
      ...pins(first),
    ],
  };
}

const level = (name: string, z: string): PanelParts => ({
  name,
  board: main,
  origin: ["board - housing", "0", z],
  lengthAxis: X,
  faceAxis: UP,
  length: "inside + 2*housing",
  width: "depth",
  edging: { front: "birch-edge-1" },
  work: [groove("rear", "back", "10", "6", { face: name === "Top" ? "other" : "good" })],
});

const door: AssemblyParts = {
  name: "Door",
  panels: {
    doorLeaf: {
      name: "Door leaf",
      board: main,
      origin: ["door_width", "0", "0"],
      lengthAxis: UP,
      faceAxis: FRONT,
      length: "doors_top - 4",
      width: "door_width",
      goodFace: true,
      edging: {
        front: "birch-edge-1",
        back: "birch-edge-1",
        left: "birch-edge-1",
        right: "birch-edge-1",
      },
      work: [
        hole("hinge", "100", "door_width - 22.5", "35", {
          face: "other",
          depth: "12.5",
          count: "2",
          step: "doors_top - 204",
        }),
        hole("knob", "doors_top - 64", "40", "5"),
      ],
    },
  },
  boughtParts: {
    hinge: { name: "Cup hinge", entry: "hinge-35", count: "2" },
    doorKnob: {
      name: "Knob",
      entry: "knob-25",
      count: "1",
      stand: {
        at: ["door_width - 40", "0 - board", "doors_top - 64"],
        turn: ["90", "0", "0"],
        step: ["0", "0", "0"],
        as: { kind: "cylinder", diameter: "25", height: "22" },
      },
    },
  },
};

const drawer: AssemblyParts = {
  name: "Drawer",
  usual: { board: thin },
  look: "straw",
  panels: drawerPanels(
    "drawer",
    { width: "drawer_width", depth: "drawer_depth", height: "drawer_height" },
    rear,
  ),
  boughtParts: {
    drawerKnob: {
      name: "Knob",
      entry: "knob-25",
      count: "1",
      stand: {
        at: ["drawer_width/2", "0", "drawer_height*0.4"],
        turn: ["90", "0", "0"],
        step: ["0", "0", "0"],
        as: { kind: "cylinder", diameter: "25", height: "22" },
      },
    },
    labelFrame: {
      name: "Label frame",
      entry: "label-frame",
      count: "1",
      look: "coal",
      stand: {
        at: ["drawer_width/2", "0 - 1.5", "drawer_height*0.55"],
        turn: ["0", "0", "0"],
        step: ["0", "0", "0"],
        as: { kind: "box", size: ["60", "3", "24"] },
      },
    },
  },
};

export function seedPacketCabinet(): Job {
  return newJob({
    info: { code: "HL-207", title: "Seed-packet cabinet" },
    keySizes: {
      width: { formula: "620", least: "450", greatest: "900", note: "over all", asked: true },
      height: { formula: "900", least: "700", greatest: "1600", note: "over all", asked: true },
      depth: { formula: "320", least: "250", greatest: "420", note: "without the doors" },
      rows: {
        formula: "4",
        measure: "number",
        least: "1",
        greatest: "6",
        note: "rows of drawers",
        asked: true,
      },
      columns: { formula: "3", measure: "number", least: "1", greatest: "5", note: "drawers in a row" },
      doors: {
        formula: "double",
        measure: "choice",
        choices: ["double", "none"],
        note: "below the drawers",
        asked: true,
      },
      row_height: { formula: "90", least: "60", greatest: "140", note: "clear, in each row" },
      shelf_height: { formula: "doors_top / 2", note: "lower shelf, its underside" },
      board: { formula: "18", locked: true, note: "thickness of the carcass" },
      housing: { formula: "6", locked: true, note: "depth of the grooves" },
      inside: { formula: "width - 2*board", note: "clear between the sides" },
      pitch: { formula: "row_height + 12", note: "from row to row" },
      doors_top: {
        formula: "height - board - rows*pitch",
        least: "200",
        note: "underside of the lowest row",
      },
      door_width: { formula: "width/2 - 2", note: "each" },
      drawer_width: { formula: "(inside - 2*(columns + 1)) / columns" },
      drawer_depth: { formula: "depth - 50" },
      drawer_height: { formula: "row_height - 8" },
    },
    lists: LIST_STARTS.slice(1, 3).map((start, i) => startList(start, `list-${i}`, start.name, i)),
    variants: [
      { id: "tall", name: "1200 high, six rows", formulas: { height: "1200", rows: "6" } },
      { id: "open", name: "open below", formulas: { doors: "none" } },
    ],
    panels: {
      sideLeft: side("left"),
      sideRight: side("right"),
      bottom: level("Bottom", "0"),
      topPanel: level("Top", "height - board"),
      shelf: {
        name: "Shelf",
        board: main,
        edging: { front: "birch-edge-1" },
        between: {
          first: "sideLeft",
          second: "sideRight",
          reachFirst: "housing",
          reachSecond: "housing",
          runs: "width",
          distance: "height - shelf_height - board",
          insetStart: "20",
          insetEnd: "16",
        },
      },
      rearPanel: {
        name: "Back",
        board: rear,
        origin: ["width - board + housing", "depth - 10", "board - housing"],
        lengthAxis: UP,
        faceAxis: FRONT,
        length: "height - 2*board + 2*housing",
        width: "inside + 2*housing",
      },
    },
    boughtParts: {
      screws: { name: "Screws", entry: "screw-5x40", count: '8 * count("Drawer") + 4 * count("Door")' },
    },
    assemblies: {
      door,
      drawer,
      row: {
        name: "Row",
        panels: {
          rowShelf: {
            name: "Row shelf",
            board: thin,
            origin: ["0.5", "0", "0"],
            lengthAxis: X,
            faceAxis: UP,
            length: "inside - 1",
            width: "depth - 36",
            edging: { front: "birch-edge-1" },
          },
        },
        boughtParts: { shelfPins: { name: "Shelf pin", entry: "shelf-pin-5", count: "4" } },
      },
    },
    placements: {
      doorLeft: { assembly: "door", at: ["1", "-2", "2"], when: 'doors == "double"' },
      doorRight: {
        assembly: "door",
        at: ["width - 1", "-2", "2"],
        mirror: "width",
        when: 'doors == "double"',
      },
      drawersInRow: {
        assembly: "drawer",
        into: "row",
        at: ["2", "2", "13"],
        count: "columns",
        step: ["drawer_width + 2", "0", "0"],
      },
      rowsInCabinet: {
        assembly: "row",
        at: ["board", "18", "doors_top"],
        count: "rows",
        step: ["0", "0", "pitch"],
      },
    },
  });
}
