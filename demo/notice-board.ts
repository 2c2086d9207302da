/**
 * HL-211: a notice board on two legs, drawn in inches with fractions. Two legs and two cross rails of
 * square tube with knee braces, a plywood board, and a frame of nominal 1 × 6 boards mitred round it.
 */
import { buttEnd, type Job, mitreEnd, newJob } from "@/core/job";

const tube = "sht-2.5in";
const cedar = "board-1x6";
const legRight = "board_width + 4 + tube";
const frameIn = "tube/2 + 2 + 2.75";
const low = "rail_height + 2.75";
const high = "rail_height + board_height - 2.75";
const rightEdge = "tube/2 + 2 + board_width - 2.75";
const face = "0 - tube/2 - 0.75 - 0.375";

export function noticeBoard(): Job {
  return newJob({
    info: {
      code: "HL-211",
      title: "Notice board on two legs",
      unit: "in",
      format: { kind: "fraction", denominator: 16 },
      batch: 2,
    },
    keySizes: {
      board_width: { formula: "48", least: "30", greatest: "72", note: "plywood, over all" },
      board_height: { formula: "36", least: "24", greatest: "48", note: "plywood, over all" },
      leg_height: {
        formula: "84",
        least: "rail_height + board_height",
        greatest: "120",
        note: "above ground",
      },
      leg_depth: { formula: "30", note: "below ground" },
      rail_height: { formula: "38 1/2", least: "24", greatest: "60", note: "lower edge of the board" },
      tube: { formula: "2 1/2", locked: true, note: "side of the legs" },
      brace: { formula: "12", least: "6", greatest: "16", note: "knee brace, along leg and rail" },
    },
    points: {
      A1: ["0", "0", "0 - leg_depth"],
      A2: ["0", "0", "leg_height"],
      B1: [legRight, "0", "0 - leg_depth"],
      B2: [legRight, "0", "leg_height"],
      C1: ["0", "0", "rail_height + 4"],
      C2: [legRight, "0", "rail_height + 4"],
      D1: ["0", "0", "leg_height - tube/2"],
      D2: [legRight, "0", "leg_height - tube/2"],
      E1: ["0", "0", "rail_height + 4 - brace"],
      E2: ["brace", "0", "rail_height + 4"],
      E3: [legRight, "0", "rail_height + 4 - brace"],
      E4: [`${legRight} - brace`, "0", "rail_height + 4"],
      F1: [frameIn, face, low],
      F2: [rightEdge, face, low],
      F3: [rightEdge, face, high],
      F4: [frameIn, face, high],
    },
    members: {
      legLeft: { name: "Leg", from: "A1", to: "A2", section: tube },
      legRight: { name: "Leg", from: "B1", to: "B2", section: tube },
      railLow: {
        name: "Rail",
        from: "C1",
        to: "C2",
        section: tube,
        start: buttEnd("legLeft"),
        end: buttEnd("legRight"),
      },
      railHigh: {
        name: "Rail",
        from: "D1",
        to: "D2",
        section: tube,
        start: buttEnd("legLeft"),
        end: buttEnd("legRight"),
      },
      braceLeft: {
        name: "Knee brace",
        from: "E1",
        to: "E2",
        section: tube,
        start: buttEnd("legLeft"),
        end: buttEnd("railLow"),
      },
      braceRight: {
        name: "Knee brace",
        from: "E3",
        to: "E4",
        section: tube,
        start: buttEnd("legRight"),
        end: buttEnd("railLow"),
      },
      trimLow: {
        name: "Frame board",
        from: "F1",
        to: "F2",
        section: cedar,
        roll: "90",
        start: mitreEnd("trimLeft"),
        end: mitreEnd("trimRight"),
      },
      trimRight: {
        name: "Frame side board",
        from: "F2",
        to: "F3",
        section: cedar,
        roll: "0",
        start: mitreEnd("trimLow"),
        end: mitreEnd("trimHigh"),
      },
      trimHigh: {
        name: "Frame board",
        from: "F3",
        to: "F4",
        section: cedar,
        roll: "90",
        start: mitreEnd("trimRight"),
        end: mitreEnd("trimLeft"),
      },
      trimLeft: {
        name: "Frame side board",
        from: "F4",
        to: "F1",
        section: cedar,
        roll: "0",
        start: mitreEnd("trimHigh"),
        end: mitreEnd("trimLow"),
      },
    },
    panels: {
      board: {
        name: "Board",
        board: "ext-ply-3-4in",
        origin: ["tube/2 + 2", "0 - tube/2", "rail_height"],
        lengthAxis: ["1", "0", "0"],
        faceAxis: ["0", "0 - 1", "0"],
        length: "board_width",
        width: "board_height",
        goodFace: true,
      },
    },
    boughtParts: {
      caps: { name: "Post cap", entry: "post-cap", count: "2" },
      bolts: { name: "Board bolt", entry: "bolt-m8", count: "8" },
    },
  });
}
