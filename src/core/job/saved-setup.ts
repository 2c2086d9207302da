/**
 * A list setup as the stockroom keeps it for other jobs: without what belongs to one job alone, and with the own columns
 * that it shows. In another job an own column of the same name, however typed, is taken for the same.
 */
import * as v from "valibot";
import { plainName } from "./column-names";
import type { Edit, SimpleEdit } from "./edit";
import type { Job } from "./job";
import { LIST_DEFAULTS, type ListSetup, ListSetupSchema } from "./list-setup";
import { type OwnColumn, OwnColumnSchema, ownColumnId, ownColumnIn } from "./own-column";
import { shortName } from "./text";

export const SavedSetupSchema = v.object({
  name: shortName,
  setup: v.object({
    ...v.omit(ListSetupSchema, ["id", "name", "assembly", "marks", "handOrder", "position"]).entries,
    // What was kept before lists had it.
    assemblyLines: v.optional(v.boolean(), LIST_DEFAULTS.assemblyLines),
  }),
  /** With the ids that the columns of the setup name. */
  ownColumns: v.pipe(v.array(OwnColumnSchema), v.maxLength(60)),
});
export type SavedSetup = v.InferOutput<typeof SavedSetupSchema>;

/** What the stockroom keeps of a list. */
export function setupToKeep(job: Job, list: ListSetup): SavedSetup {
  const { id: _, name, assembly: __, marks: ___, handOrder: ____, position: _____, ...setup } = list;
  const wanted = new Set(namesIn(job, list));
  // A formula brings the columns that it is made of along.
  let before = -1;
  while (wanted.size > before) {
    before = wanted.size;
    for (const column of Object.values(job.ownColumns))
      if (wanted.has(column.id) && column.formula !== null)
        for (const other of namedIn(job, column.formula)) wanted.add(other);
  }
  return { name, setup, ownColumns: Object.values(job.ownColumns).filter((column) => wanted.has(column.id)) };
}

/** Ids of own columns that a list shows, orders or groups by, or names in a pattern. */
function namesIn(job: Job, list: ListSetup): readonly string[] {
  const shown = [
    ...list.columns.map(({ column }) => column),
    ...list.order.map(({ column }) => column),
    list.groupBy ?? "",
  ].flatMap((column) => ownColumnIn(column) ?? []);
  return [...shown, ...namedIn(job, `${list.sizeOfMember ?? ""} ${list.sizeOfPanel ?? ""}`)];
}

function namedIn(job: Job, text: string): readonly string[] {
  const names = new Set([...text.matchAll(/\{([^{}]*)\}/g)].map((match) => plainName(match[1] ?? "")));
  return Object.values(job.ownColumns).flatMap((column) =>
    names.has(plainName(column.name)) ? [column.id as string] : [],
  );
}

/** The edit that makes a list of a saved setup in a job, with the own columns that the job lacks. */
export function listFromSaved(
  job: Job,
  saved: SavedSetup,
  newId: () => string,
): { readonly id: string; readonly edit: Edit } {
  const ids = new Map<string, string>();
  const missing: OwnColumn[] = [];
  for (const column of saved.ownColumns) {
    const same = Object.values(job.ownColumns).find((own) => plainName(own.name) === plainName(column.name));
    const id = same?.id ?? (newId() as OwnColumn["id"]);
    ids.set(ownColumnId(column), ownColumnId({ id }));
    if (!same) missing.push({ ...column, id, position: Object.keys(job.ownColumns).length + missing.length });
  }
  const here = (column: string) => ids.get(column) ?? column;
  const { setup } = saved;
  const taken = new Set(Object.values(job.lists).map((list) => list.name));
  let name = saved.name;
  for (let i = 2; taken.has(name); i++) name = `${saved.name.slice(0, 70)} ${i}`;
  const list: ListSetup = {
    ...LIST_DEFAULTS,
    ...setup,
    id: newId() as ListSetup["id"],
    name,
    assembly: null,
    columns: setup.columns.map((one) => ({ ...one, column: here(one.column) })),
    order: setup.order.map((one) => ({ ...one, column: here(one.column) })),
    groupBy: setup.groupBy === null ? null : here(setup.groupBy),
    position: Object.keys(job.lists).length,
  };
  // A formula stands after the columns that it names.
  const inTurn = [...missing].sort((a, b) => Number(a.kind === "formula") - Number(b.kind === "formula"));
  const edits: SimpleEdit[] = [
    ...inTurn.map((column): SimpleEdit => ({ kind: "setOwnColumn", column })),
    { kind: "setList", list },
  ];
  return { id: list.id, edit: { kind: "together", what: `Use list ${name}`, edits } };
}
