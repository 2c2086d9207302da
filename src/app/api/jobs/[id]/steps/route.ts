/** Undo and redo over the edit log. */
import * as v from "valibot";
import { connection, stepBack } from "@/server";
import { guarded, readBody } from "../../../answer";
import { sayStep } from "../step-answer";

const Body = v.object({ step: v.picklist(["undo", "redo"]) });

export function POST(request: Request, { params }: { readonly params: Promise<{ readonly id: string }> }) {
  return guarded(async () => {
    const body = await readBody(request, Body);
    if (!body.ok) return body.problem;
    return sayStep(await stepBack(await connection(), (await params).id, body.value.step), null);
  });
}
