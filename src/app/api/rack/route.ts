/** The rack: what lies in it; pieces put in, changed and taken out by hand. */
import * as v from "valibot";
import { RackPieceSchema } from "@/core/stockroom";
import { readRack, readRackRevisions, removeRackPiece, saveRackPiece } from "@/db";
import { connection } from "@/server";
import { guarded, readBody, sayJson, sayProblem } from "../answer";

export function GET() {
  return guarded(async () => {
    const db = await connection();
    const [rack, revisions] = await Promise.all([readRack(db), readRackRevisions(db)]);
    return sayJson({ rack, revisions });
  });
}

const Piece = v.object({
  ...v.omit(RackPieceSchema, ["holder", "label"]).entries,
  /** null: the next one that is free. */
  label: v.nullable(RackPieceSchema.entries.label),
});

/** `expected`: the revision that the change was made on; null: it is new. */
const Entry = v.object({ piece: Piece, expected: v.nullable(v.pipe(v.number(), v.integer())) });

export function PUT(request: Request) {
  return guarded(async () => {
    const body = await readBody(request, Entry);
    if (!body.ok) return body.problem;
    const { piece, expected } = body.value;
    const saved = await saveRackPiece(await connection(), piece, Date.now(), expected);
    if (saved.kind === "refused") return sayJson({ message: saved.why, theirs: saved.theirs }, 409);
    return sayJson({ piece: saved.piece, revision: saved.revision });
  });
}

const Remove = v.object({
  id: v.pipe(v.string(), v.maxLength(60)),
  expected: v.pipe(v.number(), v.integer()),
});

export function DELETE(request: Request) {
  return guarded(async () => {
    const body = await readBody(request, Remove);
    if (!body.ok) return body.problem;
    const refused = await removeRackPiece(await connection(), body.value.id, Date.now(), body.value.expected);
    return refused === null ? sayJson({}) : sayProblem(refused, 409);
  });
}
