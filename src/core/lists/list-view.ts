/**
 * One list as it is looked into: which columns there are, and what each says of a line, with what somebody typed
 * standing over what is computed. Own columns take their values from the job or from their formula.
 */
import {
  type ColumnFormula,
  computedColumn,
  isLink,
  type ListCell,
  type ListColumn,
  type ListSetup,
  type OwnColumn,
  ownColumnId,
  ownColumnIn,
  plainColumn,
  plainName,
  readColumnFormula,
} from "../job";
import { counted, sentence } from "../kernel";
import {
  evaluateFormula,
  type FormulaValue,
  formatDecimal,
  MM_PER_UNIT,
  parseLength,
  parsePlainNumber,
} from "../measure";
import { type CellGround, LIST_COLUMNS, type ListColumnKind, lengthCell } from "./list-columns";
import { keySizeNumber, type Line, type ListGround, styleWith } from "./list-ground";
import {
  type Cell,
  type Column,
  EMPTY,
  MISSING,
  NOT_APPLICABLE,
  type NumberWriting,
  numberCell,
  severalCell,
  textCell,
} from "./table";

export type ListView = {
  readonly setup: ListSetup;
  readonly ground: ListGround;
  /** The kind of a column; null when there is no such column any more. */
  readonly kind: (column: string) => ListColumnKind | null;
  /** The setup of a column that the list shows, or the plain one. */
  readonly shown: (column: string) => ListColumn;
  readonly cell: (line: Line, column: ListColumn) => Cell;
  /** A computed cell with what was typed over it, for rows that add others up. */
  readonly typedOver: (cell: Cell, column: ListColumn, records: readonly string[], summed: boolean) => Cell;
};

const KEY = "key:";
const MOST_NESTED = 20;

/** A number as short as it can be written, to three places. */
export const short = (value: number) => formatDecimal(value, 3, false);

const COLUMN_BY_ID = new Map(LIST_COLUMNS.map((column) => [column.id, column]));

/** A column of a key size, which says the same in every row. */
function keySizeColumn(id: string): ListColumnKind {
  const name = id.slice(KEY.length);
  return {
    id,
    heading: name,
    align: "right",
    width: 11,
    adds: false,
    sumOf: null,
    writes: { kind: "plain" },
    cell: (_, { ground }) => {
      const value = keySizeNumber(ground, name);
      return value === null ? MISSING : numberCell(value, short(value));
    },
  };
}

