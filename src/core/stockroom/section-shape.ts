/**
 * Sections: their outline, area, mass and symmetry. The outline's centroid is the origin; x is the
 * width axis, y the height axis. Sizes are the real (actual) ones in millimetres.
 */
import * as v from "valibot";
import {
  type Corner,
  circle,
  type Loop,
  loopArea,
  loopMoments,
  moveLoop,
  roundedPolygon,
  type Vec2,
} from "../geometry";
import { unreachable } from "../kernel";

const length = v.pipe(v.number(), v.finite(), v.gtValue(0), v.maxValue(2000));

const radius = v.pipe(v.number(), v.minValue(0));
/** Depth over the flanges, breadth, web, flange. The root radius between web and flanges is none where nobody knows it. */
const flanged = v.tuple([length, length, length, length]);

/**
 * Flanges that grow thinner outwards: the slope of their inner faces in percent, and the rounding at their edges. The flange of the
 * sizes is as thick as they say in the middle of a channel's breadth, and a quarter of a beam's breadth from its edges (EN 10365).
 */
const taper = v.object({
  percent: v.pipe(v.number(), v.gtValue(0), v.maxValue(50)),
  toeRadius: radius,
});

/** `coldFormed`: radii of EN 10219-2; `hotFinished`: of EN 10210-2. */
const tubeCorners = v.picklist(["coldFormed", "hotFinished"]);

export const SectionShapeSchema = v.variant("kind", [
  v.object({ kind: v.literal("squareTube"), size: v.tuple([length, length, length]), corners: tubeCorners }),
  v.object({
    kind: v.literal("rectangularTube"),
    size: v.tuple([length, length, length]),
    corners: tubeCorners,
  }),
  v.object({ kind: v.literal("roundTube"), size: v.tuple([length, length]) }),
  v.object({
    kind: v.literal("equalAngle"),
    size: v.tuple([length, length, length]),
    rootRadius: radius,
  }),
  v.object({
    kind: v.literal("unequalAngle"),
    size: v.tuple([length, length, length]),
    rootRadius: radius,
  }),
  v.object({
    kind: v.literal("channel"),
    size: flanged,
    rootRadius: v.optional(radius),
    taper: v.optional(taper),
  }),
  v.object({ kind: v.literal("tee"), size: flanged, rootRadius: v.optional(radius) }),
  v.object({
    kind: v.literal("beam"),
    size: flanged,
    rootRadius: v.optional(radius),
    taper: v.optional(taper),
  }),
  v.object({ kind: v.literal("flat"), size: v.tuple([length, length]) }),
  v.object({ kind: v.literal("roundBar"), size: v.tuple([length]) }),
  v.object({ kind: v.literal("squareBar"), size: v.tuple([length, length]) }),
  v.object({ kind: v.literal("timber"), size: v.tuple([length, length]) }),
]);
export type SectionShape = v.InferOutput<typeof SectionShapeSchema>;
export type SectionKind = SectionShape["kind"];

/** Steel: 7850 kg/m³ (EN 10219-2 and EN 10210-2, clause on masses). */
export const STEEL_KG_M3 = 7850;

/** Everything that is computed from a shape. `sharp` is the outer outline with its corners unrounded. */
export type SectionProperties = {
  readonly loops: readonly Loop[];
  readonly sharp: readonly Vec2[];
  readonly areaMm2: number;
  /** Size along x and along y. */
  readonly extent: Vec2;
  /** Centre of the enclosing rectangle, from the centroid. */
  readonly boxCentre: Vec2;
  readonly isRound: boolean;
  readonly symmetry: Symmetry;
};

/** A turn or mirror of the section plane, as rows of its matrix. Mirrors exchange a member's ends. */
export type PlaneTurn = { readonly rows: readonly [Vec2, Vec2]; readonly mirror: boolean };
export type Symmetry =
  | { readonly kind: "round" }
  | { readonly kind: "finite"; readonly turns: readonly PlaneTurn[] };

