/** Keeps and releases the layouts of a combined layout. */
import * as v from "valibot";
import { SavedSchema } from "@/core/layout";
import { findCombined } from "@/db";
import { connection } from "@/server";
import { guarded, NO_SUCH_COMBINED, readBody } from "../../../answer";
import { sayReleased, saySaved, taskId } from "../../../layouts-answer";

type Params = { readonly params: Promise<{ readonly id: string }> };

const Keep = v.object({ saved: SavedSchema });
const Release = v.object({ taskId });

async function ownerOf(params: Params["params"]) {
  const combined = await findCombined(await connection(), (await params).id);
  return combined && { combined: combined.id, code: combined.name };
}

export function PUT(request: Request, { params }: Params) {
  return guarded(async () => {
    const body = await readBody(request, Keep);
    if (!body.ok) return body.problem;
    const owner = await ownerOf(params);
    return owner ? saySaved(owner, body.value.saved) : NO_SUCH_COMBINED();
  });
}

export function POST(request: Request, { params }: Params) {
  return guarded(async () => {
    const body = await readBody(request, Release);
    if (!body.ok) return body.problem;
    const owner = await ownerOf(params);
    return owner ? sayReleased(owner, body.value.taskId) : NO_SUCH_COMBINED();
  });
}
