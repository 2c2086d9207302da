/** What the picture shows: every piece as it stands, how it looks, and what a click on it means. */
import { unposeMesh } from "@/core/geometry";
import { type Assets, findAssembly, type Home, type Job } from "@/core/job";
import { type Instance, meshesOf, type Shape } from "@/core/shape";
import { isMetal } from "@/core/stockroom";
import type { ModelPiece } from "./model-scene";

/** How each record is shown, by its id: tint by what it is made of, and the look that somebody gave it. */
type Manner = Pick<ModelPiece, "tint" | "look">;

function manners(job: Job, shape: Shape): ReadonlyMap<string, Manner> {
  const homeLook = (home: Home) => findAssembly(job, home)?.look ?? null;
  return new Map<string, Manner>([
    ...shape.members.map(({ member, home, entry }) => {
      const tint = entry.shape.kind === "timber" ? "timber" : "steel";
      return [member.id, { tint, look: member.look ?? homeLook(home) }] as const;
    }),
    ...shape.panels.map(({ panel, board }) => {
      const tint = isMetal(board) ? "steel" : "board";
      return [panel.id, { tint, look: panel.look ?? homeLook(panel.assembly) }] as const;
    }),
    ...shape.bought.map(
      ({ part }) => [part.id, { tint: "bought", look: part.look ?? homeLook(part.assembly) }] as const,
    ),
  ]);
}

/** All pieces as they stand; with an assembly open, as they are seen from it, with those around it faded. */
export function modelPieces(
  job: Job,
  shape: Shape,
  { open, assets }: { readonly open: Instance | null; readonly assets: Assets },
): readonly ModelPiece[] {
  const manner = manners(job, shape);
  return meshesOf(shape, assets).map(({ record, instance, mesh }, i) => ({
    id: `${instance.key}${record} ${i}`,
    record,
    path: instance.path,
    mesh: open ? unposeMesh(mesh, open.pose) : mesh,
    tint: manner.get(record)?.tint ?? "steel",
    look: manner.get(record)?.look ?? null,
    faded: (open !== null && !instance.key.startsWith(open.key)) || instance.counted === "guide",
  }));
}

/** What a click on a piece means: the piece itself where it lives in what is open, else the assembly that holds it. */
export function pickedId({ record, path }: ModelPiece, open: Instance | null): string {
  if (!open) return path[0] ?? record;
  const within = open.path.every((id, i) => path[i] === id);
  return within ? (path[open.path.length] ?? record) : (path[0] ?? record);
}
