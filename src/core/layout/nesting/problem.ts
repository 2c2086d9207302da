/**
 * Free shapes (gussets, brackets, nested panels) cut from sheet or plate along their outline, a gap apart: as a problem file
 * and as what comes out. Outlines are corners in mm; where they are drawn from does not matter.
 */
import * as v from "valibot";
import {
  type BulgedCorner,
  boxOfPoints,
  flattened,
  movedPolygon,
  type Polygon,
  polygonArea,
  turnedPolygon,
  type Vec2,
} from "../../geometry";
import { at, GREATEST_LENGTH_MM } from "../../kernel";
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

const coordinate = v.pipe(
  v.number(),
  v.finite("must be a finite number"),
  v.minValue(-GREATEST_LENGTH_MM),
  v.maxValue(GREATEST_LENGTH_MM),
);
const bulge = v.pipe(
  v.number(),
  v.finite(),
  v.minValue(-1, "bulges by half a circle at most"),
  v.maxValue(1),
);
const angle = v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(360));
const index = v.pipe(v.number(), v.integer(), v.minValue(0));
const count = pieceCount(20_000);

/** A shape that stands where somebody put it. */
const LockedShapeSchema = v.object({
  shape: index,
  angle,
  x: coordinate,
  y: coordinate,
  mirrored: v.optional(v.boolean(), false),
  against: v.optional(v.boolean(), false),
});
export type LockedShape = v.InferOutput<typeof LockedShapeSchema>;

/** mm. How far the polygon by which a shape is laid out may lie outside its true outline. */
const FINENESS = 0.1;

/** mm. An outline that is thinner encloses nothing that could be cut. */
const LEAST_BODY = 0.01;

function hasBody(outline: readonly BulgedCorner[]): boolean {
  const { x0, y0, x1, y1 } = boxOfPoints(flattened(outline, FINENESS));
  return Math.min(x1 - x0, y1 - y0) >= LEAST_BODY;
}

/** [x, y], or [x, y, bulge] where an arc leads on: the tangent of a quarter of its sweep, anticlockwise above zero. */
const cornersSchema = v.pipe(
  v.array(v.union([v.strictTuple([coordinate, coordinate]), v.strictTuple([coordinate, coordinate, bulge])])),
  v.minLength(3, "an outline needs three corners"),
  v.maxLength(400),
);

export const NestingProblemSchema = v.pipe(
  v.object({
    /** How lengths are written in the reasons of a layout; without it in millimetres. */
    style: textStyle,
    /** Between any two shapes; what the cut takes is part of it. */
    gap: allowance,
    /** From every edge of the sheet. */
    margin: v.optional(allowance, 0),
    /** Shapes are turned in steps of so many degrees; 0: not at all. */
    step: v.optional(v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(180)), 90),
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
          count: stockCount(20_000),
          /** The way of its grain; says nothing to shapes without. */
          grain: v.optional(v.picklist(["length", "width"]), "length"),
          rack: rackName,
        }),
      ),
      v.maxLength(300),
    ),
    shapes: v.pipe(
      v.array(
        v.object({
          outline: v.pipe(
            cornersSchema,
            v.check((outline) => hasBody(outline), "is thinner than a hundredth of a millimetre"),
          ),
          /** Cut out of it; drawn and given out, of no weight for where it lies. */
          holes: v.optional(
            v.pipe(
              v.array(v.object({ x: coordinate, y: coordinate, diameter: stockSize })),
              v.maxLength(2_000),
            ),
            [],
          ),
          /** Openings that are no circles, likewise. */
          cutOuts: v.exactOptional(v.pipe(v.array(cornersSchema), v.maxLength(100))),
          qty: count,
          /** Its x must run along the grain of the sheet. */
          grain: v.optional(v.boolean(), false),
          /** How many of them lie mirrored (the opposite hand); null: either face may look up. */
          opposite: v.optional(v.nullable(count), 0),
        }),
      ),
      v.maxLength(2_000),
    ),
    /** Sheets with shapes that are locked to their places; the rest is filled round them. */
    fixed: v.optional(
      v.pipe(
        v.array(v.object({ stock: index, placements: v.pipe(v.array(LockedShapeSchema), v.minLength(1)) })),
        v.maxLength(500),
      ),
      [],
    ),
  }),
  v.check(
    ({ fixed, stock, shapes }) =>
      fixed.every(
        (sheet) => sheet.stock < stock.length && sheet.placements.every(({ shape }) => shape < shapes.length),
      ),
    "a locked shape or its sheet is not in the problem",
  ),
);
export type NestingProblem = v.InferOutput<typeof NestingProblemSchema>;
export type NestingProblemInput = v.InferInput<typeof NestingProblemSchema>;
export const readNestingProblem = (input: NestingProblemInput): NestingProblem =>
  v.parse(NestingProblemSchema, input);

/**
 * A shape, mirrored in its own y axis where it says so, then turned by `angle` degrees about its own origin and moved by
 * (x, y), in mm from the corner of the sheet.
 */
