/** New jobs from a cutting list: the text of a CSV file or of rows from a spreadsheet. */
import * as v from "valibot";
import { JobInfoSchema } from "@/core/job";
import { sentence } from "@/core/kernel";
import { connection, createFromList } from "@/server";
import { guarded, readBody, sayJson, sayProblem } from "../../answer";

const FromListSchema = v.object({
  ...v.pick(JobInfoSchema, ["code", "title", "unit"]).entries,
  text: v.string(),
});

export function POST(request: Request) {
  return guarded(async () => {
    const body = await readBody(request, FromListSchema);
    if (!body.ok) return body.problem;
    const { text, ...info } = body.value;
    const made = await createFromList(await connection(), info, text);
    return made.ok ? sayJson(made.value, 201) : sayProblem(sentence(made.problem), 422);
  });
}
