/** The settings of the shop. */
import { connection, ShopSchema, writeShop } from "@/server";
import { guarded, readBody, sayJson } from "../answer";

export function PUT(request: Request) {
  return guarded(async () => {
    const body = await readBody(request, ShopSchema);
    if (!body.ok) return body.problem;
    await writeShop(await connection(), body.value);
    return sayJson({});
  });
}
