/**
 * What is written as STEP, read by an exact kernel (OpenCascade as replicad-opencascadejs builds it): every solid is valid, and
 * its volume is that of the closed form.
 */
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { beforeAll, describe, expect, it } from "vitest";
import { modelOf } from "@/core/brep";
import { kindOf } from "@/core/ends";
import { type Job, NO_ASSETS, newJob } from "@/core/job";
import { seededRandom } from "@/core/kernel";
import { createPipeline } from "@/core/pipeline";
import type { MemberSolid } from "@/core/shape";
import { sectionProperties } from "@/core/stockroom";
import { randomCopes, randomPieces, STOCKROOM } from "./round-trip.fixture";
import { writeStep } from "./write";

const require = createRequire(import.meta.url);
// The package types thousands of classes; the few that are used are named here.
// biome-ignore lint/suspicious/noExplicitAny: classes of a kernel that come without names of their own
let oc: any;

beforeAll(async () => {
  const load = require("replicad-opencascadejs");
  const wasmBinary = readFileSync(require.resolve("replicad-opencascadejs/wasm"));
  oc = await (load.default ?? load)({ wasmBinary });
}, 60_000);

/** Volumes of the solids of a text, in mm³; throws where one is not valid. */
function solidsOf(text: string): readonly number[] {
  oc.FS.writeFile("/test.step", text);
  const reader = new oc.STEPControl_Reader();
  reader.ReadFile("/test.step");
  oc.FS.unlink("/test.step");
  reader.TransferRoots(new oc.Message_ProgressRange());
  const { TopAbs_SOLID, TopAbs_SHAPE } = oc.TopAbs_ShapeEnum;
  const explorer = new oc.TopExp_Explorer(reader.OneShape(), TopAbs_SOLID, TopAbs_SHAPE);
  const volumes: number[] = [];
  for (; explorer.More(); explorer.Next()) {
    const solid = explorer.Current();
    if (!new oc.BRepCheck_Analyzer(solid, true, false, false).IsValid())
      throw new Error("a solid is not valid");
    const properties = new oc.GProp_GProps();
    oc.BRepGProp.VolumeProperties(solid, properties, true, false, false);
    volumes.push(properties.Mass());
  }
  return volumes;
}

/** Area × length on the centroids, and what the mean height of an end beyond them adds. */
function volumeOf({ entry, start, end }: MemberSolid): number {
  const mean = ({ form }: MemberSolid["end"]) => kindOf(form).mean(form, entry.shape);
  return sectionProperties(entry.shape).areaMm2 * (end.z + mean(end) - (start.z - mean(start)));
}

