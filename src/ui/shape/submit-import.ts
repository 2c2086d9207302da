/** An import on its way into the job: what its records name has to be there before them. */
import type { Imported } from "@/core/imports";
import type { Asset, Edit } from "@/core/job";
import type { Desk } from "../desk/desk-store";

/** The sentence why it is refused, or null. */
export async function submitImport(
  desk: Desk,
  added: Imported["added"],
  { edit, assets }: { readonly edit: Edit; readonly assets: readonly Asset[] },
): Promise<string | null> {
  let refused = await desk.addEntries(added.sections, added.boards);
  for (const asset of assets) refused ??= await desk.storeAsset(asset);
  return refused ?? desk.submit(edit);
}
