/** Keeps and releases the layouts of a batch. */
import * as v from "valibot";
import { findBatch, readRack, releaseLayout, saveLayout } from "@/db";
import { connection, KeptSchema, keptFault } from "@/server";
import { guarded, readBody, sayJson, sayProblem } from "../../../answer";

type Params = { readonly params: Promise<{ readonly id: string }> };

const gone = () => sayProblem("There is no such batch; it may have been removed.", 404);

export function PUT(request: Request, { params }: Params) {
  return guarded(async () => {
    const body = await readBody(request, v.object({ kept: KeptSchema }));
    if (!body.ok) return body.problem;
    const db = await connection();
    const batch = await findBatch(db, (await params).id);
    if (!batch) return gone();
    const { kept } = body.value;
    const fault = keptFault(kept);
    if (fault) return sayProblem(`The layout was not kept: ${fault}.`, 422);
    const refused = await saveLayout(db, { batch: batch.id, code: batch.name }, kept, Date.now());
    return refused === null ? sayJson({ rack: await readRack(db) }) : sayProblem(refused, 409);
  });
}

export function POST(request: Request, { params }: Params) {
  return guarded(async () => {
    const body = await readBody(request, v.object({ taskId: v.pipe(v.string(), v.maxLength(300)) }));
    if (!body.ok) return body.problem;
    const db = await connection();
    const batch = await findBatch(db, (await params).id);
    if (!batch) return gone();
    const now = Date.now();
    const owner = { batch: batch.id, code: batch.name };
    const outcome = await releaseLayout(db, owner, body.value.taskId, now);
    if (typeof outcome === "string") return sayProblem(outcome, 409);
    return sayJson({ ...outcome, releasedAt: now, rack: await readRack(db) });
  });
}
