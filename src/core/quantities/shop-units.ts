/**
 * Quantities in the units of the job's shop: metres and square metres, or feet and square feet where lengths are in inches or
 * feet. 1 ft = 0.3048 m exactly (international foot, NIST SP 811). A board foot is 144 cubic inches (NIST Handbook 130).
 */
import { formatDecimal, type LengthStyle, type LengthUnit, writeLength } from "../measure";
import type { Measure } from "./quantities";

export type ShopMeasure = "m" | "m²" | "ft" | "ft²" | "each";

const FT = 0.3048;

export const isImperial = (unit: LengthUnit): boolean => unit === "in" || unit === "ft";

/** The unit that a measure is told in, and how many of it one metre or square metre is. */
export function shopUnit(
  measure: Measure,
  unit: LengthUnit,
): { readonly name: ShopMeasure; readonly per: number } {
  if (!isImperial(unit) || measure === "each") return { name: measure, per: 1 };
  return measure === "m" ? { name: "ft", per: 1 / FT } : { name: "ft²", per: 1 / FT ** 2 };
}

/** How feet are written: 12.58, or 12' 7". */
const FEET_FORMS = ["decimal", "feetAndInches"] as const;
export type FeetForm = (typeof FEET_FORMS)[number];

/** A quantity in m, m² or each, written in the shop's unit. */
export function quantityWords(
  measure: Measure,
  quantity: number,
  { unit, feet = "decimal" }: { readonly unit: LengthUnit; readonly feet?: FeetForm },
): string {
  if (measure === "each") return formatDecimal(quantity, 0);
  const shop = shopUnit(measure, unit);
  if (shop.name === "ft" && feet === "feetAndInches") return feetAndInches(quantity * 1000);
  return formatDecimal(quantity * shop.per, shop.per === 1 ? 3 : 2);
}

/** 12' 7": whole inches, upwards, since it is bought. */
function feetAndInches(mm: number): string {
  // A hair of slack for the noise of sums: 1/100 mm is no inch more.
  const inches = Math.max(0, Math.ceil((mm - 0.01) / 25.4));
  return `${Math.floor(inches / 12)}' ${inches % 12}"`;
}

/** Board feet of a timber by its actual size. */
export const boardFeet = (widthMm: number, heightMm: number, metres: number): number =>
  ((widthMm / 25.4) * (heightMm / 25.4) * ((metres * 1000) / 25.4)) / 144;

/** A size of stock in words: "20 ft", "8 ft × 4 ft" where it is whole feet, else as the job writes lengths. */
export function stockSizeWords(sizes: readonly number[], style: LengthStyle): string {
  const feet =
    isImperial(style.unit) && sizes.every((mm) => Math.abs(mm / 304.8 - Math.round(mm / 304.8)) < 1e-6);
  if (feet) return sizes.map((mm) => `${Math.round(mm / 304.8)} ft`).join(" × ");
  return `${sizes.map((mm) => writeLength(mm, style).text).join(" × ")} ${style.unit}`;
}
