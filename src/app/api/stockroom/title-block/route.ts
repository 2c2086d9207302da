/** The title block of the shop, on every page of every job. */
import { TitleBlockSchema } from "@/core/stockroom";
import { saveTitleBlock } from "@/db";
import { connection } from "@/server";
import { guarded, readBody, sayJson } from "../../answer";

export function PUT(request: Request) {
  return guarded(async () => {
    const body = await readBody(request, TitleBlockSchema);
    if (!body.ok) return body.problem;
    await saveTitleBlock(await connection(), body.value);
    return sayJson({});
  });
}
