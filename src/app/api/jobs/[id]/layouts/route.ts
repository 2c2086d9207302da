/** Keeps a layout that a worker or somebody's hand made, checked again here; and releases one to the floor. */
import * as v from "valibot";
import { own } from "@/core/kernel";
import { SavedSchema } from "@/core/layout";
import { findJob } from "@/db";
import { connection } from "@/server";
import { guarded, NO_SUCH_JOB, readBody } from "../../../answer";
import { sayReleased, saySaved, taskId } from "../../../layouts-answer";

type Params = { readonly params: Promise<{ readonly id: string }> };

const variant = v.pipe(v.string(), v.maxLength(60));
const Keep = v.object({ variant, saved: SavedSchema });
const Release = v.object({ variant, taskId });

async function ownerOf(params: Params["params"], variantId: string) {
  const { id } = await params;
  const job = await findJob(await connection(), id);
  if (!job || (variantId !== "" && !own(job.job.variants, variantId))) return null;
  return { job: id, variant: variantId, code: job.code };
}

export function PUT(request: Request, { params }: Params) {
  return guarded(async () => {
    const body = await readBody(request, Keep);
    if (!body.ok) return body.problem;
    const owner = await ownerOf(params, body.value.variant);
    return owner ? saySaved(owner, body.value.saved) : NO_SUCH_JOB();
  });
}

export function POST(request: Request, { params }: Params) {
  return guarded(async () => {
    const body = await readBody(request, Release);
    if (!body.ok) return body.problem;
    const owner = await ownerOf(params, body.value.variant);
    return owner ? sayReleased(owner, body.value.taskId) : NO_SUCH_JOB();
  });
}
