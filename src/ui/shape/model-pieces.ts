/** What the picture shows: every piece as it stands, how it looks, and what a click on it means. */
import { unposeMesh } from "@/core/geometry";
import { type Assets, findAssembly, type Home, type Job } from "@/core/job";
import { type Instance, meshesOf, type PlacedMesh, type Shape } from "@/core/shape";
import { isMetal } from "@/core/stockroom";
import type { ModelPiece } from "./model-scene";

/** How each record is shown: tint by what it is made of, and the look that somebody gave it. */
type Manner = Pick<ModelPiece, "tint" | "look">;
type Assemblies = Pick<Job, "assemblies">;

function manners(job: Assemblies, shape: Shape): ReadonlyMap<string, Manner> {
  const homeLook = (home: Home) => findAssembly(job, home)?.look ?? null;
  const found = new Map<string, Manner>();
  for (const { member, home, entry } of shape.members) {
    const tint = entry.shape.kind === "timber" ? "timber" : "steel";
    found.set(member.id, { tint, look: member.look ?? homeLook(home) });
  }
  for (const { panel, board } of shape.panels) {
    const tint = isMetal(board) ? "steel" : "board";
    found.set(panel.id, { tint, look: panel.look ?? homeLook(panel.assembly) });
  }
  for (const { part } of shape.bought)
    found.set(part.id, { tint: "bought", look: part.look ?? homeLook(part.assembly) });
  return found;
}

const UNKNOWN: Manner = { tint: "steel", look: null };

/** All pieces as they stand; with an assembly open, as they are seen from it, with those around it faded. */
export function modelPieces(
  job: Assemblies,
  shape: Shape,
  { open, assets }: { readonly open: Instance | null; readonly assets: Assets },
): readonly ModelPiece[] {
  const manner = manners(job, shape);
  return meshesOf(shape, assets).map((placed, i) =>
    modelPiece(placed, i, manner.get(placed.record) ?? UNKNOWN, open),
  );
}

function modelPiece(
  { record, instance, mesh }: PlacedMesh,
  i: number,
  { tint, look }: Manner,
  open: Instance | null,
): ModelPiece {
  return {
    id: `${instance.key}${record} ${i}`,
    record,
    path: instance.path,
    mesh: open ? unposeMesh(mesh, open.pose) : mesh,
    tint,
    look,
    faded: (open !== null && !instance.key.startsWith(open.key)) || instance.counted === "guide",
  };
}

/** What a click on a piece means: the piece itself where it lives in what is open, else the assembly that holds it. */
export function pickedId({ record, path }: ModelPiece, open: Instance | null): string {
  if (!open) return path[0] ?? record;
  const within = open.path.every((id, i) => path[i] === id);
  return within ? (path[open.path.length] ?? record) : (path[0] ?? record);
}
