/** Length units and how a job shows its lengths. */

export const LENGTH_UNITS = ["mm", "cm", "m", "in", "ft"] as const;
export type LengthUnit = (typeof LENGTH_UNITS)[number];

/** Millimetres in one unit. 1 in = 25.4 mm exactly (international inch, ISO 31-1 / NIST SP 811). */
export const MM_PER_UNIT: Readonly<Record<LengthUnit, number>> = {
  mm: 1,
  cm: 10,
  m: 1000,
  in: 25.4,
  ft: 304.8,
};

export const FRACTION_DENOMINATORS = [2, 4, 8, 16, 32, 64] as const;
export type FractionDenominator = (typeof FRACTION_DENOMINATORS)[number];

/** How lengths are written: decimals with a number of places, or fractions to the nearest 1/denominator. */
export type LengthFormat =
  | { readonly kind: "decimal"; readonly places: number; readonly trailingZeros: boolean }
  | { readonly kind: "fraction"; readonly denominator: FractionDenominator };

/** The unit and the form in which a job reads and shows lengths. */
export type LengthStyle = { readonly unit: LengthUnit; readonly format: LengthFormat };
