/** What jobs refer to by its content: stored once, and never changed. */
import { eq, inArray } from "drizzle-orm";
import type { Asset, AssetId, Assets } from "@/core/job";
import { insertAssets } from "./assets-out";
import type { Connection } from "./database";
import { assets } from "./schema";

export async function saveAsset({ write }: Connection, id: AssetId, asset: Asset, at: number): Promise<void> {
  await write((db) => insertAssets(db, new Map([[id, asset]]), at));
}

/** Those of the assets that are here. */
export async function readAssets({ db }: Connection, ids: Iterable<AssetId>): Promise<Assets> {
  const wanted = [...ids];
  if (wanted.length === 0) return new Map();
  const rows = await db.select().from(assets).where(inArray(assets.id, wanted));
  return new Map(rows.map(({ id, asset }) => [id as AssetId, JSON.parse(asset) as Asset]));
}

/** The text of an asset as it was stored; null: there is none. */
export async function assetText({ db }: Connection, id: AssetId): Promise<string | null> {
  const [row] = await db.select().from(assets).where(eq(assets.id, id));
  return row?.asset ?? null;
}
