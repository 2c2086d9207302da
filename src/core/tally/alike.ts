/** What else of a job is like what is selected: of the same row, of the same stock, or of the same name. */
import type { TallyRow } from "./row";

export type AlikeBy = "row" | "stock" | "name";

/** The pieces of all rows that agree with a row of the selection; in the order of the rows. */
export function alike(
  rows: readonly TallyRow[],
  selected: ReadonlySet<string>,
  by: AlikeBy,
): readonly string[] {
  const key = ({ id, kind, stock, stockName, name }: TallyRow) =>
    by === "row" ? id : by === "stock" ? `${kind} ${stock ?? stockName ?? ""}` : `${kind} ${name}`;
  const chosen = new Set(
    rows.filter(({ pieces }) => pieces.some(({ id }) => selected.has(id))).map((row) => key(row)),
  );
  return rows.filter((row) => chosen.has(key(row))).flatMap(({ pieces }) => pieces.map(({ id }) => id));
}
