/** Whether the pages of the demo jobs place every piece: nothing less, nothing more, and the design comes back from the numbers on them. */
import { describe, expect, it } from "vitest";
import { type Job, jobStyle, NO_ASSETS, resolveSizes } from "@/core/job";
import { at, LENGTH_TOLERANCE_MM } from "@/core/kernel";
import { formatLength, parseLength } from "@/core/measure";
import { changedShapes, type HomePlacing, placingOf, toldByDesign, verifyPlacing } from "@/core/placing";
import { homePlacing } from "@/core/placing/placing";
import { rebuilt } from "@/core/placing/placing.oracle";
import { shapeJob } from "@/core/shape";
import { drawnJob, STOCKROOM } from "./drawn-jobs.fixture";
import { noticeBoard } from "./notice-board";
import { pottingBench } from "./potting-bench";
import { seedPacketCabinet } from "./seed-packet-cabinet";
import { shelfBrackets } from "./shelf-brackets";

function homesOf(job: Job): readonly HomePlacing[] {
  const shape = shapeJob(job, resolveSizes(job, null), STOCKROOM);
  const others = changedShapes({ job, variant: null, shape }, STOCKROOM, () => shapeJob);
  return placingOf(toldByDesign(job, shape, others, NO_ASSETS), job, shape, null, NO_ASSETS).homes;
}

/** What stands at each size on paper, read back as a shop reads it. */
function written(job: Job, { sizes }: HomePlacing): ReadonlyMap<string, number> {
  const style = jobStyle(job);
  return new Map(
    sizes.map(({ id, length, step }) => {
      // Of equal steps the whole is written.
      const count = step?.count ?? 1;
      const read = parseLength(formatLength((length ?? 0) * count, style, LENGTH_TOLERANCE_MM), style.unit);
      if (!read.ok) throw new Error("what is written can be read");
      return [id, read.value / count];
    }),
  );
}

const looseIn = ({ loose }: HomePlacing): readonly number[] =>
  [...new Set(loose.flatMap(({ bodies }) => bodies))].sort((a, b) => a - b);

describe.each([
  ["potting bench", pottingBench(), 30],
  ["seed-packet cabinet", seedPacketCabinet(), 20],
  ["notice board", noticeBoard(), 15],
  ["shelf brackets", shelfBrackets(), 5],
] as const)("the pages of the %s", (_, start, least) => {
  const job = drawnJob(start);
  const homes = homesOf(job);

  it("place every piece, each size saying something of its own", () => {
    expect(homes.reduce((sum, { bodies }) => sum + bodies.length, 0)).toBeGreaterThanOrEqual(least);
    for (const home of homes) {
      expect({ home: home.home, loose: home.loose }).toEqual({ home: home.home, loose: [] });
      expect(home.repeated).toEqual([]);
      expect(verifyPlacing(home)).toEqual({ movable: [], held: [] });
    }
  });

  it("give the design back from the numbers that are written on them", () => {
    for (const home of homes)
      for (const seed of [1, 2, 3]) {
        const off = rebuilt(home, written(job, home), { seed, off: 40 });
        // What is rounded in print is off by that; what is written on the pages says how far at most.
        const most = (home.farthest?.mm ?? 0) + 1e-3;
        expect(Math.max(0, ...off)).toBeLessThanOrEqual(most);
        expect(most).toBeLessThan(1);
      }
  });

  it("without any one of their sizes lose exactly the pieces that do not come back", () => {
    for (const home of homes)
      for (const [i, size] of home.sizes.entries()) {
        const left = home.sizes.filter((one) => one !== size);
        const without = homePlacing(home, left);
        expect(without.loose.length).toBeGreaterThan(0);
        expect(verifyPlacing(without)).toEqual({ movable: [], held: [] });
        // To build it anew takes a while: one in four, wherever there are many.
        if (home.sizes.length > 8 && i % 4 > 0) continue;
        const exact = new Map(left.map(({ id, length }) => [id, length ?? 0]));
        const off = rebuilt(without, exact, { seed: 7, off: 40 });
        expect(off.flatMap((mm, i) => (mm > 0.01 ? [i] : []))).toEqual(looseIn(without));
      }
  });

  it("tell any size that is added as one that says nothing new, and stay complete without one that it goes with", () => {
    for (const home of homes) {
      const { bodies, sizes } = home;
      for (const [i, a] of bodies.entries()) {
        const b = at(bodies, (i + 1) % bodies.length);
        if (a === b || a.turns.length + b.turns.length > 0) continue;
        const added = {
          id: "added",
          home: home.home,
          a: a.key,
          b: b.key,
          hold: { kind: "apart", atA: a.middle, atB: b.middle, along: [1, 0, 0] },
          length: Math.abs(b.middle[0] - a.middle[0]),
          rounding: 0,
          brackets: false,
        } as const;
        const more = homePlacing(home, [...sizes, added]);
        expect(more.repeated.map(({ size }) => size)).toEqual(["added"]);
        const [first] = more.repeated[0]?.from ?? [];
        if (first === undefined) continue;
        const swapped = homePlacing(home, [...sizes.filter(({ id }) => id !== first), added]);
        expect(swapped.loose).toEqual([]);
        expect(verifyPlacing(swapped)).toEqual({ movable: [], held: [] });
      }
    }
  });
});
