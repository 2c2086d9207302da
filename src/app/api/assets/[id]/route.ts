/** Shapes from files and pictures by their content: stored under the name that the content has, and read under it for ever. */
import * as v from "valibot";
import { AssetSchema, assetId, assetIdOf, pictureFault } from "@/core/job";
import { assetText, saveAsset } from "@/db";
import { connection } from "@/server";
import { guarded, readBody, sayJson, sayProblem } from "../../answer";

type Context = { readonly params: Promise<{ readonly id: string }> };

const NONE = () => sayProblem("There is no such shape or picture. Choose its file again.", 404);

export function GET(_: Request, { params }: Context) {
  return guarded(async () => {
    const id = v.safeParse(assetId, (await params).id);
    if (!id.success) return NONE();
    const text = await assetText(await connection(), id.output);
    if (text === null) return NONE();
    return new Response(text, {
      headers: {
        "content-type": "application/json",
        "cache-control": "private, max-age=31536000, immutable",
      },
    });
  });
}

export function PUT(request: Request, { params }: Context) {
  return guarded(async () => {
    const body = await readBody(request, AssetSchema);
    if (!body.ok) return body.problem;
    const id = assetIdOf(body.value);
    if (id !== (await params).id)
      return sayProblem("It is not what its name says. Choose its file again.", 422);
    const fault = body.value.kind === "picture" ? pictureFault(body.value) : null;
    if (fault !== null) return sayProblem(`The picture ${fault}.`, 422);
    await saveAsset(await connection(), id, body.value, Date.now());
    return sayJson({ id });
  });
}
