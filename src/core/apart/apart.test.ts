/**
 * Pulled apart: nothing runs into anything on its way, held against a solid kernel that shares nothing with the method (manifold-3d,
 * over the meshes of the pictures); what is apart is clear of all else; the order of the records does not matter.
 */
import Module, { type Manifold } from "manifold-3d";
import { describe, expect, it } from "vitest";
import { noticeBoard } from "../../../demo/notice-board";
import { pottingBench } from "../../../demo/potting-bench";
import { seedPacketCabinet } from "../../../demo/seed-packet-cabinet";
import { shelfBrackets } from "../../../demo/shelf-brackets";
import { demoStockroom } from "../../../demo/stockroom";
import type { Vec3 } from "../geometry";
import { manifoldOf } from "../geometry/manifold.fixture";
import { fillJig, JIGS } from "../jigs";
import { jigValues } from "../jigs/jig.fixture";
import { emptyJob, type Home, type Job, NO_ASSETS, resolveSizes, withEdit } from "../job";
import { at, sentence } from "../kernel";
import { type Shape, shapeJob } from "../shape";
import { picturedMeshes } from "../shape/mesh.fixture";
import { stockroomOf } from "../stockroom";
import { pulledApart } from ".";
import { coveredMore, seenFrom } from "./covering.fixture";
import { offsetsOf } from "./distances";

const kernel = await Module();
kernel.setup();
const stockroom = stockroomOf(demoStockroom);
const shapeOf = (job: Job): Shape => shapeJob(job, resolveSizes(job, null), stockroom);

/** The own pieces of a home as solids of the kernel; of assemblies nothing. */
function solidsOf(shape: Shape, keys: ReadonlySet<string>): ReadonlyMap<string, Manifold> {
  const solids = new Map<string, Manifold>();
  for (const { record, mesh } of picturedMeshes(shape)) {
    if (!keys.has(record)) continue;
    const solid = manifoldOf(kernel, mesh);
    if (solid.status() === "NoError" && !solid.isEmpty()) solids.set(record, solid);
  }
  return solids;
}

const moved = (solid: Manifold, way: Vec3, by: number) =>
  solid.translate([way[0] * by, way[1] * by, way[2] * by]);

/** mm³ of room that two solids share; a skin that both have of one another's facets is not counted. */
const shared = (a: Manifold, b: Manifold): number => a.intersect(b).volume();

/** From the front left above, as pictures of a job are looked at. */
const FROM = seenFrom([-1, -1, 1]);

/** mm³. Facets of pictures share so much of a skin where a saddle lies on a tube. */
const MOST_SKIN = 50;

/** A jig by itself, filled in with what it offers. */
function builtBy(id: string, values: Readonly<Record<string, string>> = {}): Job {
  const jig = JIGS.find((one) => one.id === id);
  if (!jig) throw new Error(`there is a jig ${id}`);
  let count = 0;
  const filling = {
    values: { ...jigValues(jig, stockroom), ...values },
    place: "0; 0; 0",
    keepSizes: false,
    asAssembly: false,
    home: null,
  };
  const empty = emptyJob({ code: id, title: id, unit: "mm" });
  const edit = fillJig(empty, jig, filling, stockroom, (kind) => `${kind}${++count}`);
  const after = edit.ok ? withEdit(empty, edit.value) : edit;
  if (!after.ok) throw new Error(sentence(after.problem));
  return after.value;
}

const JOBS: readonly (readonly [string, Job])[] = [
  ["potting bench", pottingBench()],
  ["notice board", noticeBoard()],
  ["shelf brackets", shelfBrackets()],
  ["seed-packet cabinet", seedPacketCabinet()],
  ["box frame with braces", builtBy("box-frame", { rings: "2", braces: "all" })],
  ["box frame with its top between the legs", builtBy("box-frame", { corners: "between", braces: "back" })],
  ["carcass", builtBy("carcass")],
  ["ladder", builtBy("ladder")],
];

