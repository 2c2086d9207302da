/** Sheet layouts as a problem file (4-architecture.md, "Layout problem files") and as what comes out. */
import * as v from "valibot";
import { GREATEST_LENGTH_MM } from "../../kernel";
import {
  allowance,
  pieceCount,
  rackName,
  stockCount,
  stockPrice,
  stockSize,
  textStyle,
  type UnplacedReason,
} from "../stock";

const MOST = 20_000;
const count = pieceCount(MOST);

const index = v.pipe(v.number(), v.integer(), v.minValue(0));
const position = v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(GREATEST_LENGTH_MM));

/** A panel that stands where somebody put it. */
const LockedSchema = v.object({
  panel: index,
  x: position,
  y: position,
  rotated: v.boolean(),
  /** It may lie against the grain: somebody said so. */
  against: v.optional(v.boolean(), false),
  /** The keep-together run that it is part of. */
  together: v.exactOptional(v.object({ group: index, run: index })),
});
export type LockedPlacement = v.InferOutput<typeof LockedSchema>;

/**
 * Panels that are cut as one blank, with the kerf between them, and parted afterwards: side by side along their length or
 * their width, in this order, `qty` times.
 */
const TogetherSchema = v.object({
  panels: v.pipe(v.array(index), v.minLength(2), v.maxLength(60)),
  along: v.picklist(["length", "width"]),
  qty: count,
});
export type Together = v.InferOutput<typeof TogetherSchema>;

export const SheetProblemSchema = v.pipe(
  v.object({
    /** How lengths are written in the reasons of a layout; without it in millimetres. */
    style: textStyle,
    kerf: allowance,
    /** Taken from all four sides, its own kerf included. */
    trim: v.optional(allowance, 0),
    /** Runs of parallel cuts, the first along the sheet's length; null: without limit. */
    stages: v.optional(v.nullable(v.pipe(v.number(), v.integer(), v.minValue(2), v.maxValue(20))), null),
    /** The least rest worth keeping, as its shorter side. */
    keep: v.optional(allowance, 0),
    /** Whether rack pieces are used before sheets are bought, even where that saves no sheet. */
    rackFirst: v.optional(v.boolean(), false),
    stock: v.pipe(
      v.array(
        v.object({
          length: stockSize,
          width: stockSize,
          price: stockPrice,
          count: stockCount(MOST),
          grain: v.optional(v.nullable(v.picklist(["length", "width"])), null),
          rack: rackName,
        }),
      ),
      v.maxLength(300),
    ),
    panels: v.pipe(
      v.array(
        v.object({ length: stockSize, width: stockSize, qty: count, grain: v.optional(v.boolean(), false) }),
      ),
      v.maxLength(5_000),
    ),
    together: v.optional(v.pipe(v.array(TogetherSchema), v.maxLength(500)), []),
    /** Sheets with panels that are locked to their places; the rest is filled round them. */
    fixed: v.optional(
      v.pipe(
        v.array(v.object({ stock: index, placements: v.pipe(v.array(LockedSchema), v.minLength(1)) })),
        v.maxLength(500),
      ),
      [],
    ),
  }),
  v.check(
    ({ fixed, stock, panels, together }) =>
      fixed.every(
        (sheet) =>
          sheet.stock < stock.length &&
          sheet.placements.every(
            (one) =>
              one.panel < panels.length &&
              (one.together === undefined || one.together.group < together.length),
          ),
      ) && together.every((group) => group.panels.every((panel) => panel < panels.length)),
    "a locked panel, its sheet or a panel that is kept together is not in the problem",
  ),
);
export type SheetProblem = v.InferOutput<typeof SheetProblemSchema>;
/** A problem as it is written by hand: what has a usual value may be left out. */
export type SheetProblemInput = v.InferInput<typeof SheetProblemSchema>;

export const readSheetProblem = (input: SheetProblemInput): SheetProblem =>
  v.parse(SheetProblemSchema, input);

/** A placed panel: x along the sheet's length from the corner of the untrimmed sheet; sizes as placed. */
export type Placement = {
  readonly panel: number;
  readonly x: number;
  readonly y: number;
  readonly length: number;
  readonly width: number;
  /** The panel's length runs along y. */
  readonly rotated: boolean;
  readonly locked?: boolean;
  /** It lies against the grain because somebody allowed it. */
  readonly against?: boolean;
  /** Which keep-together group it belongs to, and which of its runs on this sheet. */
  readonly together?: { readonly group: number; readonly run: number };
};

/** A rectangle that is left over and not cut up further. */
export type Offcut = {
  readonly x: number;
  readonly y: number;
  readonly length: number;
  readonly width: number;
};

export type CutSheet = {
  readonly stock: number;
  readonly placements: readonly Placement[];
  readonly offcuts: readonly Offcut[];
};

export type UnplacedPanel = { readonly panel: number; readonly qty: number; readonly why: UnplacedReason };

export type SheetLayout = {
  readonly sheets: readonly CutSheet[];
  readonly count: number;
  /** Sum of prices; null when a price is missing. */
  readonly cost: number | null;
  /** In the unit of `lowerBoundOf`, a cost or a number of sheets to buy; holds for every layout, guillotine or not. */
  readonly lowerBound: number;
  readonly lowerBoundOf: "cost" | "count";
  readonly proven: boolean;
  /** Area of panels ÷ area of the sheets used. */
  readonly utilisation: number;
  readonly unplaced: readonly UnplacedPanel[];
};
