/**
 * The cut list: an ordinary list (`cutListOf`), whose files hold besides what is needed to read it again, whatever is shown:
 * the sizes in columns of their own, grain, edging, and what somebody took out of the view.
 */
import { cutListOf, type ListColumn, type ListSetup, plainColumn } from "../job";
import { counted, remembersEach, remembersLast } from "../kernel";
import type { ListGround } from "./list-ground";
import { createLister } from "./own-list";
import type { Column, ListTable } from "./table";

const SIZES = ["length", "width", "thickness"] as const;
const WHOLE = "size";
const STOCK = ["stock", "material"] as const;
const PIECE = ["mark", "name", "count", "end1", "end2", "stand"] as const;
const PANEL = ["grain", "edging"] as const;

type Written = {
  readonly setup: ListSetup;
  /** Columns that are in files alone. */
  readonly added: ReadonlySet<string>;
};

/** A setup with the columns that its files hold besides: the sizes where they stand together, the rest at the end. */
function asWritten(setup: ListSetup): Written {
  const shown = new Set(setup.columns.map(({ column }) => column));
  // Groups by stock name it beside each row.
  const byStock = setup.groupBy === "stock" && setup.showRows && !setup.levels && !shown.has("stock");
  const lacking = (ids: readonly string[]) => ids.filter((id) => !shown.has(id)).map(plainColumn);
  const sizes = lacking(SIZES);
  const more = lacking([...PIECE, ...(byStock ? [] : STOCK), ...PANEL]);
  const columns = setup.columns.flatMap((column): ListColumn[] =>
    column.column === WHOLE ? [column, ...sizes] : [column],
  );
  return {
    setup: { ...setup, columns: [...columns, ...(shown.has(WHOLE) ? [] : sizes), ...more] },
    added: new Set([...sizes, ...more].map(({ column }) => column)),
  };
}

/** Makes the cut list of a job; what does not change between two calls is not computed again. */
export function createCutLister(): (ground: ListGround) => ListTable {
  const lister = createLister();
  const written = remembersLast(asWritten);
  const memory = {};
  const tables = remembersEach<object, ListTable>();
  const make = (ground: ListGround): ListTable => {
    const { setup, added } = written(cutListOf(ground.job));
    const table = lister(setup, ground);
    const column = (one: Column): Column =>
      added.has(one.id) ? { ...one, onlyIn: "files" } : one.id === WHOLE ? { ...one, onlyIn: "view" } : one;
    return { ...table, columns: table.columns.map(column), writtenNotes: ownNotes(ground) };
  };
  return (ground) => {
    const { job, sizes, stockroom, tally, quantities, shape } = ground;
    const { info, ownColumns, listCells, assemblies } = job;
    const from = [cutListOf(job), info, ownColumns, listCells, assemblies];
    return tables(memory, [...from, sizes, stockroom, tally, quantities, shape], () => make(ground));
  };
}

/** What became of the pieces of the design, and how the numbers are to be read. */
function ownNotes({ tally: { balance }, job }: ListGround): readonly string[] {
  return [
    `${counted(balance.design, "piece")} in the design = ${balance.inRows} in rows + ${balance.bought} bought + ${balance.leftOut} left out.`,
    `Lengths in ${job.info.job.unit}; end angles in degrees from square.`,
  ];
}
