/**
 * Bar layouts as a problem file (4-architecture.md, "Layout problem files").
 * n pieces fit a bar when their lengths and n − 1 kerfs are at most its usable length; where mitred neighbours share
 * a cut, `mitre.ts` says how much less they take.
 */
import * as v from "valibot";
import { at, fromNm, toNm } from "../../kernel";
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

const MOST = 100_000;
const count = pieceCount(MOST);

/** Ways to lay a piece other than as drawn: end for end, over (which also exchanges its ends), rolled by half a turn. */
export const PIECE_TURNS = ["end", "over", "roll"] as const;
export type PieceTurn = (typeof PIECE_TURNS)[number];

/**
 * The ends of a piece as they are seen on the saw's table: signed angles from square in degrees, `depth` the height
 * of the section in the plane of the cuts. Pieces share cuts only in one `plane` and at one depth.
 */
const EndsSchema = v.object({
  plane: v.pipe(v.string(), v.maxLength(40)),
  depth: stockSize,
  angles: v.tuple([
    v.pipe(v.number(), v.gtValue(-89), v.ltValue(89)),
    v.pipe(v.number(), v.gtValue(-89), v.ltValue(89)),
  ]),
  turns: v.pipe(v.array(v.picklist(PIECE_TURNS)), v.maxLength(3)),
});
export type PieceEnds = v.InferOutput<typeof EndsSchema>;

export const BarProblemSchema = v.pipe(
  v.object({
    /** How lengths are written in the reasons of a layout; without it in millimetres. */
    style: textStyle,
    kerf: allowance,
    /** Cut off at each end of a bar, its own kerf included. */
    trim: v.optional(v.union([allowance, v.object({ start: allowance, end: allowance })]), 0),
    /** What the saw holds at the far end: it cannot be cut into a piece, but stays on the rest. */
    grip: v.optional(allowance, 0),
    /** The least rest worth keeping. */
    keep: v.optional(allowance, 0),
    /** Whether neighbours with like mitres share a cut. */
    share: v.optional(v.boolean(), false),
    /** Whether rack pieces are used up before anything else is weighed but cost. */
    rackFirst: v.optional(v.boolean(), false),
    stock: v.pipe(
      v.array(
        v.object({
          length: stockSize,
          price: stockPrice,
          count: stockCount(MOST),
          rack: rackName,
        }),
      ),
      v.maxLength(500),
    ),
    pieces: v.pipe(
      v.array(
        v.object({
          length: stockSize,
          qty: count,
          ends: v.optional(v.nullable(EndsSchema), null),
          /** Whether either end is cut at an angle, where `ends` cannot say how. */
          leans: v.exactOptional(v.tuple([v.boolean(), v.boolean()])),
        }),
      ),
      v.maxLength(20_000),
    ),
    /** Bars with pieces that are locked to them, in their order from the start; the rest is filled round them. */
    fixed: v.optional(
      v.pipe(
        v.array(
          v.object({
            stock: v.pipe(v.number(), v.integer(), v.minValue(0)),
            pieces: v.pipe(
              v.array(
                v.object({
                  piece: v.pipe(v.number(), v.integer(), v.minValue(0)),
                  /** Its place on the bar, counted from the start. */
                  place: v.pipe(v.number(), v.integer(), v.minValue(0)),
                }),
              ),
              v.minLength(1),
              v.maxLength(2000),
            ),
          }),
        ),
        v.maxLength(2000),
      ),
      [],
    ),
  }),
  v.check(
    ({ fixed, stock, pieces }) =>
      fixed.every(
        (bar) => bar.stock < stock.length && bar.pieces.every(({ piece }) => piece < pieces.length),
      ),
    "a locked piece or its bar is not in the problem",
  ),
);
export type BarProblem = v.InferOutput<typeof BarProblemSchema>;
/** A problem as it is written by hand: what has a usual value may be left out. */
export type BarProblemInput = v.InferInput<typeof BarProblemSchema>;

export const readBarProblem = (input: BarProblemInput): BarProblem => v.parse(BarProblemSchema, input);

export type CutBar = {
  /** Index into the problem's stock. */
  readonly stock: number;
  readonly times: number;
  /** Indices into the problem's pieces, from the start of the bar on. */
  readonly pieces: readonly number[];
  /** How each of them lies, where not all lie as drawn. */
  readonly turns?: readonly (PieceTurn | null)[];
  /** Which of them are locked, as places on the bar. */
  readonly locked?: readonly number[];
  /** mm left after the last cut, what the saw holds included; the cut that parts it has taken its kerf. */
  readonly remainder: number;
};

export type Unplaced = { readonly piece: number; readonly qty: number; readonly why: UnplacedReason };

export type BarLayout = {
  readonly bars: readonly CutBar[];
  /** Sum of prices; null when a price is missing. */
  readonly cost: number | null;
  readonly count: number;
  /** In the unit of `lowerBoundOf`, a cost or a number of bars to buy: no layout of these pieces can be below it. */
  readonly lowerBound: number;
  readonly lowerBoundOf: "cost" | "count";
  readonly proven: boolean;
  readonly unplaced: readonly Unplaced[];
  /** What shared cuts save against bars cut tip to tip. */
  readonly shared?: { readonly cuts: number; readonly length: number };
};

/** What is cut off at either end of a bar. */
export const trims = (problem: BarProblem) =>
  typeof problem.trim === "number" ? { start: problem.trim, end: problem.trim } : problem.trim;

/** mm of a bar that pieces and kerfs may take. */
export function usableLength(problem: BarProblem, stock: number): number {
  const { start, end } = trims(problem);
  // What the saw holds is parted by a cut of its own.
  const held = problem.grip > 0 ? toNm(problem.grip) + toNm(problem.kerf) : 0;
  return fromNm(toNm(at(problem.stock, stock).length) - toNm(start) - Math.max(toNm(end), held));
}
