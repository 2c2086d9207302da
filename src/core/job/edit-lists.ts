/**
 * Edits of lists: their setups, the job's own columns, what is typed into cells, and rows put together by hand.
 * A piece has at most one value in a column, and stands in at most one row by hand.
 */
import * as v from "valibot";
import { type Err, ok, type Problem, type Result, unreachable } from "../kernel";
import { type LengthUnit, parseLength, parsePlainNumber } from "../measure";
import { readColumnFormula, renamedInBraces } from "./column-formula";
import { computedColumn, plainName } from "./column-names";
import { addedLists, CUT_LIST } from "./cut-list";
import { withoutPanels } from "./edit-layout";
import { type HandRow, HandRowSchema } from "./hand-row";
import type { Job } from "./job";
import { type ListCell, ListCellSchema } from "./list-cell";
import { type ListSetup, ListSetupSchema } from "./list-setup";
import { isLink, type OwnColumn, OwnColumnSchema, ownColumnId, ownColumnIn } from "./own-column";
import { missing, put, refused, removeAll } from "./records";
import { keyText, recordId } from "./text";

const records = v.pipe(v.array(recordId), v.minLength(1), v.maxLength(20_000));

export const LIST_EDITS = [
  /** A new list, or another setup of one that is there. */
  v.object({ kind: v.literal("setList"), list: ListSetupSchema }),
  v.object({ kind: v.literal("removeList"), id: recordId }),
  /** A new own column, or another definition of one that is there. */
  v.object({ kind: v.literal("setOwnColumn"), column: OwnColumnSchema }),
  v.object({ kind: v.literal("removeOwnColumn"), id: recordId }),
  v.object({ kind: v.literal("setCell"), cell: ListCellSchema }),
  /** What was typed for these records in a column is taken away again. */
  v.object({
    kind: v.literal("clearCells"),
    list: v.nullable(recordId),
    column: v.nullable(keyText(60)),
    /** null: of all records. */
    records: v.nullable(records),
  }),
  v.object({ kind: v.literal("setHandRow"), row: HandRowSchema }),
  /** These pieces, or all, go back to the rows that are computed. */
  v.object({ kind: v.literal("clearHandRows"), pieces: v.nullable(records) }),
] as const;

export type ListEdit = v.InferOutput<(typeof LIST_EDITS)[number]>;

export function applyListEdit(job: Job, edit: ListEdit): Result<Job, Problem> {
  switch (edit.kind) {
    case "setList":
      return setList(job, edit.list);
    case "removeList":
      return removeList(job, edit.id);
    case "setOwnColumn":
      return setOwnColumn(job, edit.column);
    case "removeOwnColumn":
      return removeOwnColumn(job, edit.id);
    case "setCell":
      return setCell(job, edit.cell);
    case "clearCells":
      return ok(withoutCells(job, (cell) => matches(cell, edit), edit.records));
    case "setHandRow": {
      const others = withoutPieces(job, edit.row.pieces);
      return ok({ ...others, handRows: { ...others.handRows, [edit.row.id]: edit.row } });
    }
    case "clearHandRows":
      return ok(withoutPieces(job, edit.pieces));
    default:
      return unreachable(edit);
  }
}

function setList(job: Job, list: ListSetup): Result<Job, Problem> {
  // Jobs had lists of that name before the cut list could be changed.
  const taken =
    list.id !== CUT_LIST && addedLists(job).some((other) => other.id !== list.id && other.name === list.name);
  if (taken) return refused("There is already a list", list.name, "in this job; choose another name");
  if (list.assembly !== null && !job.assemblies[list.assembly]) return missing("assembly", list.assembly);
  return ok(put(job, "lists", [list]));
}

function removeList(job: Job, id: string): Result<Job, Problem> {
  const without = removeAll(job, "lists", "list", [id]);
  if (!without.ok) return without;
  return ok(withoutCells(without.value, (cell) => cell.list === id, null));
}

