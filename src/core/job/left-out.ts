/** Putting pieces back that were left out of the lists: of themselves, or by what places their assembly. */
import type { SimpleEdit } from "./edit";
import { homeOf } from "./homes";
import type { Job } from "./job";

/** The edits that put these pieces back: each record, and each placement, that leaves one of them out. */
export function putBackEdits(job: Job, ids: readonly string[]): readonly SimpleEdit[] {
  const out = (table: Readonly<Record<string, { readonly leftOut: boolean }>>) =>
    ids.filter((id) => table[id]?.leftOut);
  const placements = new Set(ids.flatMap((id) => leavingOut(job, id)));
  const set = { leftOut: false };
  const edits: SimpleEdit[] = [
    { kind: "changeMembers", ids: out(job.members), set },
    { kind: "changePanels", ids: out(job.panels), set },
    { kind: "changeBoughtParts", ids: out(job.boughtParts), set },
    { kind: "changeTypedPieces", ids: out(job.typedPieces), set },
    { kind: "changePlacements", ids: [...placements], set },
  ];
  return edits.filter((edit) => "ids" in edit && edit.ids.length > 0);
}

/** Placements that are left out and hold a piece, from its own home outwards. */
function leavingOut(job: Job, id: string): readonly string[] {
  const found: string[] = [];
  const outwards = (home: string | null | undefined, seen: ReadonlySet<string>): void => {
    if (home === null || home === undefined || seen.has(home)) return;
    for (const placement of Object.values(job.placements)) {
      if (placement.assembly !== home) continue;
      if (placement.leftOut) found.push(placement.id);
      outwards(placement.into, new Set([...seen, home]));
    }
  };
  outwards(job.assemblies[id] ? id : homeOf(job, id), new Set());
  return found;
}
