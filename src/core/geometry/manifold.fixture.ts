/** Meshes as solids of manifold-3d, a kernel that knows nothing of this program. */
import type { Manifold, ManifoldToplevel } from "manifold-3d";
import type { Mesh } from "./mesh";
import { sewn } from "./mesh.fixture";

/** Corners that lie on one another are made one, and edges parted where others end on them. */
export function manifoldOf(kernel: ManifoldToplevel, loose: Mesh): Manifold {
  const mesh = sewn(loose);
  const made = new kernel.Mesh({
    numProp: 3,
    vertProperties: new Float32Array(mesh.vertices.flat()),
    triVerts: new Uint32Array(mesh.triangles),
  });
  made.merge();
  return new kernel.Manifold(made);
}