function setOwnColumn(job: Job, column: OwnColumn): Result<Job, Problem> {
  const { name } = column;
  if (plainName(name) === "") return refused("The name", name, "needs a letter or a digit");
  if (computedColumn(name)) return refused("The name", name, "is that of a computed column; choose another");
  const other = Object.values(job.ownColumns).find(
    (one) => one.id !== column.id && plainName(one.name) === plainName(name),
  );
  if (other) return refused("The name", name, `is the column "${other.name}"; choose another`);
  if (column.kind === "choice" && column.choices.length === 0)
    return refused("The column", name, "needs something to choose from");
  const before = job.ownColumns[column.id];
  const renamed = before && before.name !== name ? callColumn(job, before.name, name) : job;
  const after = put(renamed, "ownColumns", [column]);
  if (column.kind === "formula") {
    const fault = formulaFault(after, column);
    if (fault) return fault;
  }
  const unfit = column.forAll === null ? null : valueFault(column, column.forAll, job.info.job.unit);
  return unfit ?? ok(after);
}

/** Patterns and formulas that name a column in braces, with its new name. */
function callColumn(job: Job, from: string, to: string): Job {
  const text = (old: string | null) => (old === null ? null : renamedInBraces(old, from, to));
  const lists = Object.values(job.lists).map((list) => ({
    ...list,
    sizeOfMember: text(list.sizeOfMember),
    sizeOfPanel: text(list.sizeOfPanel),
  }));
  const columns = Object.values(job.ownColumns).map((one) => ({ ...one, formula: text(one.formula) }));
  return put(put(job, "lists", lists), "ownColumns", columns);
}

/** Why a formula column cannot stand: unreadable, a column that there is not, or itself. */
function formulaFault(job: Job, column: OwnColumn): Err<Problem> | null {
  const { unit } = job.info.job;
  const sizes = new Set(Object.values(job.keySizes).map((size) => size.name));
  const own = Object.values(job.ownColumns);
  const walk = (one: OwnColumn, around: readonly string[]): Err<Problem> | null => {
    const read = readColumnFormula(one.formula ?? "", unit);
    if (!read.ok) return read;
    for (const { name } of read.value.columns) {
      if (computedColumn(name)) continue;
      const next = own.find((other) => plainName(other.name) === plainName(name));
      if (!next) return refused("The formula", one.formula ?? "", `names {${name}}, which is no column`);
      if (around.includes(next.id))
        return refused("The formula", column.formula ?? "", `refers to itself through {${name}}`);
      const deeper = next.kind === "formula" ? walk(next, [...around, next.id]) : null;
      if (deeper) return deeper;
    }
    const names = new Set(read.value.columns.map(({ as }) => as));
    const stray = read.value.formula.names.find((name) => !names.has(name) && !sizes.has(name));
    if (stray)
      return refused(
        "The formula",
        one.formula ?? "",
        `names ${stray}, which is no key size; write columns in braces, {${stray}}`,
      );
    return null;
  };
  return walk(column, [column.id]);
}

function removeOwnColumn(job: Job, id: string): Result<Job, Problem> {
  const column = job.ownColumns[id];
  if (!column) return missing("own column", id);
  const user = Object.values(job.ownColumns).find((other) => {
    const read = other.formula === null ? null : readColumnFormula(other.formula, job.info.job.unit);
    return read?.ok && read.value.columns.some(({ name }) => plainName(name) === plainName(column.name));
  });
  if (user)
    return refused("Column", column.name, `is used by the formula of ${user.name}; change that first`);
  const shown = ownColumnId(column);
  const only = Object.values(job.lists).find((list) => list.columns.every((one) => one.column === shown));
  if (only)
    return refused("Column", column.name, `is all that list ${only.name} shows; give it another first`);
  const lists = Object.values(job.lists).map(
    (list): ListSetup => ({
      ...list,
      columns: list.columns.filter((one) => one.column !== shown),
      order: list.order.filter((one) => one.column !== shown),
      groupBy: list.groupBy === shown ? null : list.groupBy,
    }),
  );
  const after = removeAll(put(job, "lists", lists), "ownColumns", "own column", [id]);
  if (!after.ok) return after;
  return ok(withoutCells(after.value, (cell) => cell.column === shown, null));
}

