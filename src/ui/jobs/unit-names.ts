/** Units by their full names, for choosing. */
import type { LengthUnit } from "@/core/measure";

export const UNIT_NAMES: Readonly<Record<LengthUnit, string>> = {
  mm: "millimetres (mm)",
  cm: "centimetres (cm)",
  m: "metres (m)",
  in: "inches (in), with fractions",
  ft: "feet (ft), with fractions",
};
