/** How lengths are written: decimals or fractions. */
import * as v from "valibot";
import { FRACTION_DENOMINATORS } from "../measure";

export const LengthFormatSchema = v.variant("kind", [
  v.object({
    kind: v.literal("decimal"),
    places: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(6)),
    trailingZeros: v.boolean(),
  }),
  v.object({ kind: v.literal("fraction"), denominator: v.picklist(FRACTION_DENOMINATORS) }),
]);
