/**
 * Edits, undo and redo on the server. The same function as in the browser is applied to the newest
 * document in one transaction. When someone else was first, the edit is replayed on the newer document
 * unless both touched the same record; then it is refused with a sentence and nothing is lost: the
 * browser still holds it.
 */
import {
  type AssetId,
  applyEdit,
  type Diff,
  type Edit,
  editName,
  type Import,
  reverseDiff,
  storedFault,
  touchedRecords,
} from "@/core/job";
import { type Problem, sentence } from "@/core/kernel";
import {
  type Connection,
  findSummary,
  readAssets,
  type StepNames,
  type StoredJob,
  stepJob,
  stepsBack,
} from "@/db";

export type StepAnswer =
  | { readonly status: "applied"; readonly replayed: boolean }
  | { readonly status: "refused"; readonly clash: boolean; readonly message: string };

export type StepOutcome = {
  readonly answer: StepAnswer;
  readonly stored: StoredJob;
  readonly steps: StepNames;
};

const refused = (problem: Problem, clash = false) => ({
  step: null,
  answer: { status: "refused", clash, message: sentence(problem) } as const,
});

/**
 * Applies an edit that was made on `expectedRevision`. Null when there is no such job. With an id it is applied once,
 * however often it is sent: when the answer to it was lost, it is acknowledged again.
 */
export function submitEdit(
  db: Connection,
  id: string,
  expectedRevision: number,
  edit: Edit,
  editId: string | null = null,
): Promise<StepOutcome | null> {
  const named = assetsIn(edit);
  return stepJob<StepAnswer>(db, id, Date.now(), async ({ stored, since, wasApplied }) => {
    if (editId !== null && (await wasApplied(editId))) {
      // Somebody may have been here since: then the sender gets the document as well.
      const replayed = stored.revision !== expectedRevision + 1;
      return { step: null, answer: { status: "applied", replayed } };
    }
    if (expectedRevision > stored.revision) return refused({ kind: "laterRevision" }, true);
    const diff = applyEdit(stored.job, edit);
    if (!diff.ok) return refused(diff.problem, expectedRevision !== stored.revision);
    const replayed = expectedRevision < stored.revision;
    if (replayed) {
      const shared = sharedRecord(diff.value, await since(expectedRevision));
      if (shared) return refused({ kind: "changedMeanwhile", what: nameOf(stored, shared) }, true);
    }
    const here = await readAssets(db, named);
    if (here.size < named.size)
      return refused({
        kind: "malformed",
        what: "The shape or the file",
        why: "it is not stored here. Choose its file again",
      });
    const storable = storedFault(stored.job, diff.value);
    if (!storable.ok) return refused(storable.problem);
    return {
      step: { action: "edit", name: editName(edit), edit, diff: diff.value, editId },
      answer: { status: "applied", replayed },
    };
  });
}

/** The assets that an edit names, wherever in it. */
function assetsIn(edit: Edit): ReadonlySet<AssetId> {
  const found = new Set<AssetId>();
  const walk = (value: unknown): void => {
    if (typeof value !== "object" || value === null) return;
    // Pages may show a picture before it is stored; shapes and what files said have to be there.
    if ("kind" in value && value.kind === "shape" && "asset" in value) found.add(value.asset as AssetId);
    else if ("kind" in value && value.kind === "setImport" && "import" in value)
      found.add((value.import as Import).asset);
    else for (const part of Object.values(value)) walk(part);
  };
  walk(edit);
  return found;
}

function sharedRecord(own: Diff, others: readonly Diff[]): string | null {
  const touched = touchedRecords(own);
  for (const other of others)
    for (const record of touchedRecords(other)) if (touched.has(record)) return record;
  return null;
}

/** "Key size width": what a person would call a record. */
function nameOf({ job }: StoredJob, key: string): string {
  const [table = "", ...rest] = key.split("/");
  const id = rest.join("/");
  switch (table) {
    case "keySizes":
      return `Key size ${job.keySizes[id]?.name ?? id}`;
    case "members":
      return job.members[id]?.name ?? id;
    case "panels":
      return job.panels[id]?.name ?? id;
    case "assemblies":
      return job.assemblies[id]?.name ?? id;
    case "placements":
      return `Where ${job.assemblies[job.placements[id]?.assembly ?? ""]?.name ?? "an assembly"} stands`;
    case "points":
      return `Point ${job.points[id]?.name ?? id}`;
    case "info":
      return "The job's details";
    default:
      return job.boughtParts[id]?.name ?? job.typedPieces[id]?.name ?? "The same record";
  }
}

/**
 * Undoes the newest edit, or does the last undone one again; either is a step of its own in the log. It is taken only on
 * the revision that the sender saw, and once, however often it is sent.
 */
export function stepBack(
  db: Connection,
  id: string,
  which: "undo" | "redo",
  { expectedRevision, stepId }: { readonly expectedRevision: number; readonly stepId: string },
): Promise<StepOutcome | null> {
  return stepJob<StepAnswer>(db, id, Date.now(), async ({ stored, last, wasApplied }) => {
    if (await wasApplied(stepId)) return { step: null, answer: { status: "applied", replayed: true } };
    if (expectedRevision > stored.revision) return refused({ kind: "laterRevision" }, true);
    if (expectedRevision < stored.revision)
      return refused({ kind: "changedMeanwhile", what: "This job" }, true);
    const target = await last(which);
    if (!target) return refused({ kind: which === "undo" ? "nothingToUndo" : "nothingToRedo" });
    const diff = which === "undo" ? reverseDiff(target.diff) : target.diff;
    const storable = storedFault(stored.job, diff);
    if (!storable.ok) return refused(storable.problem);
    return {
      step: { action: which, name: target.name, edit: null, diff, editId: stepId },
      answer: { status: "applied", replayed: false },
    };
  });
}

/** As many as somebody looks back at. */
const MOST_BACK = 30;

/** What was done last in a job, in words, the newest first; null: there is no such job. */
export async function lastEdits(db: Connection, id: string): Promise<readonly string[] | null> {
  return (await findSummary(db, id)) ? stepsBack(db, id, MOST_BACK) : null;
}
