/** The lines of the demo jobs against their image by brute force: copes, mitres, rounded tubes, grooves, holes, repeats, stand-ins. */
import { describe, expect, it } from "vitest";
import { verdict } from "@/core/drawing/lines/lines.oracle";
import { seenPieces } from "@/core/drawing/lines/shape-solids";
import { VIEW_DIRECTIONS, viewFrom } from "@/core/drawing/lines/view-frame";
import { viewLines } from "@/core/drawing/lines/view-lines";
import type { Vec3 } from "@/core/geometry";
import { seededRandom } from "@/core/kernel";
import { createPipeline } from "@/core/pipeline";
import { stockroomOf } from "@/core/stockroom";
import { noticeBoard } from "./notice-board";
import { pottingBench } from "./potting-bench";
import { seedPacketCabinet } from "./seed-packet-cabinet";
import { shelfBrackets } from "./shelf-brackets";
import { demoStockroom } from "./stockroom";

const STOCKROOM = stockroomOf(demoStockroom);
const { front, left, top, frontLeft, backRight } = VIEW_DIRECTIONS;
const DIRECTIONS: readonly Vec3[] = [
  front,
  left,
  top,
  frontLeft,
  backRight,
  [0.3, -1, 0.21],
  [-0.77, -0.31, -0.5],
];

describe.each([
  ["potting bench", pottingBench()],
  ["seed-packet cabinet", seedPacketCabinet()],
  ["notice board", noticeBoard()],
  ["shelf brackets", shelfBrackets()],
])("the lines of the %s", (_, job) => {
  it("stand where the image changes, and nowhere else, from any side", () => {
    const { shape } = createPipeline()(job, null, STOCKROOM, []);
    let [changes, drawn] = [0, 0];
    for (const [i, direction] of DIRECTIONS.entries()) {
      const pieces = seenPieces(shape, viewFrom(direction));
      const lines = viewLines(pieces);
      const found = verdict(pieces, lines, seededRandom(17 + i), { scans: 14, places: 120 });
      expect([direction, found.missing, found.withoutReason]).toEqual([direction, [], []]);
      changes += found.changes;
      drawn += found.drawn;
    }
    // There was something to find.
    expect(changes).toBeGreaterThan(25);
    expect(drawn).toBeGreaterThan(300);
  });
});
