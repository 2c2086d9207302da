/** Shapes of suppliers as glTF: what goes out comes back, where its nodes put it; too fine ones coarser; the rest in a sentence. */
import { Document, NodeIO } from "@gltf-transform/core";
import { describe, expect, it } from "vitest";
import { modelOf } from "@/core/brep";
import { NO_ASSETS } from "@/core/job";
import { sentence } from "@/core/kernel";
import { resultsOf, smallFrame } from "@/core/pipeline.fixture";
import { writeGlb } from "./glb";
import { readGltf } from "./glb-in";

const bufferOf = (bytes: Uint8Array): ArrayBuffer => bytes.slice().buffer;

/** Sizes over all, in mm. */
function sizeOf(triangles: readonly number[]): readonly number[] {
  return [0, 1, 2].map((axis) => {
    const along = triangles.filter((_, i) => i % 3 === axis);
    return Math.round(100 * (Math.max(...along) - Math.min(...along))) / 100;
  });
}

/** A ball of so many triangles, as another program writes it; turned and moved by its node. */
async function ball(steps: number): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const places: number[] = [];
  const corners: number[] = [];
  for (let i = 0; i <= steps; i++)
    for (let j = 0; j <= steps; j++) {
      const [a, b] = [(Math.PI * i) / steps, (2 * Math.PI * j) / steps];
      places.push(0.05 * Math.sin(a) * Math.cos(b), 0.05 * Math.cos(a), 0.05 * Math.sin(a) * Math.sin(b));
      if (i < steps && j < steps) {
        const first = i * (steps + 1) + j;
        corners.push(first, first + 1, first + steps + 1, first + 1, first + steps + 2, first + steps + 1);
      }
    }
  const primitive = document
    .createPrimitive()
    .setAttribute(
      "POSITION",
      document.createAccessor().setType("VEC3").setArray(new Float32Array(places)).setBuffer(buffer),
    )
    .setIndices(
      document.createAccessor().setType("SCALAR").setArray(new Uint32Array(corners)).setBuffer(buffer),
    );
  const node = document.createNode("ball").setMesh(document.createMesh().addPrimitive(primitive));
  node.setTranslation([1, 2, 3]).setScale([1, 2, 1]);
  document.createScene().addChild(node);
  return new NodeIO().writeBinary(document);
}

describe("a shape from glTF", () => {
  it("is as large as what was given out, upright, on its foot", async () => {
    const job = smallFrame();
    const bytes = await writeGlb(modelOf(job, resultsOf(job).shape, NO_ASSETS));
    const read = await readGltf("frame.glb", bufferOf(bytes));
    if (!read.ok) throw new Error(sentence(read.problem));
    const { asset, standIn } = read.value;
    expect(standIn.kind === "shape" && standIn.name).toBe("frame.glb");
    // 600 × 400 over the tubes' middles of 20 each, 450 high and half a tube.
    expect(asset.kind === "shape" && sizeOf(asset.triangles)).toEqual([600, 400, 470]);
    expect(asset.kind === "shape" && Math.min(...asset.triangles.filter((_, i) => i % 3 === 2))).toBe(0);
  });

  it("stands where its node puts it, and is made coarser where it is too fine", async () => {
    const few = await readGltf("ball.glb", bufferOf(await ball(20)));
    if (!few.ok || few.value.asset.kind !== "shape") throw new Error("not read");
    // Twice as high as wide: y of the file is up.
    expect(sizeOf(few.value.asset.triangles)).toEqual([100, 100, 200]);
    const many = await readGltf("ball.glb", bufferOf(await ball(120)));
    if (!many.ok || many.value.asset.kind !== "shape") throw new Error("not read");
    const { standIn, asset } = many.value;
    expect(standIn.kind === "shape" && standIn.name).toBe("ball.glb, coarser");
    expect(asset.triangles.length / 9).toBeLessThanOrEqual(4_000);
    expect(asset.triangles.length / 9).toBeGreaterThan(500);
    const sizes = sizeOf(asset.triangles);
    for (const [i, size] of [100, 100, 200].entries())
      expect(Math.abs((sizes[i] ?? 0) - size)).toBeLessThan(0.06 * size);
  });

  it("that is none, is empty or needs other files is a sentence", async () => {
    const empty = await new NodeIO().writeBinary(new Document());
    const apart = JSON.stringify({
      asset: { version: "2.0" },
      buffers: [{ uri: "far.bin", byteLength: 12 }],
      bufferViews: [{ buffer: 0, byteLength: 12 }],
      accessors: [{ bufferView: 0, componentType: 5126, count: 1, type: "VEC3" }],
      meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }],
      nodes: [{ mesh: 0 }],
      scenes: [{ nodes: [0] }],
    });
    for (const bytes of [
      new Uint8Array(),
      new TextEncoder().encode("nothing"),
      empty,
      new TextEncoder().encode(apart),
    ]) {
      const read = await readGltf("part.glb", bufferOf(bytes));
      expect(read.ok ? "read" : sentence(read.problem)).toMatch(/part\.glb.*[.]$/);
    }
  });
});
