/**
 * Prices as they were entered, and what a metre, a square metre and a whole bar or sheet then cost. 1 ft = 0.3048 m and
 * 1 lb = 0.45359237 kg exactly (NIST SP 811, appendix B).
 */
import { roundTo } from "../measure";
import {
  type BoardEntry,
  type BoughtEntry,
  massPerMetre,
  type SectionEntry,
  type StockLength,
  type StockSheet,
} from "./stockroom";

const M_PER_FT = 0.3048;
const KG_PER_LB = 0.453_592_37;

/** A price as it was entered. `kg`: the mass of one metre or square metre, where the price goes by mass. */
export type EnteredPrice = { readonly price: number; readonly per: PricePer; readonly kg: number | null };
export type PricePer = NonNullable<StockLength["per"] | StockSheet["per"]> | "bar" | "sheet";

/** What a price is for, in a word. */
export const PER_WORDS: Readonly<Record<PricePer, string>> = {
  bar: "bar",
  sheet: "sheet",
  m: "m",
  ft: "ft",
  m2: "m²",
  ft2: "ft²",
  kg: "kg",
  lb: "lb",
};

/** A size that is sold, with the price of one m or m² and of a whole bar or sheet; null: nobody said it, or its mass is not known. */
export type Priced<S> = {
  readonly size: Omit<S, "per">;
  readonly unitPrice: number | null;
  readonly entered: EnteredPrice | null;
};

function priced<S extends StockLength | StockSheet>(
  { per, ...size }: S,
  {
    units,
    whole,
    kgPerUnit,
  }: { readonly units: number; readonly whole: "bar" | "sheet"; readonly kgPerUnit: number | null },
): Priced<S> {
  const { price } = size;
  if (price === null) return { size, unitPrice: null, entered: null };
  const byMass = per === "kg" || per === "lb";
  const entered = { price, per: per ?? whole, kg: byMass ? kgPerUnit : null };
  const unitPrice = unitPriceOf(price, per ?? null, units, kgPerUnit);
  // To a hundredth of a cent, as layouts add prices up.
  const bought = unitPrice === null ? null : per === undefined ? price : roundTo(unitPrice * units, 4);
  return { size: { ...size, price: bought }, unitPrice, entered };
}

function unitPriceOf(
  price: number,
  per: StockLength["per"] | StockSheet["per"] | null,
  units: number,
  kgPerUnit: number | null,
): number | null {
  switch (per) {
    case null:
    case undefined:
      return price / units;
    case "m":
    case "m2":
      return price;
    case "ft":
      return price / M_PER_FT;
    case "ft2":
      return price / M_PER_FT ** 2;
    case "kg":
      return kgPerUnit === null ? null : price * kgPerUnit;
    case "lb":
      return kgPerUnit === null ? null : (price * kgPerUnit) / KG_PER_LB;
    default:
      return per satisfies never;
  }
}

/** The lengths of a section with their prices by the metre and by the bar. */
export function pricedBars(entry: SectionEntry): readonly Priced<StockLength>[] {
  const kgPerUnit = massPerMetre(entry);
  return entry.stock.map((size) => priced(size, { units: size.length / 1000, whole: "bar", kgPerUnit }));
}

/** The sizes of a board with their prices by the square metre and by the sheet. */
export function pricedSheets(entry: BoardEntry): readonly Priced<StockSheet>[] {
  const { densityKgM3, thickness } = entry;
  const kgPerUnit = densityKgM3 === null ? null : (densityKgM3 * thickness) / 1000;
  return entry.stock.map((size) =>
    priced(size, { units: (size.length * size.width) / 1e6, whole: "sheet", kgPerUnit }),
  );
}

/** The lowest price of one unit among the sizes that can be bought without limit, and how it was entered; null: none is priced. */
export function leastUnitPrice(
  stock: readonly Priced<{ readonly count: number | null }>[],
): { readonly price: number; readonly entered: EnteredPrice } | null {
  let least: { price: number; entered: EnteredPrice } | null = null;
  for (const { size, unitPrice, entered } of stock) {
    if (unitPrice === null || entered === null || size.count !== null) continue;
    if (least === null || unitPrice < least.price) least = { price: unitPrice, entered };
  }
  return least;
}

/** What a bought part costs: one of it, a box of it, or a metre of it. */
export function boughtPrice({ price, packOf, per }: BoughtEntry): number | null {
  return price !== null && packOf !== null && per === "each" ? roundTo(price * packOf, 4) : price;
}
