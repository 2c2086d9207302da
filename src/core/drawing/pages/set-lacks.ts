/** What the pages of a job still lack. */
import type { Job } from "../../job";
import type { Shape } from "../../shape";
import type { Tally, TallyRow } from "../../tally";

/** The rows that a balloon could name (they have a mark, and stand somewhere), and those of them that none names on any page. */
export function balloonRows(
  job: Pick<Job, "pageItems">,
  { tally, shape }: { readonly tally: Tally; readonly shape: Shape },
): { readonly all: readonly TallyRow[]; readonly without: readonly TallyRow[] } {
  const standing = new Set<string>([
    ...shape.members.map(({ member }) => member.id),
    ...shape.panels.map(({ panel }) => panel.id),
    ...shape.bought.flatMap(({ part, stand }) => (stand ? [part.id] : [])),
  ]);
  const named = new Set<string>();
  for (const item of Object.values(job.pageItems))
    if (item.kind === "balloon")
      for (const { record } of item.pieces) named.add(tally.rowOfPiece.get(record)?.id ?? "");
  const all = tally.rows.filter(
    ({ mark, pieces }) => mark !== "" && pieces.some(({ id }) => standing.has(id)),
  );
  return { all, without: all.filter(({ id }) => !named.has(id)) };
}
