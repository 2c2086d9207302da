/** New empty jobs. */
import * as v from "valibot";
import { JobInfoSchema } from "@/core/job";
import { connection, createEmptyJob } from "@/server";
import { guarded, readBody, sayJson } from "../answer";

const NewJobSchema = v.pick(JobInfoSchema, ["code", "title", "unit"]);

export function POST(request: Request) {
  return guarded(async () => {
    const body = await readBody(request, NewJobSchema);
    if (!body.ok) return body.problem;
    return sayJson({ id: await createEmptyJob(await connection(), body.value) }, 201);
  });
}