/** Looks into a list; cells are computed once for each line and column. */
export function listView(setup: ListSetup, ground: ListGround): ListView {
  const { job } = ground;
  const own = new Map(Object.values(job.ownColumns).map((column) => [ownColumnId(column), column]));
  const ids = new Map<string, string | null>();
  const idOf = (name: string): string | null => {
    const known = ids.get(name);
    if (known !== undefined) return known;
    const wanted = plainName(name);
    const found = Object.values(job.ownColumns).find((column) => plainName(column.name) === wanted);
    const id = found ? ownColumnId(found) : computedColumn(name);
    ids.set(name, id);
    return id;
  };
  const typed = typedCells(setup, ground);
  const kinds = new Map<string, ListColumnKind | null>();
  const shownColumns = new Map(setup.columns.map((column) => [column.column, column]));
  const cells = new Map<ListColumn, Map<Line, Cell>>();
  const plain = new Map<string, ListColumn>();
  let nested = 0;

  const kind = (id: string): ListColumnKind | null => {
    const known = kinds.get(id);
    if (known !== undefined) return known;
    const column = own.get(id);
    const made = column
      ? ownColumnKind(column, ground, typedFor)
      : (COLUMN_BY_ID.get(id) ?? (id.startsWith(KEY) ? keySizeColumn(id) : null));
    kinds.set(id, made);
    return made;
  };
  const shown = (id: string): ListColumn => {
    const known = shownColumns.get(id) ?? plain.get(id);
    if (known) return known;
    const made = plainColumn(id);
    plain.set(id, made);
    return made;
  };
  /** A column with its lengths written as another one writes them; the same object each time. */
  const written = new Map<string, ListColumn>();
  const alike = (id: string, { column, format, unit }: ListColumn): ListColumn => {
    const key = `${id} ${column}`;
    const made = written.get(key) ?? { ...plainColumn(id), format, unit };
    written.set(key, made);
    return made;
  };
  /** What the cells of a column are written by: once for each column. */
  const grounds = new Map<ListColumn, CellGround>();
  const groundOf = (column: ListColumn): CellGround => {
    const { format } = column;
    const known = grounds.get(column);
    if (known) return known;
    const made: CellGround = {
      ground,
      setup,
      style: styleWith(job, column),
      places: format?.kind === "decimal" ? format.places : null,
      other: (line, name) => {
        const id = idOf(name);
        return id === null ? { ...MISSING, text: "no such column" } : cell(line, shown(id));
      },
      computedAs: (line, name) => {
        const id = idOf(name);
        if (id === null) return { ...MISSING, text: "no such column" };
        return computed(line, alike(id, column));
      },
    };
    grounds.set(column, made);
    return made;
  };
  const computed = (line: Line, column: ListColumn): Cell => {
    const found = kind(column.column);
    // A column of another version, or one that is gone: said in every row, never left empty.
    if (!found) return { ...MISSING, text: "no such column" };
    if (line.kind === "pieces") return found.cell(line, groundOf(column));
    return found.ofAssembly?.(line, groundOf(column)) ?? NOT_APPLICABLE;
  };
  const typedOver: ListView["typedOver"] = (cell, column, records, summed) => {
    if (own.has(column.column)) return cell;
    const found = typed(column.column, records, summed);
    const [by] = found.flatMap((one) => (one.cell ? [one.cell] : []));
    if (!by) return cell;
    const over = overTyped(cell, by, column, kind(column.column), ground);
    // What was typed for a sum stands for the whole of it, also when a row has come to it since.
    if (summed || found.length === 1) return over;
    const values = found.map((one) => ({ ...one, text: one.cell?.text ?? cell.text }));
    return sameOrSeveral(values, over, ground);
  };
  const cell: ListView["cell"] = (line, column) => {
    const memory = cells.get(column) ?? new Map<Line, Cell>();
    cells.set(column, memory);
    const known = memory.get(line);
    if (known) return known;
    // Only a file from elsewhere can hold formulas that go round; the edits refuse them.
    if (nested > MOST_NESTED) return { ...MISSING, text: "refers to itself" };
    nested++;
    const made = typedOver(computed(line, column), column, line.records, false);
    nested--;
    memory.set(line, made);
    return made;
  };
  /** What was typed for the records of a line in an own column. */
  function typedFor(line: Line, id: string): readonly TypedText[] {
    return typed(id, line.records, false).map(({ cell: one, records }) => ({
      text: one?.text ?? null,
      records,
    }));
  }
  return { setup, ground, kind, shown, cell, typedOver };
}

/** Cells that somebody typed: those of this list and the values of own columns, found by record. */
function typedCells({ id }: ListSetup, { job }: ListGround) {
  const byColumn = new Map<string, Map<string, ListCell>>();
  for (const cell of Object.values(job.listCells)) {
    if (cell.list !== null && cell.list !== id) continue;
    const key = `${cell.summed ? "sum" : "row"} ${cell.column}`;
    const records = byColumn.get(key) ?? new Map<string, ListCell>();
    byColumn.set(key, records);
    for (const record of cell.records) records.set(record, cell);
  }
  return (column: string, records: readonly string[], summed: boolean): readonly TypedCell[] => {
    const known = byColumn.get(`${summed ? "sum" : "row"} ${column}`);
    if (!known) return [{ cell: null, records }];
    const found = new Map<string | null, TypedCell & { records: string[] }>();
    for (const record of records) {
      const cell = known.get(record) ?? null;
      const same = found.get(cell?.text ?? null);
      if (same) same.records.push(record);
      else found.set(cell?.text ?? null, { cell, records: [record] });
    }
    return [...found.values()];
  };
}

