/** What the picture shows: every piece as it stands, how it looks, and what a click on it means. */
import { unposeMesh } from "@/core/geometry";
import { type Assets, findAssembly, type Home, type Job } from "@/core/job";
import { type Instance, meshesOf, type PlacedMesh, type Shape } from "@/core/shape";
import { isMetal } from "@/core/stockroom";
import type { ModelPiece } from "./model-scene";

/** How each record is shown: tint by what it is made of, and the look that somebody gave it. */
type Manner = Pick<ModelPiece, "tint" | "look">;
type Assemblies = Pick<Job, "assemblies">;

function mannerOf(job: Assemblies, of: PlacedMesh["of"]): Manner {
  const homeLook = (home: Home) => findAssembly(job, home)?.look ?? null;
  if ("member" in of) {
    const tint = of.entry.shape.kind === "timber" ? "timber" : "steel";
    return { tint, look: of.member.look ?? homeLook(of.home) };
  }
  if ("panel" in of) {
    const tint = isMetal(of.board) ? "steel" : "board";
    return { tint, look: of.panel.look ?? homeLook(of.panel.assembly) };
  }
  return { tint: "bought", look: of.part.look ?? homeLook(of.part.assembly) };
}

/** All pieces as they stand; with an assembly open, as they are seen from it, with those around it faded. */
export function modelPieces(
  job: Assemblies,
  shape: Shape,
  { open, assets }: { readonly open: Instance | null; readonly assets: Assets },
): readonly ModelPiece[] {
  return meshesOf(shape, assets).map(({ record, of, instance, mesh }, i) => ({
    id: `${instance.key}${record} ${i}`,
    record,
    path: instance.path,
    mesh: open ? unposeMesh(mesh, open.pose) : mesh,
    ...mannerOf(job, of),
    faded: (open !== null && !instance.key.startsWith(open.key)) || instance.counted === "guide",
  }));
}

/** What a click on a piece means: the piece itself where it lives in what is open, else the assembly that holds it. */
export function pickedId({ record, path }: ModelPiece, open: Instance | null): string {
  if (!open) return path[0] ?? record;
  const within = open.path.every((id, i) => path[i] === id);
  return within ? (path[open.path.length] ?? record) : (path[0] ?? record);
}
