import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { NodeIO } from "@gltf-transform/core";
import { describe, expect, it } from "vitest";
import { trolleyStep } from "../../demo/trolley";
import { answer } from "./main";

const folder = mkdtempSync(path.join(tmpdir(), "tally-solids-"));
const file = (name: string, content: string | Uint8Array) => {
  const place = path.join(folder, name);
  writeFileSync(place, content);
  return place;
};
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
