/**
 * HL-204: a potting bench for the allotment. Welded square tube with a mitred top ring on two front
 * legs, rear legs behind it with round posts and a hanging rail coped between them, angle rails that carry
 * larch slats, a plywood top, a loose tray and a drawer on runners under the ring.
 */

import { buttEnd, copeEnd, type Job, type JobParts, mitreEnd, newJob } from "@/core/job";
import { drawerPanels } from "./drawer-box";

type Points = NonNullable<JobParts["points"]>;
type Members = NonNullable<JobParts["members"]>;

const left = "tube/2";
const right = "width - tube/2";
const front = "tube/2";
const ringBack = "depth - tube/2";
const postLine = "depth + tube/2";
const ringHeight = "height - tube/2";
/** The upper face of the low rails, on which the slats lie. */
const railTop = "shelf_height + tube/2";

const points: Points = {
  P1: [left, front, "0"],
  P2: [right, front, "0"],
  P3: [left, front, ringHeight],
  P4: [right, front, ringHeight],
  P5: [right, ringBack, ringHeight],
  P6: [left, ringBack, ringHeight],
  P7: [left, postLine, "0"],
  P8: [right, postLine, "0"],
  P9: [left, postLine, "height"],
  P10: [right, postLine, "height"],
  P11: [left, front, "shelf_height"],
  P12: [right, front, "shelf_height"],
  P13: [right, postLine, "shelf_height"],
  P14: [left, postLine, "shelf_height"],
  P15: ["width/3", front, railTop],
  P16: ["width/3", postLine, railTop],
  P17: ["width*2/3", front, railTop],
  P18: ["width*2/3", postLine, railTop],
  P19: [left, postLine, "post_height"],
  P20: [right, postLine, "post_height"],
  P21: [left, postLine, "post_height - 80"],
  P22: [right, postLine, "post_height - 80"],
};

const tube = "sht-40-3";
const frame: Members = {
  legLeft: { name: "Front leg", from: "P1", to: "P3", section: tube, end: buttEnd("ringFront") },
  legRight: { name: "Front leg", from: "P2", to: "P4", section: tube, end: buttEnd("ringFront") },
  postLeft: { name: "Rear leg", from: "P7", to: "P9", section: tube },
  postRight: { name: "Rear leg", from: "P8", to: "P10", section: tube },
  ringFront: {
    name: "Top rail",
    from: "P3",
    to: "P4",
    section: tube,
    start: mitreEnd("ringLeft"),
    end: mitreEnd("ringRight"),
  },
  ringRight: {
    name: "Top end rail",
    from: "P4",
    to: "P5",
    section: tube,
    start: mitreEnd("ringFront"),
    end: mitreEnd("ringBack"),
  },
  ringBack: {
    name: "Top rail",
    from: "P5",
    to: "P6",
    section: tube,
    start: mitreEnd("ringRight"),
    end: mitreEnd("ringLeft"),
  },
  ringLeft: {
    name: "Top end rail",
    from: "P6",
    to: "P3",
    section: tube,
    start: mitreEnd("ringBack"),
    end: mitreEnd("ringFront"),
  },
  lowFront: {
    name: "Low rail",
    from: "P11",
    to: "P12",
    section: tube,
    start: buttEnd("legLeft"),
    end: buttEnd("legRight"),
  },
  lowBack: {
    name: "Low rail",
    from: "P13",
    to: "P14",
    section: tube,
    start: buttEnd("postRight"),
    end: buttEnd("postLeft"),
  },
  lowRight: {
    name: "Low end rail",
    from: "P12",
    to: "P13",
    section: tube,
    start: buttEnd("legRight"),
    end: buttEnd("postRight"),
  },
  lowLeft: {
    name: "Low end rail",
    from: "P14",
    to: "P11",
    section: tube,
    start: buttEnd("postLeft"),
    end: buttEnd("legLeft"),
  },
};

