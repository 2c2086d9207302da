/** The stockroom in the database: entries of four kinds, their stock sizes in a table of their own. */
import { and, asc, eq, inArray, max } from "drizzle-orm";
import * as v from "valibot";
import { addTo, BrokenInvariant } from "@/core/kernel";
import {
  type BoardEntry,
  type BoughtEntry,
  type EdgingEntry,
  type SawEntry,
  type SectionEntry,
  type SetRecipe,
  type StockroomData,
  StockroomSchema,
  type TitleBlock,
} from "@/core/stockroom";
import type { Connection, Database } from "./database";
import { settings, stockEntries, stockSizes } from "./schema";

export type StockChange =
  | { readonly kind: "section"; readonly entry: SectionEntry }
  | { readonly kind: "board"; readonly entry: BoardEntry }
  | { readonly kind: "edging"; readonly entry: EdgingEntry }
  | { readonly kind: "bought"; readonly entry: BoughtEntry }
  | { readonly kind: "saw"; readonly entry: SawEntry };

export type StockSnapshot = {
  readonly data: StockroomData /** Revision of each entry, by id. */;
  readonly revisions: Readonly<Record<string, number>>;
};

/** The setting that the title block of the shop is kept under. */
const TITLE_BLOCK = "titleBlock";

export const saveTitleBlock = (db: Connection, block: TitleBlock): Promise<void> =>
  writeSetting(db, TITLE_BLOCK, JSON.stringify(block));

/** The setting that the shop's recipe of a set of drawings is kept under. */
const SET_RECIPE = "setRecipe";

export const saveSetRecipe = (db: Connection, recipe: SetRecipe): Promise<void> =>
  writeSetting(db, SET_RECIPE, JSON.stringify(recipe));

export async function readStock({ db }: Connection): Promise<StockSnapshot> {
  const [entries, sizes, own] = await Promise.all([
    db.select().from(stockEntries).orderBy(asc(stockEntries.position)),
    db.select().from(stockSizes).orderBy(asc(stockSizes.position)),
    db
      .select()
      .from(settings)
      .where(inArray(settings.name, ["currency", TITLE_BLOCK, SET_RECIPE])),
  ]);
  const sizesOf = new Map<string, (typeof sizes)[number][]>();
  for (const size of sizes) addTo(sizesOf, size.entryId, size);
  const ofKind = (kind: StockChange["kind"]) =>
    entries
      .filter((entry) => entry.kind === kind)
      .map(({ id, name, material, facts }) => ({
        id,
        name,
        material,
        ...JSON.parse(facts),
        stock: stockOf(kind, sizesOf.get(id) ?? []),
      }));
  const setting = (name: string) => own.find((one) => one.name === name)?.value;
  const [block, recipe] = [setting(TITLE_BLOCK), setting(SET_RECIPE)];
  const data = v.safeParse(StockroomSchema, {
    currency: setting("currency") ?? "EUR",
    sections: ofKind("section"),
    boards: ofKind("board"),
    edging: ofKind("edging"),
    bought: ofKind("bought"),
    saws: ofKind("saw"),
    ...(block === undefined ? {} : { titleBlock: JSON.parse(block) }),
    ...(recipe === undefined ? {} : { setRecipe: JSON.parse(recipe) }),
  });
  if (!data.success)
    throw new BrokenInvariant(`the stored stockroom cannot be read: ${data.issues[0].message}`);
  return {
    data: data.output,
    revisions: Object.fromEntries(entries.map((entry) => [entry.id, entry.revision])),
  };
}

function stockOf(
  kind: StockChange["kind"],
  sizes: readonly Pick<typeof stockSizes.$inferSelect, "length" | "width" | "price" | "per" | "count">[],
) {
  return sizes.map(({ length, width, price, per, count }) => ({
    length,
    price,
    count,
    ...(kind === "board" ? { width } : {}),
    ...(per === null ? {} : { per }),
  }));
}

/** Saves an entry when nobody else has changed it since `expected` (null: it is new). */
export async function saveStockEntry(
  { write }: Connection,
  change: StockChange,
  expected: number | null,
): Promise<number | "changed" | "exists" | "named"> {
  return write((db) =>
    db.transaction(async (tx) => {
      const { id } = change.entry;
      const [known] = await tx.select().from(stockEntries).where(eq(stockEntries.id, id));
      if (known && expected === null) return "exists";
      if ((known?.revision ?? null) !== expected) return "changed";
      if (await isNameTaken(tx, change)) return "named";
      const [last] = await tx.select({ position: max(stockEntries.position) }).from(stockEntries);
      const row = rowOf(change, known?.position ?? (last?.position ?? 0) + 1, (known?.revision ?? 0) + 1);
      await tx.insert(stockEntries).values(row).onConflictDoUpdate({ target: stockEntries.id, set: row });
      await replaceSizes(tx, change);
      return row.revision;
    }),
  );
}

/** Two entries of one kind with one name could not be told apart in any list. */
async function isNameTaken(
  tx: Parameters<Parameters<Database["transaction"]>[0]>[0],
  { kind, entry }: StockChange,
): Promise<boolean> {
  const wanted = entry.name.trim().toLowerCase();
  const same = await tx
    .select({ id: stockEntries.id, name: stockEntries.name })
    .from(stockEntries)
    .where(eq(stockEntries.kind, kind));
  return same.some(({ id, name }) => id !== entry.id && name.trim().toLowerCase() === wanted);
}

function rowOf(change: StockChange, position: number, revision: number) {
  const { id, name, ...rest } = change.entry;
  const {
    material = null,
    stock: _,
    ...facts
  } = { material: null as string | null, stock: [] as unknown, ...rest };
  return { id, kind: change.kind, position, name, material, facts: JSON.stringify(facts), revision };
}

async function replaceSizes(
  tx: Parameters<Parameters<Database["transaction"]>[0]>[0],
  change: StockChange,
): Promise<void> {
  await tx.delete(stockSizes).where(eq(stockSizes.entryId, change.entry.id));
  if (change.kind !== "section" && change.kind !== "board") return;
  const rows = change.entry.stock.map((size, position) => ({
    entryId: change.entry.id,
    position,
    length: size.length,
    width: "width" in size ? size.width : null,
    price: size.price,
    per: size.per ?? null,
    count: size.count,
  }));
  if (rows.length > 0) await tx.insert(stockSizes).values(rows);
}

/** Removes an entry when nobody else has changed it since `expected`. */
export async function removeStockEntry(
  { write }: Connection,
  kind: StockChange["kind"],
  id: string,
  expected: number,
): Promise<"removed" | "gone" | "changed"> {
  return write((db) =>
    db.transaction(async (tx) => {
      const [known] = await tx
        .select({ revision: stockEntries.revision })
        .from(stockEntries)
        .where(and(eq(stockEntries.id, id), eq(stockEntries.kind, kind)));
      if (!known) return "gone";
      if (known.revision !== expected) return "changed";
      await tx.delete(stockSizes).where(eq(stockSizes.entryId, id));
      await tx.delete(stockEntries).where(eq(stockEntries.id, id));
      return "removed";
    }),
  );
}

export async function readSetting({ db }: Connection, name: string): Promise<string | null> {
  const [row] = await db.select().from(settings).where(eq(settings.name, name));
  return row?.value ?? null;
}

export async function writeSetting({ write }: Connection, name: string, value: string): Promise<void> {
  await write((db) =>
    db.insert(settings).values({ name, value }).onConflictDoUpdate({ target: settings.name, set: { value } }),
  );
}
