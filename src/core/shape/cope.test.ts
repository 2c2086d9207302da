/**
 * Coped members against the check values of 2-computation.md, section 8 (there checked against two solid kernels),
 * and against laws: every point of the cut lies on the header, and the volume is that of the mesh.
 */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cross, norm, subtract, type Vec3 } from "../geometry";
import { volumeOf } from "../geometry/mesh.fixture";
import { copeEnd, type Job, newJob, resolveSizes, squareEnd } from "../job";
import { lawRuns } from "../kernel/law-runs.fixture";
import { STOCK_DATA } from "../pipeline.fixture";
import { sectionProperties, stockroomOf } from "../stockroom";
import { shapeJob } from ".";
import { proposedCuts } from "./joints";
import { meshOf } from "./mesh.fixture";

const R = 24.15;
const tube = STOCK_DATA.sections[0] as (typeof STOCK_DATA.sections)[number];
const stockroom = stockroomOf({
  ...STOCK_DATA,
  sections: [
    ...STOCK_DATA.sections,
    { ...tube, id: "r33", name: "r33", shape: { kind: "roundTube", size: [33.7, 3.2] } },
    { ...tube, id: "r48", name: "r48", shape: { kind: "roundTube", size: [48.3, 3.2] } },
  ],
});
const shapeOf = (job: Job) => shapeJob(job, resolveSizes(job, null), stockroom);

/** A branch of 500 between the axes of two headers that lean and stand aside as told. */
function branchJob(lean: number, aside: number, curve: "surface" | "fit" = "surface"): Job {
  const dx = Math.tan((lean * Math.PI) / 180) * 400;
  const text = (value: number) => value.toFixed(9);
  return newJob({
    info: { code: "T", title: "T" },
    points: {
      A: [text(-dx), text(aside), "-400"],
      B: [text(dx), text(aside), "400"],
      C: [text(500 - dx), "0", "-400"],
      D: [text(500 + dx), "0", "400"],
      P: ["0", "0", "0"],
      Q: ["500", "0", "0"],
    },
    members: {
      first: { name: "First", from: "A", to: "B", section: "r48" },
      second: { name: "Second", from: "C", to: "D", section: "r48" },
      branch: {
        name: "Branch",
        from: "P",
        to: "Q",
        section: "r33",
        start: copeEnd("first", "0", curve),
        end: copeEnd("second", "0", curve),
      },
    },
  });
}
const branchOf = (job: Job) => {
  const solid = shapeOf(job).members.find((one) => one.member.id === "branch");
  if (!solid)
    throw new Error(
      shapeOf(job)
        .uncomputed.map((one) => one.why.kind)
        .join(),
    );
  return solid;
};

describe("coped members", () => {
  it("500 between axes with two 90° copes on the true surface is 465.3994 from tip to tip", () => {
    expect(branchOf(branchJob(0, 0)).lengths.cut).toBeWithinMm(465.3994, 6e-5);
  });

  it("every outer point of the cut lies on the header's surface", () => {
    fc.assert(
      fc.property(fc.integer({ min: -55, max: 55 }), fc.integer({ min: -7, max: 7 }), (lean, aside) => {
        const job = branchJob(lean, aside);
        const shape = shapeOf(job);
        const mesh = meshOf(shape, "branch");
        const header = shape.members.find((one) => one.member.id === "first");
        if (!mesh || !header) throw new Error("both are computed");
        const half = mesh.vertices.length / 2;
        const away = (p: Vec3) => norm(cross(subtract(p, header.frame.origin), header.frame.z));
        for (const vertex of mesh.vertices.slice(0, half)) expect(away(vertex)).toBeWithinMm(R, 1e-9);
      }),
      { numRuns: lawRuns(40) },
    );
  });

  it("the volume, area × centre length, is that of the mesh but for its facets", () => {
    for (const [lean, aside, curve] of [
      [0, 0, "surface"],
      [30, 0, "surface"],
      [30, 5, "surface"],
      [30, 0, "fit"],
    ] as const) {
      const job = branchJob(lean, aside, curve);
      const solid = branchOf(job);
      const mesh = meshOf(shapeOf(job), "branch");
      const exact = sectionProperties(solid.entry.shape).areaMm2 * solid.lengths.centre;
      // 32 facets have sin(2π/32)/(2π/32) of the ring's area; chords of the saddle cost as much again.
      const facets = Math.sin((2 * Math.PI) / 32) / ((2 * Math.PI) / 32);
      expect(mesh ? volumeOf(mesh) / (exact * facets) : 0).toBeWithinMm(1, 2e-3);
    }
  });

  it("a branch of 300 beyond a 90° cope has 85397.53 mm³ (value of the design notes, from a solid kernel)", () => {
    const job = branchJob(0, 0);
    const plain: Job = {
      ...job,
      points: { ...job.points, Q: { ...(job.points["Q"] as Job["points"][string]), at: ["300", "0", "0"] } },
      members: {
        ...job.members,
        branch: { ...(job.members["branch"] as Job["members"][string]), end: squareEnd() },
      },
    };
    const solid = branchOf(plain);
    expect(sectionProperties(solid.entry.shape).areaMm2 * solid.lengths.centre).toBeWithinMm(85397.53, 0.01);
  });

  it("is refused where it cannot be", () => {
    const why = (job: Job) => shapeOf(job).uncomputed.map((one) => one.why);
    const coped = (fault: string) => [
      { kind: "end", side: "start", why: { kind: "cannotMeet", cut: "cope", name: "First", why: fault } },
    ];
    expect(why(branchJob(0, 8))).toEqual(coped("notAllRound"));
    const job = branchJob(0, 0);
    const square: Job = {
      ...job,
      members: {
        ...job.members,
        first: { ...(job.members["first"] as Job["members"][string]), section: "tube" },
      },
    };
    expect(why(square)).toEqual(coped("headerNotRound"));
  });

  it("is what is proposed for round onto round", () => {
    const job = branchJob(0, 0);
    const bare: Job = {
      ...job,
      members: {
        ...job.members,
        branch: {
          ...(job.members["branch"] as Job["members"][string]),
          start: squareEnd(),
          end: squareEnd(),
        },
      },
    };
    expect(
      proposedCuts(bare, new Set(["branch"]), { sizes: resolveSizes(bare, null), stockroom }).map(
        ({ side, cut }) => [side, cut.kind],
      ),
    ).toEqual([
      ["start", "cope"],
      ["end", "cope"],
    ]);
  });
});
