/**
 * What must hold in a document besides the shape of each record: records stand under their own ids, and name only records
 * that are there. What an edit makes is held against it before it is stored, and so is a file from elsewhere.
 */
import * as v from "valibot";
import { canBeKey, err, ok, own, type Problem, type Result } from "../kernel";
import { applyDiff, type Diff } from "./diff";
import { issueWords } from "./issue-words";
import { ENTITIES, type Job } from "./job";
import { viewOf } from "./page-item";

/** Why a document cannot stand, as the end of a sentence; null: it can. Time grows with its records. */
export function lawFault(job: Job): string | null {
  const gone = (what: string, name: string, id: string) =>
    `${what} ${name} names ${id.slice(0, 60)}, which is not there`;
  for (const line of Object.values(job.lines)) {
    const [from, to] = [own(job.points, line.from), own(job.points, line.to)];
    if (!from || !to) return gone("line", line.id, from ? line.to : line.from);
    if (from.assembly !== to.assembly) return `line ${line.id} runs from one assembly into another`;
  }
  for (const member of Object.values(job.members))
    if (!own(job.lines, member.line)) return gone("member", member.name, member.line);
  for (const [what, table] of [
    ["point", job.points],
    ["panel", job.panels],
    ["bought part", job.boughtParts],
  ] as const)
    for (const record of Object.values(table))
      if (record.assembly !== null && !own(job.assemblies, record.assembly))
        return gone(what, record.name, record.assembly);
  for (const placement of Object.values(job.placements)) {
    if (!own(job.assemblies, placement.assembly)) return gone("placement", placement.id, placement.assembly);
    if (placement.into !== null && !own(job.assemblies, placement.into))
      return gone("placement", placement.id, placement.into);
  }
  for (const item of Object.values(job.pageItems)) {
    if (!own(job.pages, item.page)) return gone("page item", item.id, item.page);
    const view = viewOf(item);
    if (view !== null && own(job.pageItems, view)?.kind !== "view") return gone("page item", item.id, view);
  }
  return null;
}

/** The problem when a document after a diff could not be read again, or breaks a law that it kept before. */
export function storedFault(job: Job, diff: Diff): Result<null, Problem> {
  const refuse = (why: string) =>
    err({ kind: "badValue", what: "This change", value: "", must: `cannot be stored: ${why}` } as const);
  for (const { table, record } of [
    ...diff.added,
    ...diff.updated.map(({ table: name, to }) => ({ table: name, record: to })),
  ]) {
    const read = v.safeParse(ENTITIES[table].schema, record);
    if (!read.success) return refuse(issueWords(read.issues));
    if (!canBeKey(record.id)) return refuse(`"${record.id}" cannot be an id`);
  }
  const fault = lawFault(applyDiff(job, diff));
  return fault !== null && lawFault(job) === null ? refuse(fault) : ok(null);
}
