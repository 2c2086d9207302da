/** Valibot parts that the kinds of layout problem files share. */
import * as v from "valibot";
import { BELOW_LEAST_LENGTH, GREATEST_LENGTH_MM, LEAST_LENGTH_MM } from "../../kernel";
import { FRACTION_DENOMINATORS, LENGTH_UNITS } from "../../measure";

/** A length of stock or of a piece, in mm. */
export { stockSize } from "../../stockroom";

/** A kerf or a trim, in mm. */
export const allowance = v.pipe(
  v.number(),
  v.finite(),
  v.minValue(0, "must not be negative"),
  v.maxValue(GREATEST_LENGTH_MM),
  v.check((value) => value === 0 || value >= LEAST_LENGTH_MM, BELOW_LEAST_LENGTH),
);

/** The unit and the form in which lengths are written in words. */
export const textStyle = v.exactOptional(
  v.object({
    unit: v.picklist(LENGTH_UNITS),
    format: v.variant("kind", [
      v.object({
        kind: v.literal("decimal"),
        places: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(6)),
        trailingZeros: v.boolean(),
      }),
      v.object({ kind: v.literal("fraction"), denominator: v.picklist(FRACTION_DENOMINATORS) }),
    ]),
  }),
);

/** How many there are or are wanted. */
export const pieceCount = (most: number) =>
  v.pipe(
    v.number(),
    v.integer("must be a whole number"),
    v.minValue(0, "must not be negative"),
    v.maxValue(most, `is above ${most.toLocaleString("en")}`),
  );

/** What one costs; null: unknown. */
export const stockPrice = v.optional(v.nullable(v.pipe(v.number(), v.finite(), v.minValue(0))), null);

/** How many of a stock size there are; null: as many as wanted. */
export const stockCount = (most: number) => v.optional(v.nullable(pieceCount(most)), null);

/** The name in the rack of an offcut that stands there; null: it is bought. */
export const rackName = v.optional(v.nullable(v.pipe(v.string(), v.maxLength(60))), null);
