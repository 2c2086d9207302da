/**
 * The reader of STEP geometry: OpenCascade compiled to WebAssembly (occt-import-js). Synchronous once loaded, so it belongs
 * in a worker that can be ended. Each solid comes as triangles, with those of each face side by side.
 */
import loadOcct, { type OcctMesh, type OcctNode } from "occt-import-js";
import type { SolidMesh } from "@/core/recognise";
import { withoutEval, withoutEvalMeanwhile } from "./without-eval";

export type StepMesh = {
  /** Names of the nodes above it, the outermost first. */
  readonly path: readonly string[];
  readonly name: string;
  /** Red, green and blue from 0 to 1, linear; null: it has no colour. */
  readonly colour: readonly [number, number, number] | null;
  readonly mesh: SolidMesh;
};

export type StepReader = (text: string) => readonly StepMesh[] | null;

/**
 * mm, radians. Finer costs time and makes nothing exacter: surfaces are fitted to corners that lie on them. Coarser would give
 * shapes of bought parts other contents, and a file that was read before would seem to have changed.
 */
const FINENESS = { linearDeflection: 0.05, angularDeflection: 0.2 };

/** Loads the reader. `wasmUrl` is needed in the browser. What it reads is in mm; null: it cannot read the file. */
export async function loadStepReader(wasmUrl?: string): Promise<StepReader> {
  const load = () =>
    loadOcct({
      ...(wasmUrl === undefined ? {} : { locateFile: () => wasmUrl }),
      // It writes what it thinks of a file to the output, which is not ours.
      print: () => {},
      printErr: () => {},
    });
  const occt = await withoutEvalMeanwhile(load);
  return (text) => {
    const read = () =>
      occt.ReadStepFile(new TextEncoder().encode(text), {
        linearUnit: "millimeter",
        linearDeflectionType: "absolute_value",
        ...FINENESS,
      });
    const result = withoutEval(read);
    if (!result.success) return null;
    const meshes: StepMesh[] = [];
    const walk = (node: OcctNode, path: readonly string[]): void => {
      for (const index of node.meshes) {
        const mesh = result.meshes[index];
        if (mesh) meshes.push({ path, name: mesh.name, colour: mesh.color ?? null, mesh: solidMesh(mesh) });
      }
      for (const child of node.children) walk(child, [...path, child.name]);
    };
    walk(result.root, []);
    return meshes;
  };
}

const solidMesh = (mesh: OcctMesh): SolidMesh => ({
  positions: mesh.attributes.position.array,
  corners: mesh.index.array,
  faces: mesh.brep_faces.map(({ first, last }) => [first, last + 1] as const),
});
