/** What holds for the whole shop: its name on papers, its currency, the unit that new jobs begin with. */
import * as v from "valibot";
import { LENGTH_UNITS } from "@/core/measure";
import { type Connection, readSetting, writeSetting } from "@/db";

export const ShopSchema = v.object({
  name: v.pipe(v.string(), v.trim(), v.maxLength(80, "is longer than 80 characters")),
  currency: v.pipe(
    v.string(),
    v.trim(),
    v.minLength(1, "needs a currency"),
    v.maxLength(8, "is longer than 8 characters"),
  ),
  unit: v.picklist(LENGTH_UNITS),
});
export type Shop = v.InferOutput<typeof ShopSchema>;

/** The settings of the shop; where nobody set one, no name, EUR and millimetres. */
export async function readShop(db: Connection): Promise<Shop> {
  const [name, currency, unit] = await Promise.all(
    ["shop", "currency", "unit"].map((setting) => readSetting(db, setting)),
  );
  const known = LENGTH_UNITS.find((one) => one === unit);
  return { name: name ?? "", currency: currency ?? "EUR", unit: known ?? "mm" };
}

export async function writeShop(db: Connection, shop: Shop): Promise<void> {
  await writeSetting(db, "shop", shop.name);
  await writeSetting(db, "currency", shop.currency);
  await writeSetting(db, "unit", shop.unit);
}
