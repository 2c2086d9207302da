/** List setups that the stockroom keeps for other jobs: read, kept under their name, or removed. */
import * as v from "valibot";
import { SavedSetupSchema } from "@/core/job";
import { keepListSetup, readListSetups, removeListSetup } from "@/db";
import { connection } from "@/server";
import { guarded, readBody, sayJson, sayProblem } from "../../answer";

export function GET() {
  return guarded(async () => sayJson({ setups: await readListSetups(await connection()) }));
}

export function PUT(request: Request) {
  return guarded(async () => {
    const body = await readBody(request, SavedSetupSchema);
    if (!body.ok) return body.problem;
    await keepListSetup(await connection(), body.value, Date.now());
    return sayJson({});
  });
}

const RemoveSchema = v.object({ name: v.pipe(v.string(), v.maxLength(80)) });

export function DELETE(request: Request) {
  return guarded(async () => {
    const body = await readBody(request, RemoveSchema);
    if (!body.ok) return body.problem;
    const gone = await removeListSetup(await connection(), body.value.name);
    return gone ? sayJson({}) : sayProblem(`There is no saved list setup "${body.value.name}".`, 404);
  });
}
