/**
 * Where a shape may lie: the room inside the sheet less the no-fit polygons of those that lie already (the Minkowski sum of
 * the one, grown by the gap, and the other turned about). Clipper 2 does the polygons, on whole thousandths of a millimetre.
 */
import { Clipper, EndType, FillRule, JoinType, type Path64, type Paths64 } from "clipper2-ts";
import {
  boxOfPoints,
  CLIPPER_UNIT,
  clipperPath,
  type PlaneBox,
  type Polygon,
  turnedPolygon,
  type Vec2,
} from "../../geometry";
import { at } from "../../kernel";
import { convexParts, minkowskiSum } from "./minkowski";
import { liesWithGrain, type NestingProblem, ownPolygon, type ShapePlacement } from "./problem";

/** mm. Less than the gap, so that what fits exactly keeps a place to lie: a region without any width would be lost. */
const HAIR = -0.001;
/** A corner is grown to a point that lies so many gaps away from it at most; sharper ones are cut off square. */
const MITRE = 2;
/** Thousandths of a millimetre. How far chords lie within the arcs round corners: with the hair less than the check allows. */
const ARC = 2;
/** Degrees. What turns by less in a ring of what is free is a chord of an arc and no corner. */
const CORNER = 12;

/** A shape turned by some angle, about its own origin. */
export type Way = {
  readonly id: number;
  readonly shape: number;
  readonly angle: number;
  readonly mirrored: boolean;
  readonly outline: Polygon;
  readonly box: PlaneBox;
  /** Convex parts of it, grown by the gap. */
  readonly grown: Paths64;
  /** Convex parts of it, turned about by half a turn. */
  readonly about: Paths64;
};
/** A way and where its origin lies. */
export type Laid = { readonly way: Way; readonly x: number; readonly y: number };

/** Where the origin of a shape may lie on a sheet: regions with an area, and single points where it fits exactly. */
export type Free = { readonly regions: Paths64; readonly points: Path64 };

export class Rooms {
  readonly problem: NestingProblem;
  private readonly corners: "pointed" | "round";
  private readonly ways = new Map<string, Way>();
  /** No-fit polygons by the two ways. */
  private readonly noFit = new Map<string, Paths64>();

  /** Corners grown to points take some room that is free, and are quick to search; grown round they take none. */
  constructor(problem: NestingProblem, corners: "pointed" | "round" = "pointed") {
    this.problem = problem;
    this.corners = corners;
  }

  way(shape: number, angle: number, mirrored: boolean): Way {
    const key = `${shape}/${angle}/${mirrored}`;
    const known = this.ways.get(key);
    if (known) return known;
    const outline = turnedPolygon(ownPolygon(this.problem, shape, mirrored), angle);
    const path = clipperPath(outline);
    const by = (this.problem.gap + HAIR) * CLIPPER_UNIT;
    const join = this.corners === "round" ? JoinType.Round : JoinType.Miter;
    const grown = Clipper.inflatePaths([path], by, join, EndType.Polygon, MITRE, ARC);
    const way: Way = {
      id: this.ways.size,
      shape,
      angle,
      mirrored,
      outline,
      box: boxOfPoints(outline),
      grown: grown.filter((one) => Clipper.area(one) > 0).flatMap(convexParts),
      about: convexParts(path).map((part) => part.map(({ x, y }) => ({ x: -x, y: -y }))),
    };
    this.ways.set(key, way);
    return way;
  }

  laid({ shape, angle, mirrored = false, x, y }: ShapePlacement): Laid {
    return { way: this.way(shape, angle, mirrored), x, y };
  }

  /** Whether its grain lets a way lie on a sheet of that stock. */
  mayLie(stock: number, { shape, angle }: Way): boolean {
    const { shapes, stock: sizes } = this.problem;
    return !at(shapes, shape).grain || liesWithGrain(at(sizes, stock).grain, angle);
  }

