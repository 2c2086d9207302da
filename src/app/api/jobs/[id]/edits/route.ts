/** An edit made on an expected revision: applied, replayed on a newer one, or refused with a sentence. */
import * as v from "valibot";
import { EditSchema } from "@/core/job";
import { connection, submitEdit } from "@/server";
import { guarded, readBody } from "../../../answer";
import { sayStep } from "../step-answer";

const Body = v.object({
  expectedRevision: v.pipe(v.number(), v.integer(), v.minValue(1)),
  edit: EditSchema,
  /** Chosen by the sender: an edit that is sent twice is applied once. */
  id: v.exactOptional(v.pipe(v.string(), v.minLength(1), v.maxLength(60))),
});

export function POST(request: Request, { params }: { readonly params: Promise<{ readonly id: string }> }) {
  return guarded(async () => {
    const body = await readBody(request, Body);
    if (!body.ok) return body.problem;
    const { expectedRevision, edit, id: editId = null } = body.value;
    return sayStep(
      await submitEdit(await connection(), (await params).id, expectedRevision, edit, editId),
      expectedRevision,
    );
  });
}
