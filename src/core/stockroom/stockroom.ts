/**
 * The stockroom: sections, boards, edging, bought parts and saws with their stock sizes, prices, kerf and
 * trims, and the title block of the shop. Lengths in millimetres; prices in the shop's currency per the unit that is named.
 */
import * as v from "valibot";
import { BELOW_LEAST_LENGTH, canBeKey, GREATEST_LENGTH_MM, LEAST_LENGTH_MM } from "../kernel";
import type { LengthStyle } from "../measure";
import { SectionShapeSchema, STEEL_KG_M3, sectionProperties } from "./section-shape";
import { SetRecipeSchema, USUAL_SET } from "./set-recipe";
import { TitleBlockSchema, USUAL_TITLE_BLOCK } from "./title-block";

const id = v.pipe(
  v.string(),
  v.minLength(1),
  v.maxLength(60),
  v.check(canBeKey, "cannot be the name of an entry"),
);
const name = v.pipe(v.string(), v.trim(), v.minLength(1, "needs a name"), v.maxLength(80));
export const size = v.pipe(
  v.number(),
  v.finite("must be a finite number"),
  v.gtValue(0, "must be above zero"),
  v.minValue(LEAST_LENGTH_MM, BELOW_LEAST_LENGTH),
  v.maxValue(GREATEST_LENGTH_MM, "is longer than 100 m"),
);
const allowance = v.pipe(
  v.number(),
  v.finite(),
  v.minValue(0, "must not be negative"),
  v.maxValue(1000),
  v.check((value) => value === 0 || value >= LEAST_LENGTH_MM, BELOW_LEAST_LENGTH),
);
const price = v.nullable(
  v.pipe(v.number(), v.finite(), v.minValue(0, "must not be negative"), v.maxValue(1e6)),
);
const stockCount = v.nullable(v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(100_000)));
const material = v.nullable(v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(60)));
const density = v.nullable(v.pipe(v.number(), v.finite(), v.gtValue(0), v.maxValue(30_000)));

/** What a price of a size is for, where it is not the whole bar or sheet. */
const BAR_PRICES = ["m", "ft", "kg", "lb"] as const;
const SHEET_PRICES = ["m2", "ft2", "kg", "lb"] as const;

/** A length that bars come in. `count` null: as many as wanted. */
const StockLengthSchema = v.object({
  length: size,
  price,
  per: v.exactOptional(v.picklist(BAR_PRICES)),
  count: stockCount,
});
export type StockLength = v.InferOutput<typeof StockLengthSchema>;
/** A size that sheets come in; `length` runs along the grain where there is one. */
const StockSheetSchema = v.object({
  length: size,
  width: size,
  price,
  per: v.exactOptional(v.picklist(SHEET_PRICES)),
  count: stockCount,
});
export type StockSheet = v.InferOutput<typeof StockSheetSchema>;

/** Whether offcuts of the rack are used: not at all, where they save buying, or before anything is bought. */
export const RACK_USES = ["none", "saving", "first"] as const;
export type RackUse = (typeof RACK_USES)[number];
const rackUse = v.picklist(RACK_USES);

/** How a board is cut: by cuts that run straight through a sheet, or along the outline of each piece. */
export const CUT_WAYS = ["through", "outline"] as const;
export type CutWay = (typeof CUT_WAYS)[number];
/** Steps in degrees by which pieces are turned that are cut along their outlines; 0: they lie as drawn. */
export const TURN_STEPS = [0, 15, 30, 45, 90, 180] as const;
export type TurnStep = (typeof TURN_STEPS)[number];
/** Units in which entries are typed; lengths are kept in millimetres. */
const ENTRY_UNITS = ["mm", "in"] as const;
export type EntryUnit = (typeof ENTRY_UNITS)[number];
/** How lengths of an entry are written: inches in sixty-fourths. */
export const entryStyle = (unit: EntryUnit): LengthStyle => ({
  unit,
  format:
    unit === "in"
      ? { kind: "fraction", denominator: 64 }
      : { kind: "decimal", places: 3, trailingZeros: false },
});
const entryUnit = v.optional(v.picklist(ENTRY_UNITS), "mm");

const saying = <T extends v.GenericSchema>(schema: T, usual: v.InferInput<T>) => v.optional(schema, usual);

export const SectionEntrySchema = v.object({
  id,
  name,
  unit: entryUnit,
  shape: SectionShapeSchema,
  material,
  densityKgM3: density,
  /** From the maker's or a standard's table; null: area × density. */
  massKgPerM: v.nullable(v.pipe(v.number(), v.finite(), v.gtValue(0))),
  /** By which rule or table sizes and mass are made. */
  source: v.pipe(v.string(), v.maxLength(120)),
  stock: v.pipe(v.array(StockLengthSchema), v.maxLength(20)),
  kerf: allowance,
  trimStart: allowance,
  trimEnd: allowance,
  /** What the saw holds at the far end: no piece can be cut from it, but it stays on the rest. */
  grip: saying(allowance, 0),
  /** The least rest worth keeping. */
  keep: saying(v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(GREATEST_LENGTH_MM)), 0),
  /** Whether neighbours with like mitres share a cut. */
  share: saying(v.boolean(), true),
  rack: saying(rackUse, "saving"),
});
export type SectionEntry = v.InferOutput<typeof SectionEntrySchema>;

