/** What belongs to a whole set of drawings in this shop. */
import { SetRecipeSchema } from "@/core/stockroom";
import { saveSetRecipe } from "@/db";
import { connection } from "@/server";
import { guarded, readBody, sayJson } from "../../answer";

export function PUT(request: Request) {
  return guarded(async () => {
    const body = await readBody(request, SetRecipeSchema);
    if (!body.ok) return body.problem;
    await saveSetRecipe(await connection(), body.value);
    return sayJson({});
  });
}
