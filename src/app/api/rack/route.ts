/** The rack: what lies in it; pieces put in, changed and taken out by hand. */
import * as v from "valibot";
import { RackPieceSchema } from "@/core/stockroom";
import { readRack, removeRackPiece, saveRackPiece } from "@/db";
import { connection } from "@/server";
import { guarded, readBody, sayJson, sayProblem } from "../answer";

export function GET() {
  return guarded(async () => sayJson({ rack: await readRack(await connection()) }));
}

const Entry = v.object({
  ...v.omit(RackPieceSchema, ["holder", "label"]).entries,
  /** null: the next one that is free. */
  label: v.nullable(RackPieceSchema.entries.label),
});

export function PUT(request: Request) {
  return guarded(async () => {
    const body = await readBody(request, Entry);
    if (!body.ok) return body.problem;
    const saved = await saveRackPiece(await connection(), body.value, Date.now());
    return typeof saved === "string" ? sayProblem(saved, 409) : sayJson({ piece: saved });
  });
}

const Remove = v.object({ id: v.pipe(v.string(), v.maxLength(60)) });

export function DELETE(request: Request) {
  return guarded(async () => {
    const body = await readBody(request, Remove);
    if (!body.ok) return body.problem;
    const refused = await removeRackPiece(await connection(), body.value.id, Date.now());
    return refused === null ? sayJson({}) : sayProblem(refused, 409);
  });
}