export type ShapePlacement = {
  readonly shape: number;
  readonly angle: number;
  readonly x: number;
  readonly y: number;
  readonly mirrored?: boolean;
  readonly locked?: boolean;
  /** It lies against the grain because somebody allowed it. */
  readonly against?: boolean;
};
/** A rectangle that is left over at the end of a sheet. */
export type ShapeRest = {
  readonly x: number;
  readonly y: number;
  readonly length: number;
  readonly width: number;
};
export type NestingSheet = {
  readonly stock: number;
  readonly placements: readonly ShapePlacement[];
  readonly offcuts: readonly ShapeRest[];
};
export type UnplacedShape = { readonly shape: number; readonly qty: number; readonly why: UnplacedReason };
export type NestingLayout = {
  readonly sheets: readonly NestingSheet[];
  readonly count: number;
  readonly cost: number | null;
  /** What the areas alone need; holds for every layout. */
  readonly lowerBound: number;
  readonly lowerBoundOf: "cost" | "count";
  readonly proven: boolean;
  /** Area of shapes ÷ area of the sheets used. */
  readonly utilisation: number;
  readonly unplaced: readonly UnplacedShape[];
};

/** Corners mirrored in the y axis, anticlockwise again: the bulge of an edge goes with the edge. */
function mirroredCorners(corners: readonly BulgedCorner[]): readonly BulgedCorner[] {
  return corners.map((_, i): BulgedCorner => {
    const [x, y] = at(corners, corners.length - 1 - i);
    const leading = at(corners, (2 * corners.length - 2 - i) % corners.length)[2] ?? 0;
    return [-x, y, leading];
  });
}

/** The same outline run round the other way. */
const reversedCorners = (corners: readonly BulgedCorner[]): readonly BulgedCorner[] =>
  mirroredCorners(corners).map(([x, y, arc = 0]): BulgedCorner => [-x, y, -arc]);

const runsAnticlockwise = (corners: readonly BulgedCorner[]) =>
  polygonArea(corners.map(([x, y]): Vec2 => [x, y])) >= 0;

/** The corners of a shape, anticlockwise, mirrored where its placement says so. */
function ownCorners(outline: readonly BulgedCorner[], mirrored: boolean): readonly BulgedCorner[] {
  const ordered = runsAnticlockwise(outline) ? outline : reversedCorners(outline);
  return mirrored ? mirroredCorners(ordered) : ordered;
}

const flat = new WeakMap<readonly BulgedCorner[], Map<boolean, Polygon>>();

/** The polygon of a shape about its own origin: remembered, for it is asked for at every step of a drag. */
export function ownPolygon(problem: NestingProblem, shape: number, mirrored: boolean): Polygon {
  const { outline } = at(problem.shapes, shape);
  const known = flat.get(outline) ?? new Map<boolean, Polygon>();
  flat.set(outline, known);
  const found = known.get(mirrored) ?? flattened(ownCorners(outline, mirrored), FINENESS);
  known.set(mirrored, found);
  return found;
}

type Lying = Pick<ShapePlacement, "shape" | "angle" | "x" | "y" | "mirrored">;

/** A shape where it lies on its sheet. */
export const lyingOutline = (
  problem: NestingProblem,
  { shape, angle: turn, x, y, mirrored }: Lying,
): Polygon => movedPolygon(turnedPolygon(ownPolygon(problem, shape, mirrored ?? false), turn), x, y);

/** The corners of a shape where it lies, with their arcs. */
export const lyingCorners = (problem: NestingProblem, one: Lying): readonly BulgedCorner[] =>
  lying(at(problem.shapes, one.shape).outline, one);

function lying(outline: readonly BulgedCorner[], one: Lying): readonly BulgedCorner[] {
  const corners = ownCorners(outline, one.mirrored ?? false);
  const places = movedPolygon(
    turnedPolygon(
      corners.map(([x, y]): Vec2 => [x, y]),
      one.angle,
    ),
    one.x,
    one.y,
  );
  return places.map(([x, y], i): BulgedCorner => [x, y, at(corners, i)[2] ?? 0]);
}

/** The openings of a shape that are no circles, where it lies: their corners anticlockwise, with their arcs. */
export const lyingCutOuts = (problem: NestingProblem, one: Lying): readonly (readonly BulgedCorner[])[] =>
  (at(problem.shapes, one.shape).cutOuts ?? []).map((corners) => lying(corners, one));

/** The holes of a shape where it lies. */
export function lyingHoles(problem: NestingProblem, one: Lying): readonly { at: Vec2; diameter: number }[] {
  const { holes } = at(problem.shapes, one.shape);
  const own = holes.map(({ x, y }): Vec2 => [one.mirrored ? -x : x, y]);
  const places = movedPolygon(turnedPolygon(own, one.angle), one.x, one.y);
  return places.map((place, i) => ({ at: place, diameter: at(holes, i).diameter }));
}

/** Length and width of a shape as it is drawn. */
export function sizeOfShape(problem: NestingProblem, shape: number): { length: number; width: number } {
  const { x0, y0, x1, y1 } = boxOfPoints(ownPolygon(problem, shape, false));
  return { length: x1 - x0, width: y1 - y0 };
}

/** Whether a shape lies along the grain of its sheet. */
export const liesWithGrain = (grain: "length" | "width", turn: number): boolean =>
  Math.abs((((turn - (grain === "width" ? 90 : 0)) % 180) + 180) % 180) < 1e-9;
