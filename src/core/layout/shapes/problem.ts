/**
 * Free shapes (gussets, brackets) cut from sheet or plate along their outline, a gap apart: as a problem file and as what
 * comes out. Outlines are polygons in mm; where they are drawn from does not matter.
 */
import * as v from "valibot";
import { GREATEST_LENGTH_MM } from "../../kernel";
import { allowance, pieceCount, stockCount, stockPrice, stockSize } from "../stock";

const coordinate = v.pipe(
  v.number(),
  v.finite("must be a finite number"),
  v.minValue(-GREATEST_LENGTH_MM),
  v.maxValue(GREATEST_LENGTH_MM),
);

export const ShapeProblemSchema = v.object({
  /** Between any two shapes; what the cut takes is part of it. */
  gap: allowance,
  /** From every edge of the sheet. */
  margin: v.optional(allowance, 0),
  /** Shapes are turned in steps of so many degrees; 0: not at all. */
  step: v.optional(v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(180)), 90),
  stock: v.pipe(
    v.array(
      v.object({
        length: stockSize,
        width: stockSize,
        price: stockPrice,
        count: stockCount(20_000),
      }),
    ),
    v.maxLength(50),
  ),
  shapes: v.pipe(
    v.array(
      v.object({
        outline: v.pipe(
          v.array(v.tuple([coordinate, coordinate])),
          v.minLength(3, "an outline needs three corners"),
          v.maxLength(400),
        ),
        qty: pieceCount(2_000),
        /** It may only lie as drawn or turned by half a turn. */
        grain: v.optional(v.boolean(), false),
      }),
    ),
    v.maxLength(500),
  ),
});
export type ShapeProblem = v.InferOutput<typeof ShapeProblemSchema>;
export type ShapeProblemInput = v.InferInput<typeof ShapeProblemSchema>;
export const readShapeProblem = (input: ShapeProblemInput): ShapeProblem =>
  v.parse(ShapeProblemSchema, input);

/** A shape turned by `angle` degrees about its own origin and moved by (x, y), in mm from the corner of the sheet. */
export type ShapePlacement = {
  readonly shape: number;
  readonly angle: number;
  readonly x: number;
  readonly y: number;
};
export type ShapeSheet = { readonly stock: number; readonly placements: readonly ShapePlacement[] };
export type UnplacedShape = { readonly shape: number; readonly qty: number; readonly why: string };
export type ShapeLayout = {
  readonly sheets: readonly ShapeSheet[];
  readonly count: number;
  readonly cost: number | null;
  /** Sheets that the areas alone need; holds for every layout. */
  readonly lowerBound: number;
  readonly proven: boolean;
  /** Area of shapes ÷ area of the sheets used. */
  readonly utilisation: number;
  readonly unplaced: readonly UnplacedShape[];
};