describe("an exact kernel reads what is written", () => {
  it("members of every section: valid, with the volume of area and length", () => {
    const { members, ...rest } = randomPieces(seededRandom(77), 60);
    // Area × length takes no holes off.
    const whole: Job["members"] = {};
    for (const member of Object.values(members)) whole[member.id] = { ...member, work: [] };
    const job = { ...rest, members: whole, panels: {} };
    const { shape } = createPipeline()(job, null, STOCKROOM, []);
    const volumes = solidsOf(
      writeStep(modelOf(job, shape, NO_ASSETS), { name: "x", made: new Date(0), shop: "" }),
    );
    const wanted = shape.members.map(volumeOf);
    const sorted = (all: readonly number[]) => all.toSorted((a, b) => a - b);
    expect(volumes).toHaveLength(wanted.length);
    for (const [i, volume] of sorted(volumes).entries())
      expect(Math.abs(volume / (sorted(wanted)[i] ?? 1) - 1)).toBeLessThan(1e-6);
  });

  it("coped tubes and bars, round what is as wide and what is wider: valid, with the volume that the mean height makes", () => {
    const job = randomCopes(seededRandom(79), 24);
    const { shape } = createPipeline()(job, null, STOCKROOM, []);
    const model = modelOf(job, shape, NO_ASSETS);
    expect(model.faceted).toEqual([]);
    const volumes = solidsOf(writeStep(model, { name: "x", made: new Date(0), shop: "" }));
    const wanted = shape.members.map(volumeOf);
    expect(shape.members.filter(({ start }) => start.form.kind === "cope").length).toBeGreaterThan(20);
    expect(volumes).toHaveLength(wanted.length);
    const sorted = (all: readonly number[]) => all.toSorted((a, b) => a - b);
    for (const [i, volume] of sorted(volumes).entries())
      expect(Math.abs(volume / (sorted(wanted)[i] ?? 1) - 1)).toBeLessThan(1e-6);
  });

  it("members with holes, slots and notches: valid", () => {
    const job = { ...randomPieces(seededRandom(81), 120), panels: {} };
    const { shape } = createPipeline()(job, null, STOCKROOM, []);
    const holed = new Set(
      shape.members.flatMap(({ member, work }) => (work?.holes.length ? [member.id] : [])),
    );
    expect(holed.size).toBeGreaterThan(10);
    const model = modelOf(job, shape, NO_ASSETS);
    // Where a slanting end reaches beyond a notch there are facets.
    expect(model.faceted.length).toBeLessThan(0.05 * shape.members.length);
    expect(solidsOf(writeStep(model, { name: "x", made: new Date(0), shop: "" }))).toHaveLength(
      shape.members.length,
    );
  });

  it("a notched timber with a hole: valid, and as much less as both take off", () => {
    const job = newJob({
      info: { code: "N", title: "Notched" },
      points: { P: ["0", "0", "0"], Q: ["800", "0", "0"] },
      members: {
        m: {
          name: "Rail",
          from: "P",
          to: "Q",
          // 95 x 45.
          section: "section12",
          end: { kind: "angled", acrossWidth: "20", acrossHeight: "0", offset: "0" },
          work: [
            { id: "n", kind: "notch", face: "top", end: "start", depth: "20", length: "60" },
            {
              id: "h",
              kind: "hole",
              face: "top",
              from: "start",
              along: "300",
              across: "0",
              diameter: "10",
              slot: "0",
              walls: "all",
              count: "1",
              step: "0",
            },
          ],
        },
      },
    });
    const { shape } = createPipeline()(job, null, STOCKROOM, []);
    const model = modelOf(job, shape, NO_ASSETS);
    expect(model.faceted).toEqual([]);
    const [volume] = solidsOf(writeStep(model, { name: "x", made: new Date(0), shop: "" }));
    const wanted = 95 * 45 * 800 - 95 * 20 * 60 - Math.PI * 25 * 45;
    expect(Math.abs((volume ?? 0) / wanted - 1)).toBeLessThan(1e-6);
  });

  it("a panel with cut-outs: valid, and as much less as their areas take off", () => {
    const corner = (k: number, x: number, y: number, radius: number) => ({
      id: `c${k}`,
      fromX: "left" as const,
      x: String(x),
      fromY: "front" as const,
      y: String(y),
      radius: String(radius),
    });
    const slot = [
      corner(0, 50, 50, 20),
      corner(1, 150, 50, 20),
      corner(2, 150, 90, 20),
      corner(3, 50, 90, 20),
    ];
    const triangle = [corner(4, 200, 50, 0), corner(5, 300, 50, 0), corner(6, 200, 150, 0)];
    const job = newJob({
      info: { code: "C", title: "Cut-outs" },
      panels: {
        p: {
          name: "Front",
          board: "ply",
          length: "400",
          width: "200",
          work: [
            { id: "a", kind: "cutOut", corners: slot },
            { id: "b", kind: "cutOut", corners: triangle },
          ],
        },
      },
    });
    const { shape } = createPipeline()(job, null, STOCKROOM, []);
    const model = modelOf(job, shape, NO_ASSETS);
    expect(model.faceted).toEqual([]);
    const [volume] = solidsOf(writeStep(model, { name: "x", made: new Date(0), shop: "" }));
    const wanted = 18 * (400 * 200 - (60 * 40 + Math.PI * 20 ** 2) - 100 ** 2 / 2);
    expect(Math.abs((volume ?? 0) / wanted - 1)).toBeLessThan(1e-6);
  });

  it("panels with outlines, holes, cut-outs and grooves: valid", () => {
    const job = { ...randomPieces(seededRandom(78), 60), members: {} };
    const { shape } = createPipeline()(job, null, STOCKROOM, []);
    const volumes = solidsOf(
      writeStep(modelOf(job, shape, NO_ASSETS), { name: "x", made: new Date(0), shop: "" }),
    );
    expect(volumes).toHaveLength(shape.panels.length);
    expect(volumes.every((volume) => volume > 0)).toBe(true);
  });
});