/** What was typed for some records of a row; null: nothing. */
type TypedCell = { readonly cell: ListCell | null; readonly records: readonly string[] };
type TypedText = { readonly text: string | null; readonly records: readonly string[] };

/** A cell of records that say different things, with how many pieces say each; the plain cell where they agree after all. */
function sameOrSeveral(
  values: readonly { readonly text: string; readonly records: readonly string[] }[],
  plain: Cell,
  ground: ListGround,
): Cell {
  const counts = new Map<string, number>();
  for (const { text, records } of values)
    counts.set(text, (counts.get(text) ?? 0) + records.reduce((sum, id) => sum + piecesOf(id, ground), 0));
  if (counts.size < 2) return plain;
  const several = [...counts].map(([text, count]) => ({ text, count })).sort((a, b) => b.count - a.count);
  return { ...plain, ...severalCell(several) };
}

/** How many pieces a record stands for in the whole batch. */
function piecesOf(id: string, { tally }: ListGround): number {
  const row = tally.rowOfPiece.get(id);
  const quantity = row?.pieces.reduce((sum, piece) => sum + (piece.id === id ? piece.quantity : 0), 0) ?? 1;
  return quantity * tally.batch;
}

/** A cell that was typed over: the typed text, read as the column reads it, and what is computed under it. */
function overTyped(
  cell: Cell,
  { text, computed }: ListCell,
  column: ListColumn,
  kind: ListColumnKind | null,
  { job }: ListGround,
): Cell {
  const over = { computed: cell.text, was: computed ?? "", changed: computed !== cell.text };
  return { text, value: typedValue(text, kind, styleWith(job, column).unit), over };
}

function typedValue(
  text: string,
  kind: ListColumnKind | null,
  unit: keyof typeof MM_PER_UNIT,
): number | null {
  if (kind === null || kind.writes.kind === "words") return null;
  if (kind.writes.kind !== "length") return parsePlainNumber(text);
  const read = parseLength(text, unit);
  return read.ok ? read.value : null;
}

type TypedFor = (line: Line, column: string) => readonly TypedText[];

function ownColumnKind(column: OwnColumn, ground: ListGround, typedFor: TypedFor): ListColumnKind {
  const id = ownColumnId(column);
  const numeric = column.kind === "number" || column.kind === "length" || column.kind === "formula";
  const formula = column.kind === "formula" ? readFormula(column, ground) : null;
  const cell = (line: Line, how: CellGround): Cell => {
    if (formula) return computedBy(formula, line, how);
    const typed = typedFor(line, id).map(({ text, records }) => ({ text: text ?? column.forAll, records }));
    const [first] = typed;
    const plain = first?.text == null ? EMPTY : ownCell(column, first.text, how);
    if (typed.length < 2) return plain;
    return sameOrSeveral(
      typed.map(({ text, records }) => ({
        text: text === null ? EMPTY.text : ownCell(column, text, how).text,
        records,
      })),
      plain,
      ground,
    );
  };
  return {
    id,
    heading: column.name,
    align: numeric ? "right" : "left",
    width: numeric ? 11 : 16,
    adds: column.kind === "formula",
    sumOf: numeric ? "line" : null,
    typed: column.kind !== "formula",
    writes: !numeric ? { kind: "words" } : { kind: column.kind === "length" ? "length" : "plain" },
    cell,
    ofAssembly: cell,
  };
}

function ownCell({ kind }: OwnColumn, text: string, { style, places, ground }: CellGround): Cell {
  // A column of texts may have been turned into one of links.
  if (kind === "link" && isLink(text)) return { text, value: null, link: text };
  if (kind === "number") {
    const value = parsePlainNumber(text);
    if (value === null) return textCell(text);
    return numberCell(value, places === null ? text : formatDecimal(value, places));
  }
  if (kind !== "length") return textCell(text);
  // It was typed in the unit of the job, whatever the column is shown in.
  const read = parseLength(text, ground.job.info.job.unit);
  return read.ok ? lengthCell(read.value, style) : textCell(text);
}