/** Round posts on the rear legs, with the hanging rail coped between them. */
const hanger: Members = {
  roundLeft: { name: "Rear post", from: "P9", to: "P19", section: "cht-48-3" },
  roundRight: { name: "Rear post", from: "P10", to: "P20", section: "cht-48-3" },
  hangingRail: {
    name: "Hanging rail",
    from: "P21",
    to: "P22",
    section: "cht-33-3",
    start: copeEnd("roundLeft"),
    end: copeEnd("roundRight"),
  },
};

/** Angle rails under the slats: the flat leg up, level with the top of the low rails. */
const shelfRails: Members = {
  shelfLeft: {
    name: "Shelf rail",
    from: "P15",
    to: "P16",
    section: "ea-30-3",
    roll: "180",
    cardinal: 2,
    start: buttEnd("lowFront"),
    end: buttEnd("lowBack"),
  },
  shelfRight: {
    name: "Shelf rail",
    from: "P17",
    to: "P18",
    section: "ea-30-3",
    roll: "180",
    cardinal: 2,
    start: buttEnd("lowFront"),
    end: buttEnd("lowBack"),
  },
};

const slatHeight = "shelf_height + tube/2 + 9";
const slatPlace = (i: number) => `tube + 54 + ${i}*(depth - tube - 108)/4`;
const slatPoints: Points = Object.fromEntries(
  [0, 1, 2, 3, 4].flatMap((i) => [
    [`S${2 * i + 1}`, ["10", slatPlace(i), slatHeight]],
    // The last one was typed by hand once and is 2.5 short: the tally finds it.
    [`S${2 * i + 2}`, [i === 4 ? "width - 12.5" : "width - 10", slatPlace(i), slatHeight]],
  ]),
);
const slats: Members = Object.fromEntries(
  [0, 1, 2, 3, 4].map((i) => [
    `slat${i + 1}`,
    { name: "Shelf slat", from: `S${2 * i + 1}`, to: `S${2 * i + 2}`, section: "larch-88-18" },
  ]),
);

const trayGroove = {
  kind: "groove",
  face: "other",
  from: "back",
  distance: "8",
  width: "12",
  depth: "5",
} as const;
const trayDepth = "340";
const trayLength = "500";
const trayHeight = "90";
const trayFloor = "height + 21";