describe.each(JOBS)("the %s pulled apart", (_, job) => {
  const shape = shapeOf(job);
  const whole = pulledApart(shape, null, NO_ASSETS, FROM);

  it("leaves nothing stuck, and moves most of it, each unit once", () => {
    expect(whole.stuck).toEqual([]);
    const keys = whole.removals.flatMap(({ units }) => units.map(({ key }) => key));
    expect(new Set(keys).size).toBe(keys.length);
    expect(keys.length).toBeGreaterThan(whole.units.length / 2);
  });

  /** Over all removals: the pieces that run into something that is still there, and how many tries that took. */
  function hitsOn(sign: 1 | -1): { readonly hits: readonly string[]; readonly tried: number } {
    const solids = solidsOf(shape, new Set(whole.units.map(({ key }) => key)));
    const left = new Set(solids.keys());
    const hits = new Set<string>();
    let tried = 0;
    for (const { units } of whole.removals) {
      for (const { key, way } of units) {
        const solid = solids.get(key);
        if (!solid) continue;
        for (const other of left) {
          const against = solids.get(other);
          if (units.some((one) => one.key === other) || !against) continue;
          const rest = shared(solid, against);
          // Small steps first, where tongues and saddles are; then farther ones.
          for (const by of [1, 3, 6, 12, 25, 60, 150, 400, 1_000]) {
            tried++;
            if (shared(moved(solid, way, sign * by), against) - rest > MOST_SKIN)
              hits.add(`${key} against ${other}`);
          }
        }
      }
      for (const { key } of units) left.delete(key);
    }
    return { hits: [...hits], tried };
  }

  it("has no piece run into another on its way, by another kernel", () => {
    const { hits, tried } = hitsOn(1);
    expect(hits.join("; ")).toBe("");
    expect(tried).toBeGreaterThan(50);
  });

  // The own pieces of the other two hardly touch one another.
  it.runIf(["HL-204", "HL-207", "HL-214"].includes(job.info.job.code))(
    "would run into what is there on the opposite ways",
    () => {
      expect(hitsOn(-1).hits.length).toBeGreaterThanOrEqual(2);
    },
  );

  it("stands clear of all else when it is apart", () => {
    const { units, offsets } = whole;
    const solids = solidsOf(shape, new Set(units.map(({ key }) => key)));
    const stand = [...solids].map(([key, solid]) => {
      const by = offsets.get(key);
      return { key, by, solid: by ? solid.translate([...by]) : solid };
    });
    stand.forEach((a, i) => {
      for (const b of stand.slice(0, i)) {
        if (!a.by && !b.by) continue;
        expect(shared(a.solid, b.solid), `${a.key} and ${b.key}`).toBeLessThan(MOST_SKIN);
      }
    });
  });

  it("covers no more than in the whole, but for what no longer way helps against, by lines of sight through the meshes", () => {
    const { units, removals, offsets } = whole;
    const own = new Set(units.map(({ key }) => key));
    const pieces = picturedMeshes(shape).flatMap(({ record, mesh }) =>
      own.has(record) ? [{ key: record, mesh }] : [],
    );
    const left = coveredMore(pieces, offsets, FROM, 0.05);
    expect(left.length, left.join("; ")).toBeLessThanOrEqual(1);
    // Without longer ways the bench covers eight and the board two.
    const plain = coveredMore(pieces, offsetsOf(units, removals), FROM, 0.05);
    expect(plain.length).toBeGreaterThanOrEqual({ "HL-204": 5, "HL-211": 1 }[job.info.job.code] ?? 0);
  });

  it("is the same whatever the order of the records is", () => {
    const turned = <T>(table: Readonly<Record<string, T>>) =>
      Object.fromEntries(Object.entries(table).reverse());
    const other = {
      ...job,
      members: turned(job.members),
      panels: turned(job.panels),
      boughtParts: turned(job.boughtParts),
      placements: turned(job.placements),
    } as Job;
    const order = (apart: typeof whole) =>
      apart.removals.map(({ units }) =>
        units.map(({ key, way }) => `${key} ${way.map((v) => Math.round(v * 1e6))}`).sort(),
      );
    expect(order(pulledApart(shapeOf(other), null, NO_ASSETS, FROM))).toEqual(order(whole));
  });
});

describe("assemblies of the demo jobs", () => {
  it("come apart by themselves, one level at a time", () => {
    for (const [, job] of JOBS) {
      const shape = shapeOf(job);
      for (const home of Object.keys(job.assemblies) as Home[]) {
        const { units, removals, stuck } = pulledApart(shape, home, NO_ASSETS, FROM);
        expect(stuck).toEqual([]);
        if (units.length > 1) expect(removals.length).toBeGreaterThan(0);
      }
    }
  });

  it("move as one in what they stand in", () => {
    const { units } = pulledApart(shapeOf(seedPacketCabinet()), null, NO_ASSETS, FROM);
    expect(units.filter(({ key }) => key.includes(":")).length).toBeGreaterThan(3);
    expect(at(units, 0).parts.length).toBeGreaterThan(0);
  });
});
