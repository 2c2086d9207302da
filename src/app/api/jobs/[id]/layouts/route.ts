/** Keeps a layout that a worker or somebody's hand made, checked again here; and releases one to the floor. */
import * as v from "valibot";
import type { KeptLayout } from "@/core/layout";
import { findJob, readRack, releaseLayout, saveLayout } from "@/db";
import { connection, KeptSchema, keptFault } from "@/server";
import { guarded, NO_SUCH_JOB, readBody, sayJson, sayProblem } from "../../../answer";

type Params = { readonly params: Promise<{ readonly id: string }> };

const variant = v.pipe(v.string(), v.maxLength(60));
const Body = v.object({ variant, kept: KeptSchema });

export function PUT(request: Request, { params }: Params) {
  return guarded(async () => {
    const body = await readBody(request, Body);
    if (!body.ok) return body.problem;
    const db = await connection();
    const { id } = await params;
    const job = await findJob(db, id);
    if (!job) return NO_SUCH_JOB();
    const { kept } = body.value;
    const fault = keptFault(kept satisfies KeptLayout);
    if (fault) return sayProblem(`The layout was not kept: ${fault}.`, 422);
    const owner = { job: id, variant: body.value.variant, code: job.code };
    const refused = await saveLayout(db, owner, kept, Date.now());
    if (refused !== null) return sayProblem(refused, 409);
    return sayJson({ rack: await readRack(db) });
  });
}

const Release = v.object({ variant, taskId: v.pipe(v.string(), v.maxLength(300)) });

export function POST(request: Request, { params }: Params) {
  return guarded(async () => {
    const body = await readBody(request, Release);
    if (!body.ok) return body.problem;
    const db = await connection();
    const { id } = await params;
    const job = await findJob(db, id);
    if (!job) return NO_SUCH_JOB();
    const now = Date.now();
    const owner = { job: id, variant: body.value.variant, code: job.code };
    const outcome = await releaseLayout(db, owner, body.value.taskId, now);
    if (typeof outcome === "string") return sayProblem(outcome, 409);
    return sayJson({ ...outcome, releasedAt: now, rack: await readRack(db) });
  });
}
