import { spawnSync } from "node:child_process";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { NodeIO } from "@gltf-transform/core";
import DxfParser from "dxf-parser";
import { describe, expect, it } from "vitest";
import { stockroomOf } from "@/core/stockroom";
import { writeJobFile } from "@/formats/job-file";
import { seedPacketCabinet } from "../../demo/seed-packet-cabinet";
import { demoStockroom } from "../../demo/stockroom";
import { trolleyStep } from "../../demo/trolley";
import { answer } from "./main";

const folder = mkdtempSync(path.join(tmpdir(), "tally-solids-"));
const file = (name: string, content: string | Uint8Array) => {
  const place = path.join(folder, name);
  writeFileSync(place, content);
  return place;
};
/** The cabinet of the demo as a job file. */
const jobText = writeJobFile(seedPacketCabinet(), stockroomOf(demoStockroom), {
  assets: new Map(),
  revision: 1,
});
const textOf = (out: string | Uint8Array) => (typeof out === "string" ? out : new TextDecoder().decode(out));

describe("solids on the command line", () => {
  it("a STEP file: its tally, as a job file, once more into that job, and out again", async () => {
    const step = file("trolley.step", trolleyStep());
    const tally = await answer(["tally", step]);
    const { rows } = JSON.parse(textOf(tally.stdout));
    const said = rows.map(
      ({ name, count, length }: { name: string; count: number; length: number | null }) => [
        name,
        count,
        length,
      ],
    );
    expect(said).toEqual(
      expect.arrayContaining([
        ["Long rail", 4, 940],
        ["Short rail", 4, 560],
        ["Post", 4, 700],
        ["Deck", 2, 940],
      ]),
    );
    const job = await answer(["import", step, "--title", "Trolley"]);
    const kept = file("trolley.tally.json", textOf(job.stdout));
    const twice = await answer(["import", step, "--into", kept]);
    const again = JSON.parse(
      textOf((await answer(["tally", file("twice.tally.json", textOf(twice.stdout))])).stdout),
    );
    expect(again.rows.find(({ name }: { name: string }) => name === "Post").count).toBe(8);
    const out = await answer(["export", kept, "--format", "step"]);
    expect(textOf(out.stdout)).toContain("MANIFOLD_SOLID_BREP('Post'");
    const glb = await answer(["export", kept, "--format", "glb"]);
    // An independent reader of glTF finds every piece.
    const document = await new NodeIO().readBinary(glb.stdout as Uint8Array);
    const nodes = document.getRoot().listNodes();
    expect(nodes.filter((node) => node.getName() === "Long rail" && node.getMesh())).toHaveLength(4);
    expect(nodes.filter((node) => node.getMesh())).toHaveLength(18);
  });

  it("one piece alone, in its own axes, by its mark; panels laid flat, holes as circles", async () => {
    const job = file("HL-207.json", jobText);
    const one = await answer(["export", job, "--piece", "A", "--format", "step"]);
    expect(one.code).toBe(0);
    const text = textOf(one.stdout);
    expect(text.match(/MANIFOLD_SOLID_BREP/g)).toHaveLength(1);
    // It comes back alone, as large as it is.
    const read = JSON.parse(textOf((await answer(["tally", file("one.step", text)])).stdout));
    const row = JSON.parse(textOf((await answer(["tally", job])).stdout)).rows.find(
      ({ mark }: { mark: string }) => mark === "A",
    );
    expect(read.rows).toHaveLength(1);
    expect([read.rows[0].length, read.rows[0].width].toSorted()).toEqual([row.length, row.width].toSorted());
    const flat = await answer(["export", job, "--format", "dxf"]);
    expect(textOf(flat.stdout)).toContain("CUTS");
    const audit = spawnSync("ezdxf", ["audit", file("flat.dxf", flat.stdout)], { encoding: "utf8" });
    expect(audit.stdout).toContain("No errors found");
    // One outline for each row of panels.
    const panels = JSON.parse(textOf((await answer(["tally", job])).stdout)).rows.filter(
      ({ kind }: { kind: string }) => kind === "panel",
    );
    const drawn = new DxfParser().parseSync(textOf(flat.stdout));
    const outlines = drawn?.entities.filter(({ type, layer }) => type === "LWPOLYLINE" && layer === "CUTS");
    expect(outlines).toHaveLength(panels.length);
    const none = await answer(["export", job, "--piece", "ZZ"]);
    expect([none.code, none.stderr]).toEqual([2, expect.stringContaining('no piece "ZZ"')]);
  });

  it("outlines of a DXF file become panels, unless it is said to be a frame", async () => {
    const drawing = "src/formats/fixtures/panels-R2010.dxf";
    const panels = await answer(["import", drawing]);
    expect(panels.code).toBe(1);
    expect(panels.stderr).toContain("tells no unit");
    expect(panels.stderr).toContain("Without a board, since no layer is called as one: ");
    expect(Object.keys(JSON.parse(textOf(panels.stdout)).job.panels)).toHaveLength(4);
    const frame = await answer(["import", drawing, "--as", "frame"]);
    expect(Object.keys(JSON.parse(textOf(frame.stdout)).job.panels)).toHaveLength(0);
    expect((await answer(["import", drawing, "--as", "lines"])).code).toBe(2);
  });

  it("lines of a DXF file, on layers that are called as a section; bad files in one sentence", async () => {
    const lines = await answer(["import", "src/formats/fixtures/skeleton-R2018.dxf"]);
    expect(lines.stderr).toContain("1 arc");
    expect(Object.keys(JSON.parse(textOf(lines.stdout)).job.lines)).toHaveLength(9);
    for (const bad of [file("bad.step", "nothing"), file("bad.dxf", "nothing")]) {
      const refused = await answer(["import", bad]);
      expect([refused.code, refused.stdout]).toEqual([2, ""]);
      expect(refused.stderr.split("\n")).toHaveLength(1);
    }
  });
});