  /** Where the origin of a way may lie for it to be inside the sheet: a rectangle, low corner first; null: it is too large. */
  inside(stock: number, { box }: Way): Path64 | null {
    const { length, width } = at(this.problem.stock, stock);
    const { margin } = this.problem;
    // Rounded inwards, but for what double noise makes of an exact fit.
    const low = (value: number) => Math.ceil(value * CLIPPER_UNIT - 0.01);
    const high = (value: number) => Math.floor(value * CLIPPER_UNIT + 0.01);
    const [ax, ay] = [low(margin - box.x0), low(margin - box.y0)];
    const [bx, by] = [high(length - margin - box.x1), high(width - margin - box.y1)];
    if (bx < ax || by < ay) return null;
    return [
      { x: ax, y: ay },
      { x: bx, y: ay },
      { x: bx, y: by },
      { x: ax, y: by },
    ];
  }

  /** What is free for a way on a sheet on which others lie. */
  free(stock: number, way: Way, lying: readonly Laid[]): Free {
    return this.less(this.begin(stock, way), way, lying);
  }

  /** What is free for a way on an empty sheet. */
  begin(stock: number, way: Way): Free {
    const room = this.inside(stock, way);
    const [low, , far] = room ?? [];
    if (!room || !low || !far) return { regions: [], points: [] };
    // A room without height or length has no area to subtract from: its corners are tried themselves.
    return low.x === far.x || low.y === far.y
      ? { regions: [], points: room }
      : { regions: [room], points: [] };
  }

  /** What stays free for a way when more shapes lie there. */
  less({ regions, points }: Free, way: Way, lying: readonly Laid[]): Free {
    if (lying.length === 0 || (regions.length === 0 && points.length === 0)) return { regions, points };
    const blocked = lying.flatMap((one) =>
      Clipper.translatePaths(
        this.between(one.way, way),
        Math.round(one.x * CLIPPER_UNIT),
        Math.round(one.y * CLIPPER_UNIT),
      ),
    );
    return {
      regions: regions.length === 0 ? [] : Clipper.difference(regions, blocked, FillRule.NonZero),
      // Inside counts as blocked, the edge does not: 1 is inside, 0 on the edge, 2 outside.
      points: points.filter((point) => !blocked.some((path) => Clipper.pointInPolygon(point, path) === 1)),
    };
  }

  /** Places of `b` about the origin of `a` at which they would come nearer than the gap. */
  private between(a: Way, b: Way): Paths64 {
    const key = `${a.id}.${b.id}`;
    const known = this.noFit.get(key);
    if (known) return known;
    const solid = minkowskiSum(a.grown, b.about).filter((path) => Clipper.area(path) > 0);
    this.noFit.set(key, solid);
    return solid;
  }
}

/** Every corner of what is free, in mm, but for those between the chords of an arc. */
export const cornersOf = ({ regions, points }: Free): readonly Vec2[] =>
  [...regions.flatMap(sharpCorners), ...points].map(({ x, y }): Vec2 => [x / CLIPPER_UNIT, y / CLIPPER_UNIT]);

function sharpCorners(ring: Path64): Path64 {
  const turn = Math.cos((CORNER * Math.PI) / 180);
  return ring.filter((one, i) => {
    const [before, after] = [at(ring, (i + ring.length - 1) % ring.length), at(ring, (i + 1) % ring.length)];
    const [ax, ay] = [one.x - before.x, one.y - before.y];
    const [bx, by] = [after.x - one.x, after.y - one.y];
    return ax * bx + ay * by < turn * Math.hypot(ax, ay) * Math.hypot(bx, by);
  });
}

/** The rings of what is free, in mm. */
export const ringsOf = ({ regions }: Free): readonly Polygon[] =>
  regions.map((path) => path.map(({ x, y }): Vec2 => [x / CLIPPER_UNIT, y / CLIPPER_UNIT]));