const turn = (a: number, b: number, c: number, d: number): PlaneTurn => ({
  rows: [
    [a, b],
    [c, d],
  ],
  mirror: a * d - b * c < 0,
});
const STAY = turn(1, 0, 0, 1);
const HALF = turn(-1, 0, 0, -1);
const FLIP_X = turn(-1, 0, 0, 1);
const FLIP_Y = turn(1, 0, 0, -1);
const SWAP = turn(0, 1, 1, 0);
const RECTANGLE = [STAY, HALF, FLIP_X, FLIP_Y];
const SQUARE = [...RECTANGLE, turn(0, -1, 1, 0), turn(0, 1, -1, 0), SWAP, turn(0, -1, -1, 0)];

const near = (a: number, b: number) => Math.abs(a - b) < 1e-6;

function symmetryOf(shape: SectionShape): Symmetry {
  const finite = (turns: readonly PlaneTurn[]): Symmetry => ({ kind: "finite", turns });
  switch (shape.kind) {
    case "roundTube":
    case "roundBar":
      return { kind: "round" };
    case "squareTube":
    case "rectangularTube":
    case "squareBar":
    case "flat":
    case "timber":
      return finite(near(shape.size[0], shape.size[1]) ? SQUARE : RECTANGLE);
    case "beam":
      return finite(RECTANGLE);
    case "equalAngle":
    case "unequalAngle":
      return finite(near(shape.size[0], shape.size[1]) ? [STAY, SWAP] : [STAY]);
    case "channel":
      return finite([STAY, FLIP_Y]);
    case "tee":
      return finite([STAY, FLIP_X]);
    default:
      return unreachable(shape);
  }
}

/** Outer and inner corner radius of a tube: EN 10219-2 (cold formed) and EN 10210-2 (hot finished). */
export function tubeRadii(
  corners: "coldFormed" | "hotFinished",
  wall: number,
): { outer: number; inner: number } {
  if (corners === "hotFinished") return { outer: 1.5 * wall, inner: wall };
  if (wall <= 6) return { outer: 2 * wall, inner: wall };
  if (wall <= 10) return { outer: 2.5 * wall, inner: 1.5 * wall };
  return { outer: 3 * wall, inner: 2 * wall };
}

const rectangle = (width: number, height: number, radius: number): readonly Corner[] => [
  { at: [-width / 2, -height / 2], radius },
  { at: [width / 2, -height / 2], radius },
  { at: [width / 2, height / 2], radius },
  { at: [-width / 2, height / 2], radius },
];
/** Corners of a section with flanges: those in which a flange meets the web are rounded, and those at its edges where it tapers. */
const flangedCorners = (
  points: readonly Vec2[],
  roots: readonly number[],
  { rootRadius, taper }: Pick<Tapered, "rootRadius" | "taper">,
  toes: readonly number[] = [],
): readonly Corner[] =>
  points.map((at, i) => ({
    at,
    radius: roots.includes(i) ? (rootRadius ?? 0) : toes.includes(i) ? (taper?.toeRadius ?? 0) : 0,
  }));

type Tapered = Extract<SectionShape, { kind: "channel" | "beam" }>;

/** mm. How thick the flanges are at their edges and at the web, fillets aside. */
export function flangeThickness({ kind, size, taper }: Tapered): {
  readonly edge: number;
  readonly root: number;
} {
  const [, b, web, flange] = size;
  if (!taper) return { edge: flange, root: flange };
  const slope = taper.percent / 100;
  const fromEdge = kind === "channel" ? b / 2 : b / 4;
  const half = kind === "channel" ? b - web : (b - web) / 2;
  return { edge: flange - slope * fromEdge, root: flange + slope * (half - fromEdge) };
}