export const BoardEntrySchema = v.object({
  id,
  name,
  unit: entryUnit,
  material,
  thickness: size,
  /** The way of the grain on the stock sheet; null: no grain. */
  grain: v.nullable(v.picklist(["length", "width"])),
  densityKgM3: density,
  stock: v.pipe(v.array(StockSheetSchema), v.maxLength(20)),
  kerf: allowance,
  trim: allowance,
  /** Runs of parallel cuts that the saw does, the first along the sheet; null: without limit. */
  stages: v.nullable(v.picklist([2, 3, 4])),
  /** What blanks are larger than needed, in length and in width, to be cut to size after. */
  allowance: saying(allowance, 0),
  /** The shorter side of the least rest worth keeping. */
  keep: saying(v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(GREATEST_LENGTH_MM)), 0),
  rack: saying(rackUse, "saving"),
  cut: saying(v.picklist(CUT_WAYS), "through"),
  /** Between pieces that are cut along their outlines; what the cut takes is part of it. */
  gap: saying(allowance, 6),
  turn: saying(v.picklist(TURN_STEPS), 90),
});
export type BoardEntry = v.InferOutput<typeof BoardEntrySchema>;

export const EdgingEntrySchema = v.object({
  id,
  name,
  unit: entryUnit,
  material,
  thickness: allowance,
  /** Whether the blank is smaller by its thickness. */
  deducted: v.boolean(),
  /** Left over at each end of an edge when it is glued on. */
  overhang: allowance,
  pricePerM: price,
});
export type EdgingEntry = v.InferOutput<typeof EdgingEntrySchema>;

export const BoughtEntrySchema = v.object({
  id,
  name,
  measure: v.picklist(["each", "length"]),
  /** Per piece, per pack, or per metre. */
  price,
  /** The price is that of one piece though they come in packs; else it is that of what is bought. */
  per: v.exactOptional(v.literal("each")),
  /** Pieces in a pack; null: sold singly. */
  packOf: v.nullable(v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(100_000))),
});
export type BoughtEntry = v.InferOutput<typeof BoughtEntrySchema>;

/** A saw for bars and what it can do. */
export const SawEntrySchema = v.object({
  id,
  name,
  unit: entryUnit,
  /** The highest section that it cuts through. */
  depth: size,
  /** The greatest angle from square, in degrees. */
  angle: v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(80)),
  /** The longest piece that its stop can be set to. */
  length: size,
});
export type SawEntry = v.InferOutput<typeof SawEntrySchema>;

export const StockroomSchema = v.object({
  currency: v.pipe(v.string(), v.minLength(1), v.maxLength(8)),
  sections: v.array(SectionEntrySchema),
  boards: v.array(BoardEntrySchema),
  edging: v.array(EdgingEntrySchema),
  bought: v.array(BoughtEntrySchema),
  saws: saying(v.array(SawEntrySchema), []),
  titleBlock: saying(TitleBlockSchema, USUAL_TITLE_BLOCK),
  /** What belongs to a whole set of drawings. */
  setRecipe: saying(SetRecipeSchema, USUAL_SET),
});
export type StockroomData = v.InferOutput<typeof StockroomSchema>;

/** A stockroom as it is written by hand: what has a usual value may be left out. */
export type StockroomInput = v.InferInput<typeof StockroomSchema>;

/** The stockroom with its entries at hand by id. */
export type Stockroom = StockroomData & {
  readonly sectionById: ReadonlyMap<string, SectionEntry>;
  readonly boardById: ReadonlyMap<string, BoardEntry>;
  readonly edgingById: ReadonlyMap<string, EdgingEntry>;
  readonly boughtById: ReadonlyMap<string, BoughtEntry>;
};

const byId = <T extends { readonly id: string }>(entries: readonly T[]): ReadonlyMap<string, T> =>
  new Map(entries.map((entry) => [entry.id, entry]));

export function indexStockroom(data: StockroomData): Stockroom {
  return {
    ...data,
    sectionById: byId(data.sections),
    boardById: byId(data.boards),
    edgingById: byId(data.edging),
    boughtById: byId(data.bought),
  };
}

/** A stockroom that is written in code. Throws where it does not fit its schema. */
export const stockroomOf = (input: StockroomInput): Stockroom =>
  indexStockroom(v.parse(StockroomSchema, input));

export const EMPTY_STOCKROOM: Stockroom = indexStockroom({
  currency: "EUR",
  sections: [],
  boards: [],
  edging: [],
  bought: [],
  saws: [],
  titleBlock: USUAL_TITLE_BLOCK,
  setRecipe: USUAL_SET,
});

/** kg/m³. No timber or board is as heavy, no metal of a shop as light; from common tables, from memory. */
const LIGHTEST_METAL = 1_600;

/** Whether a board is sheet or plate of metal, as its density says. */
export const isMetal = (board: Pick<BoardEntry, "densityKgM3"> | null): boolean =>
  (board?.densityKgM3 ?? 0) >= LIGHTEST_METAL;

/** kg/m of a section: from its table, else area × density; null when neither is known. */
export function massPerMetre(entry: SectionEntry): number | null {
  if (entry.massKgPerM !== null) return entry.massKgPerM;
  if (entry.densityKgM3 === null) return null;
  return sectionProperties(entry.shape).areaMm2 * entry.densityKgM3 * 1e-6;
}

/** kg/m of a steel section by area: A × 7850 kg/m³. */
export function steelMassPerMetre(areaMm2: number): number {
  return areaMm2 * STEEL_KG_M3 * 1e-6;
}
