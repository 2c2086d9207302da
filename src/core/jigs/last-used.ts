/** The stock that something new begins with: what was used last in the job, else its usual one, else the first of its kind. */
import type { Job } from "../job";
import type { Stockroom } from "../stockroom";

/** `section`: of tube, bar or timber; null: the stockroom has none of the kind. */
export function lastUsed(
  job: Job,
  stockroom: Stockroom,
  kind: "section" | "timber" | "board",
): string | null {
  const { usual } = job.info.job;
  if (kind === "board") {
    const used = Object.values(job.panels).findLast(({ board }) =>
      stockroom.boardById.has(board ?? ""),
    )?.board;
    return used ?? usual.board ?? stockroom.boards[0]?.id ?? null;
  }
  const isTimber = (id: string | null) => stockroom.sectionById.get(id ?? "")?.shape.kind === "timber";
  const fits = (id: string | null) =>
    stockroom.sectionById.has(id ?? "") && (kind === "section" || isTimber(id));
  const used = Object.values(job.members).findLast(({ section }) => fits(section))?.section;
  if (used) return used;
  if (fits(usual.section)) return usual.section;
  const first = stockroom.sections.find(({ id }) => isTimber(id) === (kind === "timber"));
  return (first ?? stockroom.sections[0])?.id ?? null;
}
