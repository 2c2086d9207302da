/** Entries of the stockroom: read, saved when nobody else changed them since, or removed. */
import * as v from "valibot";
import {
  BoardEntrySchema,
  BoughtEntrySchema,
  EdgingEntrySchema,
  SawEntrySchema,
  SectionEntrySchema,
  shapeFault,
  shapeFaultWords,
} from "@/core/stockroom";
import { readStock, removeStockEntry, saveStockEntry } from "@/db";
import { connection } from "@/server";
import { guarded, readBody, sayJson, sayProblem } from "../../answer";

/** All entries with their revisions. */
export function GET() {
  return guarded(async () => sayJson(await readStock(await connection())));
}

const ChangeSchema = v.variant("kind", [
  v.object({ kind: v.literal("section"), entry: SectionEntrySchema }),
  v.object({ kind: v.literal("board"), entry: BoardEntrySchema }),
  v.object({ kind: v.literal("edging"), entry: EdgingEntrySchema }),
  v.object({ kind: v.literal("bought"), entry: BoughtEntrySchema }),
  v.object({ kind: v.literal("saw"), entry: SawEntrySchema }),
]);
const Body = v.object({ change: ChangeSchema, expected: v.nullable(v.pipe(v.number(), v.integer())) });

export function PUT(request: Request) {
  return guarded(async () => {
    const body = await readBody(request, Body);
    if (!body.ok) return body.problem;
    const { change, expected } = body.value;
    const fault = change.kind === "section" ? shapeFault(change.entry.shape) : null;
    if (fault) return sayProblem(`${change.entry.name}: ${shapeFaultWords(fault)}; check its sizes.`, 422);
    const saved = await saveStockEntry(await connection(), change, expected);
    if (saved === "exists")
      return sayProblem(`There is already an entry ${change.entry.id}; choose another name.`, 409);
    if (saved === "named")
      return sayProblem(`There is already a "${change.entry.name}". Choose another name.`, 422);
    if (saved === "changed") {
      const { data, revisions } = await readStock(await connection());
      const entry = [...data.sections, ...data.boards, ...data.edging, ...data.bought, ...data.saws].find(
        ({ id }) => id === change.entry.id,
      );
      const message = `${change.entry.name} was changed somewhere else in the meantime.`;
      return sayJson({ message, entry: entry ?? null, revision: revisions[change.entry.id] ?? null }, 409);
    }
    return sayJson({ revision: saved });
  });
}

const RemoveSchema = v.object({
  kind: v.picklist(["section", "board", "edging", "bought", "saw"]),
  id: v.pipe(v.string(), v.maxLength(60)),
  expected: v.pipe(v.number(), v.integer()),
});

export function DELETE(request: Request) {
  return guarded(async () => {
    const body = await readBody(request, RemoveSchema);
    if (!body.ok) return body.problem;
    const { kind, id, expected } = body.value;
    const gone = await removeStockEntry(await connection(), kind, id, expected);
    if (gone === "changed")
      return sayProblem("It was changed somewhere else in the meantime. Look at it, then remove it.", 409);
    return gone === "removed"
      ? sayJson({})
      : sayProblem("There is no such entry; it may have been removed already.", 404);
  });
}
