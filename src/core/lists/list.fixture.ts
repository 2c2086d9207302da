/** What the tests of the lists share: a plain setup, the ground of a job, and the texts of a list's rows. */
import { type Job, LIST_DEFAULTS, type ListColumn, type ListSetup, plainColumn } from "../job";
import { resultsOf, STOCK, smallFrame } from "../pipeline.fixture";
import { type ListGround, type ListRow, type ListTable, ownList } from ".";

export const groundOf = (job: Job): ListGround => ({ job, stockroom: STOCK, ...resultsOf(job) });

export const columns = (...ids: string[]): ListColumn[] => ids.map(plainColumn);

export const setup = (more: Partial<ListSetup>): ListSetup => ({
  ...LIST_DEFAULTS,
  id: "list" as never,
  name: "List",
  kinds: ["member", "panel", "other", "bought"],
  assembly: null,
  columns: columns("mark", "name", "count", "length"),
  order: [],
  groupBy: null,
  showRows: true,
  totals: false,
  sizeOfMember: null,
  sizeOfPanel: null,
  position: 0,
  ...more,
});

export const rowsOf = (table: ListTable): readonly ListRow[] => table.groups.flatMap((group) => group.rows);

export const texts = (list: ListSetup, job: Job = smallFrame()) =>
  rowsOf(ownList(list, groundOf(job))).map((row) =>
    list.columns.map(({ column }) => row.cells[column]?.text),
  );
