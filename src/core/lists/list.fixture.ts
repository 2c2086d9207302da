/** What the tests of the lists share: a plain setup, the ground of a job, and the texts of a list's rows. */
import {
  type Edit,
  type Job,
  LIST_DEFAULTS,
  type ListColumn,
  type ListSetup,
  type OwnColumn,
  plainColumn,
} from "../job";
import { edited } from "../job/edit.fixture";
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

/** The edit that gives the job an own column, a text where nothing else is said. */
export const own = (name: string, more: Partial<OwnColumn> = {}): Edit => ({
  kind: "setOwnColumn",
  column: {
    id: name.toLowerCase().replace(/\W/g, "-") as never,
    name,
    kind: "text",
    choices: [],
    formula: null,
    forAll: null,
    position: 0,
    ...more,
  },
});

/** The edit that gives records a value in an own column. */
export const value = (
  column: string,
  records: string[],
  text: string,
  id = `${column} ${records[0]}`,
): Edit => ({
  kind: "setCell",
  cell: {
    id: id as never,
    list: null,
    column: `own:${column}`,
    records,
    summed: false,
    text,
    computed: null,
  },
});

/** The edit that types over a computed cell of the list. */
export const over = (
  column: string,
  records: string[],
  text: string,
  computed: string,
  summed = false,
): Edit => ({
  kind: "setCell",
  cell: { id: `over-${column}` as never, list: "list", column, records, summed, text, computed },
});

/** A job after some edits. */
export const made = (job: Job, ...edits: Edit[]) => edits.reduce((now, edit) => edited(edit, now), job);

export const cellIn = (table: ListTable, record: string, column: string) =>
  rowsOf(table).find((row) => row.records.includes(record))?.cells[column];