type ReadFormula = ColumnFormula | { readonly fault: string };

function readFormula(column: OwnColumn, { job }: ListGround): ReadFormula {
  const read = readColumnFormula(column.formula ?? "", job.info.job.unit);
  return read.ok ? read.value : { fault: sentence(read.problem) };
}

/** A formula over other columns; lengths count in the job's unit. What one of them lacks, it lacks. */
function computedBy(formula: ReadFormula, line: Line, { other, ground, places }: CellGround): Cell {
  if ("fault" in formula) return { ...MISSING, text: "formula cannot be read" };
  const { unit } = ground.job.info.job;
  const scope = new Map<string, FormulaValue>(ground.sizes.scope);
  for (const { name, as } of formula.columns) {
    const cell = other(line, name);
    if (cell.several) return { ...MISSING, text: "several values" };
    if (cell.lack) return cell.lack === "notApplicable" ? NOT_APPLICABLE : { ...MISSING, text: "missing" };
    scope.set(as, cell.value === null ? cell.text : asNumber(name, cell.value, unit));
  }
  const value = evaluateFormula(formula.formula, scope);
  if (!value.ok) return { ...MISSING, text: "cannot be computed" };
  if (typeof value.value === "boolean") return textCell(value.value ? "yes" : "no");
  if (typeof value.value === "string") return textCell(value.value);
  return numberCell(value.value, places === null ? short(value.value) : formatDecimal(value.value, places));

  function asNumber(name: string, value: number, as: keyof typeof MM_PER_UNIT): number {
    return isLength(name, ground) ? value / MM_PER_UNIT[as] : value;
  }
}

function isLength(name: string, { job }: ListGround): boolean {
  const computed = computedColumn(name);
  if (computed) return COLUMN_BY_ID.get(computed)?.writes.kind === "length";
  return Object.values(job.ownColumns).some(
    (column) => column.kind === "length" && plainName(column.name) === plainName(name),
  );
}

/** A column as the table has it: what the setup says wins over the column's own. */
export function columnOf(column: ListColumn, { kind, ground }: Pick<ListView, "kind" | "ground">): Column {
  const own = kind(column.column);
  const style = styleWith(ground.job, column);
  const heading = column.heading ?? own?.heading ?? column.column;
  // A unit that is not the job's stands in the heading.
  const isOther = own?.writes.kind === "length" && style.unit !== ground.job.info.job.unit;
  const told =
    isOther && !new RegExp(`\\b${style.unit}\\b`).test(heading) ? `${heading} (${style.unit})` : heading;
  return {
    id: column.column,
    heading: told,
    align: column.align ?? own?.align ?? "left",
    width: column.width ?? own?.width ?? 12,
    writes: writingOf(own, column, style),
    ...(own?.typed ? { typed: true } : {}),
  };
}

function writingOf(
  kind: ListColumnKind | null,
  { format }: ListColumn,
  style: ReturnType<typeof styleWith>,
): NumberWriting | null {
  if (!kind || kind.writes.kind === "words") return null;
  if (kind.writes.kind === "length") return { kind: "length", style };
  if (format?.kind === "decimal") return { kind: "decimal", places: format.places };
  return kind.writes.kind === "plain" ? { kind: "plain" } : kind.writes;
}

/** Names of own columns that the list shows and that some of its lines have no value in, with how many. */
export function emptyCells(lines: readonly Line[], view: ListView): readonly string[] {
  return view.setup.columns.flatMap((column) => {
    const id = ownColumnIn(column.column);
    if (id === null) return [];
    const empty = lines.filter((line) => view.cell(line, column).lack === "empty").length;
    if (empty === 0) return [];
    const name = view.ground.job.ownColumns[id]?.name ?? column.column;
    return [`${name} is not set in ${counted(empty, "row")}.`];
  });
}
