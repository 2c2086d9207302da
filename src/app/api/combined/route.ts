/** Combined layouts: made from jobs, and removed. */
import { randomUUID } from "node:crypto";
import * as v from "valibot";
import { removeCombined, saveCombined } from "@/db";
import { connection } from "@/server";
import { guarded, readBody, sayJson, sayProblem } from "../answer";

const Body = v.object({
  name: v.pipe(v.string(), v.trim(), v.minLength(1, "needs a name"), v.maxLength(60)),
  jobs: v.pipe(v.array(v.pipe(v.string(), v.maxLength(60))), v.minLength(1, "needs a job"), v.maxLength(40)),
});

export function POST(request: Request) {
  return guarded(async () => {
    const body = await readBody(request, Body);
    if (!body.ok) return body.problem;
    const id = `combined-${randomUUID().slice(0, 8)}`;
    await saveCombined(await connection(), { id, ...body.value }, Date.now());
    return sayJson({ id });
  });
}

const Remove = v.object({ id: v.pipe(v.string(), v.maxLength(60)) });

export function DELETE(request: Request) {
  return guarded(async () => {
    const body = await readBody(request, Remove);
    if (!body.ok) return body.problem;
    const gone = await removeCombined(await connection(), body.value.id);
    return gone
      ? sayJson({})
      : sayProblem("There is no such combined layout. It may have been deleted already.", 404);
  });
}
