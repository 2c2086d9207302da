/** The columns that a list can be given: computed ones, the job's own, key sizes. */
import { type Job, ownColumnId } from "@/core/job";
import { LIST_COLUMNS } from "@/core/lists";

export type ColumnChoice = { readonly value: string; readonly label: string };

export function columnChoices(job: Job): readonly ColumnChoice[] {
  const own = Object.values(job.ownColumns).sort((a, b) => a.position - b.position);
  return [
    ...own.map((column) => ({ value: ownColumnId(column), label: `${column.name} (custom)` })),
    ...LIST_COLUMNS.map(({ id, heading }) => ({ value: id, label: heading })),
    ...Object.values(job.keySizes).map(({ name }) => ({ value: `key:${name}`, label: `key size ${name}` })),
  ];
}