/** Corners of the outer outline (counter-clockwise) and the inner loop, before centring. */
function drawn(shape: SectionShape): { outer: readonly Corner[] | Loop; inner: Loop | null } {
  switch (shape.kind) {
    case "squareTube":
    case "rectangularTube": {
      const [width, height, wall] = shape.size;
      const radii = tubeRadii(shape.corners, wall);
      const hole = [...rectangle(width - 2 * wall, height - 2 * wall, radii.inner)].reverse();
      return { outer: rectangle(width, height, radii.outer), inner: roundedPolygon(hole) };
    }
    case "roundTube":
      return { outer: circle(shape.size[0] / 2), inner: circle(shape.size[0] / 2 - shape.size[1], true) };
    case "roundBar":
      return { outer: circle(shape.size[0] / 2), inner: null };
    case "equalAngle":
    case "unequalAngle":
      return { outer: angleCorners(shape.size, shape.rootRadius), inner: null };
    case "channel": {
      const [h, b, web] = shape.size;
      const { edge, root } = flangeThickness(shape);
      const points: Vec2[] = [
        [0, 0],
        [b, 0],
        [b, edge],
        [web, root],
        [web, h - root],
        [b, h - edge],
        [b, h],
        [0, h],
      ];
      return { outer: flangedCorners(points, [3, 4], shape, [2, 5]), inner: null };
    }
    case "tee": {
      const [h, b, web, flange] = shape.size;
      const [l, r, under] = [(b - web) / 2, (b + web) / 2, h - flange];
      const points: Vec2[] = [
        [l, 0],
        [r, 0],
        [r, under],
        [b, under],
        [b, h],
        [0, h],
        [0, under],
        [l, under],
      ];
      return { outer: flangedCorners(points, [2, 7], { rootRadius: shape.rootRadius }), inner: null };
    }
    case "beam": {
      const [h, b, web] = shape.size;
      const { edge, root } = flangeThickness(shape);
      const [l, r] = [(b - web) / 2, (b + web) / 2];
      const points: Vec2[] = [
        [0, 0],
        [b, 0],
        [b, edge],
        [r, root],
        [r, h - root],
        [b, h - edge],
        [b, h],
        [0, h],
        [0, h - edge],
        [l, h - root],
        [l, root],
        [0, edge],
      ];
      return { outer: flangedCorners(points, [3, 4, 9, 10], shape, [2, 5, 8, 11]), inner: null };
    }
    case "flat":
    case "squareBar":
    case "timber":
      return { outer: rectangle(shape.size[0], shape.size[1], 0), inner: null };
    default:
      return unreachable(shape);
  }
}

/** Of the rounding at the end of a leg (EN 10056-1: half the root radius). */
export const toeRadius = (rootRadius: number, thickness: number): number =>
  Math.min(rootRadius / 2, thickness);

/** Heel at the origin, legs along +x and +y; root radius r1 and toe radius r1/2 (EN 10056-1). */
function angleCorners(size: readonly [number, number, number], rootRadius: number): readonly Corner[] {
  const [legX, legY, t] = size;
  const toe = toeRadius(rootRadius, t);
  return [
    { at: [0, 0], radius: 0 },
    { at: [legX, 0], radius: 0 },
    { at: [legX, t], radius: toe },
    { at: [t, t], radius: rootRadius },
    { at: [t, legY], radius: toe },
    { at: [0, legY], radius: 0 },
  ];
}

const isLoop = (outer: readonly Corner[] | Loop): outer is Loop => {
  const first = outer[0];
  return first !== undefined && "kind" in first;
};

const known = new WeakMap<SectionShape, SectionProperties>();

