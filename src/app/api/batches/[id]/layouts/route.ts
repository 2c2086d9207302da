/** Keeps and releases the layouts of a batch. */
import * as v from "valibot";
import { KeptSchema } from "@/core/layout";
import { findBatch } from "@/db";
import { connection } from "@/server";
import { guarded, NO_SUCH_BATCH, readBody } from "../../../answer";
import { sayKept, sayReleased, taskId } from "../../../layouts-answer";

type Params = { readonly params: Promise<{ readonly id: string }> };

const Keep = v.object({ kept: KeptSchema });
const Release = v.object({ taskId });

async function ownerOf(params: Params["params"]) {
  const batch = await findBatch(await connection(), (await params).id);
  return batch && { batch: batch.id, code: batch.name };
}

export function PUT(request: Request, { params }: Params) {
  return guarded(async () => {
    const body = await readBody(request, Keep);
    if (!body.ok) return body.problem;
    const owner = await ownerOf(params);
    return owner ? sayKept(owner, body.value.kept) : NO_SUCH_BATCH();
  });
}

export function POST(request: Request, { params }: Params) {
  return guarded(async () => {
    const body = await readBody(request, Release);
    if (!body.ok) return body.problem;
    const owner = await ownerOf(params);
    return owner ? sayReleased(owner, body.value.taskId) : NO_SUCH_BATCH();
  });
}