function setCell(job: Job, cell: ListCell): Result<Job, Problem> {
  const ownId = ownColumnIn(cell.column);
  if (ownId !== null) {
    const column = job.ownColumns[ownId];
    if (!column) return missing("own column", ownId);
    const fault = valueFault(column, cell.text, job.info.job.unit);
    if (fault) return fault;
  } else if (cell.list === null || (cell.list !== CUT_LIST && !job.lists[cell.list]))
    return missing("list", cell.list ?? "none");
  const others = withoutCells(job, (other) => matches(other, cell), cell.records);
  return ok({ ...others, listCells: { ...others.listCells, [cell.id]: cell } });
}

/** Why a text is no value of an own column; null when it is one. */
function valueFault({ kind, name, choices }: OwnColumn, text: string, unit: LengthUnit): Err<Problem> | null {
  switch (kind) {
    case "text":
      return null;
    case "number":
      return parsePlainNumber(text) === null ? refused(name, text, "must be a number") : null;
    case "length": {
      const read = parseLength(text, unit);
      return read.ok ? null : read;
    }
    case "choice":
      return choices.includes(text) ? null : refused(name, text, `must be one of ${choices.join(", ")}`);
    case "link":
      return isLink(text) ? null : refused(name, text, "must start with https://, http:// or mailto:");
    case "formula":
      return refused("Column", name, "is computed by its formula; change that instead");
    default:
      return unreachable(kind);
  }
}

type CellsMeant = {
  readonly list: string | null;
  /** null: any column. */
  readonly column: string | null;
  readonly summed?: boolean;
};

const matches = (cell: ListCell, { list, column, summed }: CellsMeant) =>
  cell.list === list &&
  (column === null || cell.column === column) &&
  (summed === undefined || cell.summed === summed);

function withoutCells(job: Job, which: (cell: ListCell) => boolean, records: readonly string[] | null): Job {
  const gone = records === null ? null : new Set(records);
  const listCells = Object.values(job.listCells).flatMap((cell): ListCell[] => {
    if (!which(cell)) return [cell];
    const rest = gone === null ? [] : cell.records.filter((id) => !gone.has(id));
    if (rest.length === cell.records.length) return [cell];
    return rest.length === 0 ? [] : [{ ...cell, records: rest }];
  });
  return { ...job, listCells: byId(listCells) };
}

/** Rows by hand without some pieces (null: without any); a row that has none left is gone. */
function withoutPieces(job: Job, pieces: readonly string[] | null): Job {
  const gone = pieces === null ? null : new Set(pieces);
  const rows = Object.values(job.handRows).flatMap((row): HandRow[] => {
    const rest = gone === null ? [] : row.pieces.filter((id) => !gone.has(id));
    if (rest.length === row.pieces.length) return [row];
    return rest.length === 0 ? [] : [{ ...row, pieces: rest }];
  });
  return { ...job, handRows: byId(rows) };
}

/** A job that no longer holds what was typed for pieces, nor their rows by hand. */
export function forgetPieces(document: Job, ids: readonly string[]): Job {
  const job = withoutPanels(document, new Set(ids));
  const nothing = Object.keys(job.listCells).length + Object.keys(job.handRows).length === 0;
  return nothing
    ? job
    : withoutPieces(
        withoutCells(job, () => true, ids),
        ids,
      );
}

const byId = <T extends { readonly id: string }>(records: readonly T[]): Record<string, T> =>
  Object.fromEntries(records.map((record) => [record.id, record]));

/** What such an edit is called. */
export function listEditName(edit: ListEdit): string {
  switch (edit.kind) {
    case "setList":
      return `Set up list ${edit.list.name}`;
    case "removeList":
      return "Remove a list";
    case "setOwnColumn":
      return `Set up column ${edit.column.name}`;
    case "removeOwnColumn":
      return "Remove a column";
    case "setCell":
      return edit.cell.computed === null ? `Write ${edit.cell.text}` : `Type over a cell: ${edit.cell.text}`;
    case "clearCells":
      return "Put cells back";
    case "setHandRow":
      return "Group pieces by hand";
    case "clearHandRows":
      return "Put rows back to computed";
    default:
      return unreachable(edit);
  }
}
