/** New jobs from a cutting list: rows pasted from a spreadsheet as text, or the cells of a file that was read before. */
import * as v from "valibot";
import { JobInfoSchema } from "@/core/job";
import { sentence } from "@/core/kernel";
import { connection, createFromList } from "@/server";
import { guarded, readBody, sayJson, sayProblem } from "../../answer";

const info = v.pick(JobInfoSchema, ["code", "title", "unit"]).entries;

const FromListSchema = v.union([
  v.object({ ...info, rows: v.array(v.array(v.string())) }),
  v.object({ ...info, text: v.string() }),
]);

export function POST(request: Request) {
  return guarded(async () => {
    const body = await readBody(request, FromListSchema);
    if (!body.ok) return body.problem;
    const list = "rows" in body.value ? body.value.rows : body.value.text;
    const made = await createFromList(await connection(), body.value, list);
    return made.ok ? sayJson(made.value, 201) : sayProblem(sentence(made.problem), 422);
  });
}