/** Outline, area and symmetry of a shape; remembered per shape object. */
export function sectionProperties(shape: SectionShape): SectionProperties {
  const before = known.get(shape);
  if (before) return before;
  const { outer, inner } = drawn(shape);
  const outerLoop = isLoop(outer) ? outer : roundedPolygon(outer);
  const raw = inner ? [outerLoop, inner] : [outerLoop];
  const areaMm2 = raw.reduce((sum, loop) => sum + loopArea(loop), 0);
  const moment = raw.map(loopMoments).reduce<Vec2>((sum, m) => [sum[0] + m[0], sum[1] + m[1]], [0, 0]);
  const shift: Vec2 = [-moment[0] / areaMm2, -moment[1] / areaMm2];
  const sharp = (isLoop(outer) ? boundingSquare(shape.size[0]) : outer.map((corner) => corner.at)).map(
    (p): Vec2 => [p[0] + shift[0], p[1] + shift[1]],
  );
  const [low, high] = boxOf(sharp);
  const properties: SectionProperties = {
    loops: raw.map((loop) => moveLoop(loop, shift)),
    sharp,
    areaMm2,
    extent: [high[0] - low[0], high[1] - low[1]],
    boxCentre: [(high[0] + low[0]) / 2, (high[1] + low[1]) / 2],
    isRound: shape.kind === "roundTube" || shape.kind === "roundBar",
    symmetry: symmetryOf(shape),
  };
  known.set(shape, properties);
  return properties;
}

function boundingSquare(diameter: number): readonly Vec2[] {
  return rectangle(diameter, diameter, 0).map((corner) => corner.at);
}

function boxOf(points: readonly Vec2[]): readonly [Vec2, Vec2] {
  const xs = points.map((p) => p[0]);
  const ys = points.map((p) => p[1]);
  return [
    [Math.min(...xs), Math.min(...ys)],
    [Math.max(...xs), Math.max(...ys)],
  ];
}

/** Why a section of such sizes cannot be made, for sentences. */
const SHAPE_FAULTS = {
  wallFillsTube: "the wall fills the tube",
  legTooThick: "the leg is thicker than it is long",
  webOrFlangeFills: "web or flange fill the section",
  taperToNothing: "the flanges taper to nothing before their edges",
  toeTooLarge: "the flanges are rounded by more than they are thick at their edges",
  rootTooLarge: "the root radius is larger than the room between web and flange",
} as const;

export type ShapeFault = keyof typeof SHAPE_FAULTS;

export const shapeFaultWords = (fault: ShapeFault): string => SHAPE_FAULTS[fault];

/** Why a shape cannot exist (a wall thicker than half the tube), or null. */
export function shapeFault(shape: SectionShape): ShapeFault | null {
  switch (shape.kind) {
    case "squareTube":
    case "rectangularTube":
      return 2 * shape.size[2] < Math.min(shape.size[0], shape.size[1]) ? null : "wallFillsTube";
    case "roundTube":
      return 2 * shape.size[1] < shape.size[0] ? null : "wallFillsTube";
    case "equalAngle":
    case "unequalAngle":
      return shape.size[2] < Math.min(shape.size[0], shape.size[1]) ? null : "legTooThick";
    case "channel":
    case "tee":
    case "beam": {
      const [depth, breadth, web, flange] = shape.size;
      if (2 * flange >= depth || web >= breadth) return "webOrFlangeFills";
      const beside = shape.kind === "channel" ? breadth - web : (breadth - web) / 2;
      const { edge, root } = shape.kind === "tee" ? { edge: flange, root: flange } : flangeThickness(shape);
      if (edge <= 0) return "taperToNothing";
      if (shape.kind !== "tee" && (shape.taper?.toeRadius ?? 0) > edge) return "toeTooLarge";
      const along = shape.kind === "tee" ? depth - flange : (depth - 2 * root) / 2;
      return (shape.rootRadius ?? 0) <= Math.min(beside, along) ? null : "rootTooLarge";
    }
    default:
      return null;
  }
}

const KIND_NAMES: Readonly<Record<SectionKind, string>> = {
  squareTube: "square tube",
  rectangularTube: "rectangular tube",
  roundTube: "round tube",
  equalAngle: "equal angle",
  unequalAngle: "unequal angle",
  channel: "channel",
  tee: "tee",
  beam: "beam",
  flat: "flat",
  roundBar: "round bar",
  squareBar: "square bar",
  timber: "timber",
};

export function sectionKindName(kind: SectionKind): string {
  return KIND_NAMES[kind];
}
