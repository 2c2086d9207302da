/** What the pages of a job still lack. */
import type { Job } from "../../job";
import type { Shape } from "../../shape";
import type { Tally, TallyRow } from "../../tally";

/** The rows that a balloon could name (they have a mark, and stand somewhere), and those of them that none names on any page. */
export function balloonRows(
  job: Pick<Job, "pageItems">,
  { tally, shape }: { readonly tally: Tally; readonly shape: Shape },
): {
  readonly all: readonly TallyRow[];
  readonly without: readonly TallyRow[];
  /** How many balloons name a row, by the id of the row and that of the page. */
  readonly counts: ReadonlyMap<string, ReadonlyMap<string, number>>;
} {
  const standing = new Set<string>([
    ...shape.members.map(({ member }) => member.id),
    ...shape.panels.map(({ panel }) => panel.id),
    ...shape.bought.flatMap(({ part, stand }) => (stand ? [part.id] : [])),
  ]);
  const counts = new Map<string, Map<string, number>>();
  for (const item of Object.values(job.pageItems)) {
    if (item.kind !== "balloon") continue;
    // A balloon with leaders to several pieces of a row names it once.
    for (const row of new Set(item.pieces.map(({ record }) => tally.rowOfPiece.get(record)?.id ?? ""))) {
      const byPage = counts.get(row) ?? new Map<string, number>();
      counts.set(row, byPage.set(item.page, (byPage.get(item.page) ?? 0) + 1));
    }
  }
  const all = tally.rows.filter(
    ({ mark, pieces }) => mark !== "" && pieces.some(({ id }) => standing.has(id)),
  );
  return { all, without: all.filter(({ id }) => !counts.has(id)), counts };
}
