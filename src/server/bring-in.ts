/** A STEP file, or the panels or lines of a DXF file, brought into a job as it comes: matched by sizes, nobody asked. */
import type { FoundFile } from "@/core/imports";
import { assetIdOf, refused } from "@/core/job";
import { ok, type Problem, type Result } from "@/core/kernel";
import { type Connection, saveAsset, saveStockEntry } from "@/db";
import { broughtDrawing, broughtSolids, type DrawingOf, isDrawingFile } from "@/formats/brought-in";
import { type StepOutcome, submitEdit } from "./edits";
import { currentStockroom, openJob } from "./jobs";
import { createThreadReader } from "./reader-thread";

const readSolids = createThreadReader<{ readonly name: string; readonly bytes: Uint8Array }, FoundFile>({
  script: "solids-reader.mjs",
  mostMs: 180_000,
  // The largest files that are taken at all need half of this.
  mostMemoryMb: 2_048,
  what: "The file",
  tooLong: "it takes too long to read; export the assembly in parts",
  unreadable: "its geometry cannot be read, or needs more memory than there is; export it in parts",
});

export type BroughtIn = StepOutcome & { readonly told: readonly string[] };

/** null: there is no such job. */
export async function bringIn(
  db: Connection,
  id: string,
  file: {
    readonly name: string;
    readonly bytes: Uint8Array;
    readonly scale: number;
    readonly drawingOf: DrawingOf | null;
  },
): Promise<Result<BroughtIn, Problem> | null> {
  const { name, bytes, scale, drawingOf } = file;
  const found = isDrawingFile(name) ? null : await readSolids({ name, bytes });
  if (found && !found.ok) return found;
  const open = await openJob(db, id, "");
  if (!open) return null;
  const { job, revision } = open;
  const ground = { job, stockroom: await currentStockroom(db), scale };
  const brought = found ? broughtSolids(found.value, ground) : broughtDrawing(name, bytes, ground, drawingOf);
  if (!brought.ok) return brought;
  const { edit, assets, added, told } = brought.value;
  // What the records name has to be there before them.
  for (const change of [
    ...added.sections.map((entry) => ({ kind: "section" as const, entry })),
    ...added.boards.map((entry) => ({ kind: "board" as const, entry })),
  ]) {
    const saved = await saveStockEntry(db, change, null);
    if (typeof saved === "string")
      return refused(
        "Entry",
        change.entry.name,
        "cannot be added: the stockroom has another one of this name; give that another name",
      );
  }
  for (const asset of assets) await saveAsset(db, assetIdOf(asset), asset, Date.now());
  const outcome = await submitEdit(db, id, revision, edit);
  return outcome && ok({ ...outcome, told });
}