export function pottingBench(): Job {
  return newJob({
    info: { code: "HL-204", title: "Potting bench" },
    keySizes: {
      width: { formula: "1400", least: "900", greatest: "2200", note: "top ring, over all" },
      depth: { formula: "600", least: "450", greatest: "800", note: "top ring, over all" },
      height: { formula: "850", least: "700", greatest: "1000", note: "upper face of the ring" },
      post_height: { formula: "height + 650", note: "round posts, top" },
      shelf_height: {
        formula: "180",
        least: "100",
        greatest: "height - 300",
        note: "middle of the low rails",
      },
      with_tray: { formula: "yes", measure: "yesNo", note: "loose tray on the top" },
      drawers: {
        formula: "1",
        measure: "number",
        least: "0",
        greatest: "2",
        note: "side by side under the ring",
      },
      drawer_width: { formula: "400", least: "250", greatest: "width/2 - 60" },
      tube: { formula: "40", locked: true, note: "side of the square tube" },
    },
    variants: [
      { id: "narrow", name: "1000 wide", formulas: { width: "1000" } },
      { id: "tall", name: "1400 wide, standing", formulas: { height: "950" } },
    ],
    points: {
      ...points,
      ...slatPoints,
      G1: ["width - 10", slatPlace(0), slatHeight],
      G2: ["width - 10", slatPlace(4), slatHeight],
    },
    members: { ...frame, ...hanger, ...shelfRails, ...slats },
    guides: { "slat-ends": ["G1", "G2"] },
    panels: {
      top: {
        name: "Worktop",
        board: "ext-ply-21",
        origin: ["-10", "-20", "height"],
        lengthAxis: ["1", "0", "0"],
        faceAxis: ["0", "0", "1"],
        length: "width + 20",
        // It ends before the round posts, which stand 4.15 into the ring.
        width: "depth + 12",
        goodFace: true,
        edging: { front: "birch-edge-1" },
      },
      trayFloor: {
        name: "Tray floor",
        when: "with_tray",
        board: "birch-ply-12",
        origin: ["77", "57", `${trayFloor} + 8`],
        lengthAxis: ["1", "0", "0"],
        faceAxis: ["0", "0", "1"],
        length: `${trayLength} - 14`,
        width: `${trayDepth} - 14`,
      },
      traySideLeft: {
        name: "Tray side",
        when: "with_tray",
        board: "birch-ply-12",
        origin: ["82", "50", `${trayFloor} + ${trayHeight}`],
        lengthAxis: ["0", "1", "0"],
        faceAxis: ["-1", "0", "0"],
        length: trayDepth,
        width: trayHeight,
        goodFace: true,
        edging: { front: "iron-on" },
        work: [{ ...trayGroove, id: "g1", stopAtStart: "7", stopAtEnd: "0" }],
      },
      traySideRight: {
        name: "Tray side",
        when: "with_tray",
        board: "birch-ply-12",
        origin: [`${trayLength} + 58`, `50 + ${trayDepth}`, `${trayFloor} + ${trayHeight}`],
        lengthAxis: ["0", "-1", "0"],
        faceAxis: ["1", "0", "0"],
        length: trayDepth,
        width: trayHeight,
        goodFace: true,
        edging: { front: "iron-on" },
        work: [{ ...trayGroove, id: "g2", stopAtStart: "0", stopAtEnd: "7" }],
      },
      trayFront: {
        name: "Tray front",
        when: "with_tray",
        board: "birch-ply-12",
        origin: [`${trayLength} + 58`, "62", `${trayFloor} + ${trayHeight}`],
        lengthAxis: ["-1", "0", "0"],
        faceAxis: ["0", "-1", "0"],
        length: `${trayLength} - 24`,
        width: trayHeight,
        goodFace: true,
        edging: { front: "iron-on" },
        work: [{ ...trayGroove, id: "g3", stopAtStart: "0", stopAtEnd: "0" }],
      },
      trayBack: {
        name: "Tray back",
        when: "with_tray",
        board: "birch-ply-12",
        origin: ["82", `38 + ${trayDepth}`, `${trayFloor} + ${trayHeight}`],
        lengthAxis: ["1", "0", "0"],
        faceAxis: ["0", "1", "0"],
        length: `${trayLength} - 24`,
        width: trayHeight,
        goodFace: true,
        edging: { front: "iron-on" },
        work: [{ ...trayGroove, id: "g4", stopAtStart: "0", stopAtEnd: "0" }],
      },
    },
    assemblies: {
      drawer: {
        name: "Drawer",
        usual: { board: "birch-ply-12" },
        panels: drawerPanels("drawer", { width: "drawer_width", depth: "400", height: "110" }, "birch-ply-6"),
        boughtParts: {
          runners: {
            name: "Drawer runners",
            entry: "runner-400",
            count: "1",
            stand: {
              at: ["drawer_width/2", "200", "110"],
              turn: ["0", "0", "0"],
              step: ["0", "0", "0"],
              as: { kind: "box", size: ["drawer_width + 26", "400", "10"] },
            },
          },
        },
      },
    },
    placements: {
      drawersUnderRing: {
        assembly: "drawer",
        at: ["width/2 - drawers*(drawer_width + 40)/2 + 20", "60", "height - 165"],
        count: "drawers",
        step: ["drawer_width + 40", "0", "0"],
      },
    },
    boughtParts: {
      castors: { name: "Castor", entry: "castor-80", count: "2", note: "round posts, top" },
      feet: { name: "Adjustable foot", entry: "foot-m10", count: "2", note: "front legs" },
      screws: { name: "Slat and top screws", entry: "screw-5x40", count: "5*8 + 12", note: "" },
      chain: {
        when: "with_tray",
        name: "Tray chain",
        entry: "chain-4",
        count: "2",
        length: "depth/2",
        note: "keeps the tray from sliding off",
      },
    },
  });
}
