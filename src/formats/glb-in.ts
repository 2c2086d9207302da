/**
 * The triangles of a glTF 2.0 file (Khronos), binary or as JSON with its buffers within it, as the shape that stands for a bought part:
 * every mesh where its nodes put it, metres with y upwards as millimetres with z upwards.
 */
import { type Document, Primitive, WebIO } from "@gltf-transform/core";
import { err, type Problem, type Result } from "@/core/kernel";
import { type ReadShape, shapeOfTriangles } from "@/core/shape";

export async function readGltf(name: string, bytes: ArrayBuffer): Promise<Result<ReadShape, Problem>> {
  const refuse = (why: string) => err({ kind: "malformed", what: name, why } as const);
  const document = await opened(bytes);
  if (!document)
    return refuse(
      "it is no glTF file, packs its triangles, or needs other files; export it as .glb without compression",
    );
  const numbers: number[] = [];
  for (const scene of document.getRoot().listScenes())
    scene.traverse((node) => {
      const m = node.getWorldMatrix();
      for (const primitive of node.getMesh()?.listPrimitives() ?? []) {
        if (primitive.getMode() !== Primitive.Mode["TRIANGLES"]) continue;
        const places = primitive.getAttribute("POSITION")?.getArray();
        if (!places) continue;
        const order =
          primitive.getIndices()?.getArray() ?? Array.from({ length: places.length / 3 }, (_, i) => i);
        for (const i of order) {
          const [x, y, z] = [places[3 * i] ?? 0, places[3 * i + 1] ?? 0, places[3 * i + 2] ?? 0];
          const on = (row: 0 | 1 | 2) =>
            1000 * (m[row] * x + (m[row + 4] ?? 0) * y + (m[row + 8] ?? 0) * z + (m[row + 12] ?? 0));
          numbers.push(on(0), 0 - on(2), on(1));
        }
      }
    });
  return shapeOfTriangles(name, numbers);
}

/** The document; null: it is none, or asks for what is not in it. */
async function opened(bytes: ArrayBuffer): Promise<Document | null> {
  const io = new WebIO();
  try {
    const isBinary = new DataView(bytes).getUint32(0, true) === 0x46546c67;
    return isBinary
      ? await io.readBinary(new Uint8Array(bytes))
      : await io.readJSON({ json: JSON.parse(new TextDecoder().decode(bytes)), resources: {} });
  } catch {
    return null;
  }
}
