/**
 * HL-211: a notice board on two legs, drawn in inches with fractions. Two legs and two cross rails of
 * square tube with knee braces, a plywood board in a frame of nominal 1 × 6 boards (an assembly that is hung as
 * a whole), and a ledge for leaflets on either leg, the right one the mirror image of the left.
 */
import { buttEnd, type Job, mitreEnd, newJob } from "@/core/job";

const tube = "sht-2.5in";
const cedar = "board-1x6";
const legRight = "board_width + 4 + tube";
/** The middle of the frame boards, seen from the lower left corner of the plywood's back. */
const near = "2.75";
const top = "board_height - 2.75";
const right = "board_width - 2.75";
const face = "0 - 0.75 - 0.375";

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
    variants: [{ id: "small", name: "36 x 28, lower", formulas: { board_width: "36", board_height: "28" } }],
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
    },
    assemblies: {
      framedBoard: {
        name: "Framed board",
        points: {
          F1: [near, face, near],
          F2: [right, face, near],
          F3: [right, face, top],
          F4: [near, face, top],
        },
        members: {
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
            faceAxis: ["0", "0 - 1", "0"],
            length: "board_width",
            width: "board_height",
            goodFace: true,
          },
        },
        boughtParts: { bolts: { name: "Board bolt", entry: "bolt-m8", count: "8" } },
      },
      ledge: {
        name: "Leaflet ledge",
        usual: { board: "ext-ply-3-4in" },
        look: "leaf green",
        panels: {
          ledgeBack: {
            name: "Ledge back",
            board: null,
            origin: ["-4", "0", "0"],
            faceAxis: ["0", "0 - 1", "0"],
            length: "8",
            width: "10",
            work: [
              {
                id: "ledge",
                kind: "groove",
                face: "good",
                from: "front",
                distance: "2",
                width: "3/4",
                depth: "1/4",
                stopAtStart: "0",
                stopAtEnd: "0",
              },
            ],
          },
          ledgeFloor: {
            name: "Ledge",
            board: null,
            origin: ["-4", "0 - 3/4 - 4 + 1/4", "2"],
            length: "8",
            width: "4",
          },
        },
        boughtParts: { ledgeBolts: { name: "Ledge bolt", entry: "bolt-m8", count: "2" } },
      },
    },
    placements: {
      hung: { assembly: "framedBoard", at: ["tube/2 + 2", "0 - tube/2", "rail_height"] },
      ledgeLeft: { assembly: "ledge", at: ["0", "0 - tube/2", "22"] },
      ledgeRight: { assembly: "ledge", at: [legRight, "0 - tube/2", "22"], mirror: "width" },
    },
    boughtParts: {
      caps: { name: "Post cap", entry: "post-cap", count: "2" },
    },
  });
}
