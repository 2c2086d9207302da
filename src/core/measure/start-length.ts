/** A first value for a field, round in the unit of the job: nobody types 6 mm as 0.236 in. */
import type { LengthUnit } from "./unit";

export const startLength = (unit: LengthUnit, mm: string, inches: string): string =>
  unit === "in" || unit === "ft" ? `${inches} in` : `${mm} mm`;
