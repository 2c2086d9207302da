/** Undo and redo over the edit log, and what was done last. */
import * as v from "valibot";
import { connection, lastEdits, stepBack } from "@/server";
import { guarded, NO_SUCH_JOB, readBody, sayJson } from "../../../answer";
import { sayStep } from "../step-answer";

const Body = v.object({
  step: v.picklist(["undo", "redo"]),
  /** The revision that the sender saw. */
  expectedRevision: v.pipe(v.number(), v.integer(), v.minValue(1)),
  /** Chosen by the sender: a step that is sent twice is taken once. */
  id: v.pipe(v.string(), v.minLength(1), v.maxLength(60)),
});

export function POST(request: Request, { params }: { readonly params: Promise<{ readonly id: string }> }) {
  return guarded(async () => {
    const body = await readBody(request, Body);
    if (!body.ok) return body.problem;
    const { step, expectedRevision, id: stepId } = body.value;
    const { id } = await params;
    return sayStep(await stepBack(await connection(), id, step, { expectedRevision, stepId }), null);
  });
}

export function GET(_: Request, { params }: { readonly params: Promise<{ readonly id: string }> }) {
  return guarded(async () => {
    const edits = await lastEdits(await connection(), (await params).id);
    return edits ? sayJson({ edits }) : NO_SUCH_JOB();
  });
}
