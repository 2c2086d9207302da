/** The lines of the demo jobs against their image by brute force: copes, mitres, rounded tubes, grooves, holes, repeats, stand-ins. */
import { describe, expect, it } from "vitest";
import { verdict } from "@/core/drawing/lines/lines.oracle";
import { seenPieces } from "@/core/drawing/lines/shape-solids";
import { VIEW_DIRECTIONS, viewFrom } from "@/core/drawing/lines/view-frame";
import { viewLines } from "@/core/drawing/lines/view-lines";
import type { Vec3 } from "@/core/geometry";
import type { EndCut, Job } from "@/core/job";
import { seededRandom } from "@/core/kernel";
import { lawRuns } from "@/core/kernel/law-runs.fixture";
import { createPipeline } from "@/core/pipeline";
import { stockroomOf } from "@/core/stockroom";
import { STOCKROOM as RANDOM_STOCK, randomCopes, randomPieces } from "@/formats/step/round-trip.fixture";
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

/** Two planes that meet at so small an angle that the image by brute force takes them for one round face. */
const bends = (end: EndCut): boolean => {
  if (end.kind !== "twoAngles") return true;
  const apart = (one: string, other: string) => Math.abs(Number(one) - Number(other));
  return (
    apart(end.acrossWidth, end.secondAcrossWidth) > 25 || apart(end.acrossHeight, end.secondAcrossHeight) > 25
  );
};

const thatBend = (job: Job): Job => ({
  ...job,
  members: Object.fromEntries(
    Object.entries(job.members).filter(([, { start, end }]) => bends(start) && bends(end)),
  ),
});

describe("the lines of pieces at random, every section, end and work, turned anyhow", () => {
  it("stand where the image changes, and nowhere else, from any direction", () => {
    let [changes, drawn] = [0, 0];
    for (let seed = 1; seed <= lawRuns(50); seed++) {
      const random = seededRandom(seed);
      const job = seed % 6 === 0 ? randomCopes(random, 2) : thatBend(randomPieces(random, 5));
      const { shape } = createPipeline()(job, null, RANDOM_STOCK, []);
      const side = () => random.next() * 2 - 1;
      const pieces = seenPieces(shape, viewFrom([side(), side(), side()]));
      const lines = viewLines(pieces);
      const found = verdict(pieces, lines, random, { scans: 30, places: 150, length: 600 });
      expect([seed, found.missing, found.withoutReason]).toEqual([seed, [], []]);
      changes += found.changes;
      drawn += found.drawn;
    }
    expect(changes).toBeGreaterThan(lawRuns(50));
    expect(drawn).toBeGreaterThan(100 * lawRuns(50));
  });
});
