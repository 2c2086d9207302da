/** Putting pieces back that were left out of the lists: of themselves, or by what places their assembly. */
import type { Placement } from "./assembly";
import type { SimpleEdit } from "./edit";
import { homeOf } from "./homes";
import type { Job } from "./job";

/** The edits that put these pieces back: each record, and each placement, that leaves one of them out. */
export function putBackEdits(job: Job, ids: readonly string[]): readonly SimpleEdit[] {
  const out = (table: Readonly<Record<string, { readonly leftOut: boolean }>>) =>
    ids.filter((id) => table[id]?.leftOut);
  const around = new Set(ids.flatMap((id) => placementsAround(job, id)));
  const placed = (isOut: (placement: Placement) => boolean) =>
    [...around].flatMap((placement) => (isOut(placement) ? [placement.id as string] : []));
  const set = { leftOut: false };
  const edits: SimpleEdit[] = [
    { kind: "changeMembers", ids: out(job.members), set },
    { kind: "changePanels", ids: out(job.panels), set },
    { kind: "changeBoughtParts", ids: out(job.boughtParts), set },
    { kind: "changeTypedPieces", ids: out(job.typedPieces), set },
    { kind: "changePlacements", ids: placed(({ leftOut }) => leftOut), set },
    { kind: "changePlacements", ids: placed(({ without }) => without.length > 0), set: { without: [] } },
  ];
  return edits.filter((edit) => "ids" in edit && edit.ids.length > 0);
}

/** Placements that hold a piece, from its own home outwards. */
function placementsAround(job: Job, id: string): readonly Placement[] {
  const found: Placement[] = [];
  const outwards = (home: string | null | undefined, seen: ReadonlySet<string>): void => {
    if (home === null || home === undefined || seen.has(home)) return;
    for (const placement of Object.values(job.placements)) {
      if (placement.assembly !== home) continue;
      found.push(placement);
      outwards(placement.into, new Set([...seen, home]));
    }
  };
  outwards(job.assemblies[id] ? id : homeOf(job, id), new Set());
  return found;
}
