/**
 * Copes against the check values of 2-computation.md, section 8 (there checked against two solid kernels),
 * and against laws: every point of the cut lies on the header, and the volume is that of the mesh.
 */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cross, dot, type Mesh, norm, subtract, type Vec3 } from "../geometry";
import { copeEnd, type Job, newJob, resolveSizes, squareEnd } from "../job";
import { at } from "../kernel";
import { STOCK_DATA } from "../pipeline.fixture";
import { sectionProperties, stockroomOf } from "../stockroom";
import { shapeJob } from ".";
import { type Cope, copeHeight, extremesOverTurn, fitHeight } from "./cope";
import { proposedCuts } from "./joints";
import { meshOf } from "./mesh.fixture";

const r = 16.85;
const R = 24.15;
const t = 3.2;
const cope = (degrees: number, offset = 0, curve: Cope["curve"] = "surface"): Cope => ({
  u: [1, 0],
  v: [0, 1],
  cos: Math.cos((degrees * Math.PI) / 180),
  sin: Math.sin((degrees * Math.PI) / 180),
  radius: R,
  offset,
  curve,
  outer: r,
  bore: r - t,
});
const at45s = (form: Cope, rho = r) =>
  [0, 45, 90, 135, 180].map((phi) =>
    copeHeight(form, [rho * Math.cos((phi * Math.PI) / 180), rho * Math.sin((phi * Math.PI) / 180)]),
  );
const expectAll = (values: readonly number[], expected: readonly number[]) =>
  values.forEach((value, i) => {
    expect(value).toBeWithinMm(expected[i] ?? 0, 6e-5);
  });
const onEdge = (form: Cope) =>
  extremesOverTurn((phi) => copeHeight(form, [r * Math.cos(phi), r * Math.sin(phi)]));

describe("the curve of a cope, branch 33.7 × 3.2 on 48.3", () => {
  it("at 90° and at 60° on the true surface; at 60° the least is not at 180", () => {
    expectAll(at45s(cope(90)), [24.15, 21.0062, 17.3003, 21.0062, 24.15]);
    expectAll(at45s(cope(60)), [37.6144, 31.1349, 19.9767, 17.3769, 18.1577]);
    expect(onEdge(cope(60)).least).toBeWithinMm(17.3003, 6e-5);
    expect(onEdge(cope(60)).greatest).toBeWithinMm(37.6144, 6e-5);
  });

  it("the fit for a blade held square, and the bore", () => {
    const fit = cope(60, 0, "fit");
    expectAll(at45s(fit), [37.6144, 31.1775, 23.0043, 19.9894, 20.0052]);
    expect(onEdge(fit).least).toBeWithinMm(19.9223, 6e-5);
    expectAll(at45s(cope(60), r - t), [35.7668, 31.1346, 23.0043, 19.9894, 20.0052]);
  });

  it("with an offset of 5 at 60°", () => {
    const values = [0, 90, 180, 270].map((phi) =>
      copeHeight(cope(60, 5), [r * Math.cos((phi * Math.PI) / 180), r * Math.sin((phi * Math.PI) / 180)]),
    );
    expectAll(values, [37.0102, 11.8771, 17.5534, 24.2981]);
  });

  it("the fit is nowhere below the surface over the wall (looked for at 60 places of the wall)", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 30, max: 90, noNaN: true }),
        fc.double({ min: -7, max: 7, noNaN: true }),
        fc.double({ min: 0, max: 6.28, noNaN: true }),
        (degrees, offset, phi) => {
          const form = cope(degrees, offset);
          const [c, s] = [Math.cos(phi), Math.sin(phi)];
          const seen = Array.from({ length: 61 }, (_, i) =>
            copeHeight(form, [(r - t + (t * i) / 60) * c, (r - t + (t * i) / 60) * s]),
          );
          const fit = fitHeight(form, c, s);
          expect(fit).toBeGreaterThanOrEqual(Math.max(...seen) - 1e-9);
          expect(fit).toBeWithinMm(Math.max(...seen), 0.01);
        },
      ),
    );
  });
});

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

function volumeOf({ vertices, triangles }: Mesh): number {
  let sum = 0;
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => at(vertices, at(triangles, i + k)));
    if (a && b && c) sum += dot(a, cross(b, c)) / 6;
  }
  return sum;
}

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
      { numRuns: 40 },
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
      proposedCuts(bare, new Set(["branch"]), stockroom).map(({ side, cut }) => [side, cut.kind]),
    ).toEqual([
      ["start", "cope"],
      ["end", "cope"],
    ]);
  });
});
