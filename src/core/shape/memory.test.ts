import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Edit, type Job, newJob, resolveSizes, withEdit } from "../job";
import { countedRuns, lawRuns } from "../kernel/law-runs.fixture";
import { createPipeline } from "../pipeline";
import { STOCK, smallFrame } from "../pipeline.fixture";
import { countStanding, createShaper, shapeJob } from ".";

/** A frame with an assembly, a panel between two others and a member that runs into another. */
function base(): Job {
  const frame = smallFrame({
    members: { odd: { name: "Odd", from: "E", to: "F", section: "tube" } },
  });
  const box = newJob({
    info: { code: "T", title: "T" },
    panels: {
      sideA: {
        name: "Side",
        board: "ply",
        length: "300",
        width: "200",
        faceAxis: ["1", "0", "0"],
        lengthAxis: ["0", "0", "1"],
      },
      sideB: {
        name: "Side",
        board: "ply",
        origin: ["400", "0", "0"],
        length: "300",
        width: "200",
        faceAxis: ["1", "0", "0"],
        lengthAxis: ["0", "0", "1"],
      },
      shelf: {
        name: "Shelf",
        board: "ply",
        between: {
          first: "sideA",
          second: "sideB",
          reachFirst: "0",
          reachSecond: "0",
          runs: "width",
          distance: "100",
          insetStart: "0",
          insetEnd: "0",
        },
      },
    },
    assemblies: {
      cell: { name: "Cell", panels: { lid: { name: "Lid", board: "ply", length: "80", width: "60" } } },
    },
    placements: { cells: { assembly: "cell", at: ["0", "900", "0"], count: "3", step: ["30", "0", "0"] } },
  });
  return {
    ...frame,
    panels: { ...frame.panels, ...box.panels },
    assemblies: box.assemblies,
    placements: box.placements,
  };
}

const length = fc.integer({ min: 20, max: 700 }).map(String);
const edits: fc.Arbitrary<Edit> = fc.oneof(
  fc.record({
    kind: fc.constant("setKeySize" as const),
    id: fc.constant("size-width"),
    formula: length,
    variant: fc.constant(null),
  }),
  length.map((x): Edit => ({ kind: "movePoints", points: [{ id: "A", at: [x, "20", "height"] }] })),
  fc
    .constantFrom("0", "45", "90")
    .map((roll): Edit => ({ kind: "changeMembers", ids: ["front"], set: { roll } })),
  fc.boolean().map((leftOut): Edit => ({ kind: "changeMembers", ids: ["odd"], set: { leftOut } })),
  fc
    .constantFrom("tube", "lath")
    .map((section): Edit => ({ kind: "changeMembers", ids: ["back"], set: { section } })),
  length.map((width): Edit => ({ kind: "changePanels", ids: ["sideA"], set: { width } })),
  length.map((x): Edit => ({ kind: "changePanels", ids: ["sideB"], set: { origin: [x, "0", "0"] } })),
  fc
    .constantFrom("0", "1", "3")
    .map((count): Edit => ({ kind: "changePlacements", ids: ["cells"], set: { count } })),
  fc
    .constantFrom("width", null)
    .map((mirror): Edit => ({ kind: "changePlacements", ids: ["cells"], set: { mirror } })),
  fc
    .constantFrom("made", "bought", "guide")
    .map((role): Edit => ({ kind: "changeAssemblies", ids: ["cell"], set: { role: role as "made" } })),
  fc
    .constantFrom("width > 400", null)
    .map((when): Edit => ({ kind: "changePanels", ids: ["shelf"], set: { when } })),
  fc.constant<Edit>({ kind: "remove", ids: ["legRight"] }),
);

/** Everything of a result that a screen or a list can show. */
const seen = (results: ReturnType<ReturnType<typeof createPipeline>>) =>
  JSON.stringify([
    results.shape.members,
    results.shape.panels,
    results.shape.checks,
    results.tally.rows,
    results.tally.checks,
    results.tally.balance,
    results.cutList,
  ]);

describe("what is remembered between edits", () => {
  it("changes nothing: after any edits the results are those of a pipeline without memory", () => {
    fc.assert(
      fc.property(fc.array(edits, { minLength: 1, maxLength: 12 }), (steps) => {
        const remembering = createPipeline();
        let job = base();
        remembering(job, null, STOCK, []);
        for (const edit of steps) {
          const after = withEdit(job, edit);
          if (!after.ok) continue;
          job = after.value;
          expect(seen(remembering(job, null, STOCK, []))).toBe(seen(createPipeline()(job, null, STOCK, [])));
        }
      }),
      { numRuns: lawRuns(25) },
    );
  });

  it("and counting alone finds the pieces that are computed, or told as not computed, in each place", () => {
    let several = 0;
    fc.assert(
      fc.property(fc.array(edits, { minLength: 1, maxLength: 12 }), (steps) => {
        const job = steps.reduce((before, edit) => {
          const after = withEdit(before, edit);
          return after.ok ? after.value : before;
        }, base());
        const sizes = resolveSizes(job, null);
        const { members, panels, uncomputed, places } = shapeJob(job, sizes, STOCK);
        const homes = [...members, ...panels.map(({ panel }) => ({ home: panel.assembly })), ...uncomputed];
        const pieces = homes.reduce((sum, { home }) => sum + (places.get(home)?.length ?? 0), 0);
        expect(countStanding(job, sizes)).toEqual({ pieces, anything: pieces > 0 });
        if ([...places.values()].some((instances) => instances.length > 1)) several++;
      }),
      countedRuns(100),
    );
    expect(several).toBeGreaterThan(lawRuns(100) / 4);
    const none = newJob({ info: { code: "T", title: "T" } });
    expect(countStanding(none, resolveSizes(none, null))).toEqual({ pieces: 0, anything: false });
    const bought = newJob({
      info: { code: "T", title: "T" },
      boughtParts: { foot: { name: "Foot", entry: "foot", count: "2" } },
    });
    expect(countStanding(bought, resolveSizes(bought, null))).toEqual({ pieces: 0, anything: true });
  });

  it("keeps what an edit does not touch: the identical solids, but for the changed one and its neighbours", () => {
    const shaper = createShaper();
    const job = base();
    const sizes = resolveSizes(job, null);
    const before = shaper(job, sizes, STOCK);
    const after = withEdit(job, { kind: "changeMembers", ids: ["front"], set: { roll: "90" } });
    if (!after.ok) throw new Error("it is possible");
    const kept = shaper(after.value, sizes, STOCK).members.filter((solid) => before.members.includes(solid));
    // The two mitred with it and the two legs that butt against it follow.
    expect(kept.map(({ member }) => member.id)).toEqual(["back", "odd"]);
    expect(shapeJob(after.value, sizes, STOCK).members.map(({ lengths }) => lengths)).toEqual(
      shaper(after.value, sizes, STOCK).members.map(({ lengths }) => lengths),
    );
  });
});
