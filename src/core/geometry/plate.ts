/**
 * Plates of any outline with cuts of any depth: between two levels where a cut starts or ends a plate is the same all the
 * way up, so each such layer is one region of the plane, and the level faces are what one layer has and the next has not.
 * Every wall and floor is named by the outline's edge or the cut that made it.
 */
import earcut from "earcut";
import { at, unreachable } from "../kernel";
import { circle, type Loop, moveLoop } from "./outline";
import { isInside, type Polygon } from "./polygon";
import { CLIPPER_UNIT, type Region, within, without } from "./regions";
import { type Fineness, ringOf } from "./ring";
import { chordAngles, type Ellipse, lineName, type Solid, type SolidFace, type SolidLine } from "./solid";
import { dot2, norm2, scale2, subtract2, type Vec2, type Vec3 } from "./vector";

/** A cut from `low` to `high` along z; its outline is a rectangle, a circle or any loop, with a name for each of its segments. */
export type PlateCut = {
  readonly name: string;
  readonly low: number;
  readonly high: number;
  readonly shape:
    | { readonly kind: "box"; readonly from: Vec2; readonly to: Vec2 }
    | { readonly kind: "round"; readonly centre: Vec2; readonly radius: number }
    | { readonly kind: "loop"; readonly loop: Loop; readonly names: readonly string[] };
};

export type Plate = {
  /** Anticlockwise. */
  readonly outline: Loop;
  /** One for each segment of the outline. */
  readonly names: readonly string[];
  /** The faces at z = 0 and at z = `height`. */
  readonly below: string;
  readonly above: string;
  readonly height: number;
  readonly cuts: readonly PlateCut[];
};

/** What a wall stands on: a straight line or a circle in the plane, with the name that it gives. */
type Source = { readonly name: string } & (
  | { readonly kind: "line"; readonly from: Vec2; readonly to: Vec2 }
  | { readonly kind: "round"; readonly centre: Vec2; readonly radius: number; readonly bow: number }
);

type Layer = {
  readonly low: number;
  readonly high: number;
  readonly rings: readonly Polygon[];
  readonly cuts: readonly PlateCut[];
};

/** Four walls of a rectangle from `from` to `to`, as `boxLoop` runs round it. */
const BOX_SIDES = ["front", "right", "back", "left"] as const;

/** A rectangle as a loop, anticlockwise from its front edge. */
export function boxLoop([x0, y0]: Vec2, [x1, y1]: Vec2): Loop {
  const corners: readonly Vec2[] = [
    [x0, y0],
    [x1, y0],
    [x1, y1],
    [x0, y1],
  ];
  return corners.map((from, i) => ({ kind: "line", from, to: at(corners, (i + 1) % 4) }));
}

function loopOfCut({ shape }: PlateCut): Loop {
  switch (shape.kind) {
    case "box":
      return boxLoop(shape.from, shape.to);
    case "round":
      return moveLoop(circle(shape.radius), shape.centre);
    case "loop":
      return shape.loop;
    default:
      return unreachable(shape);
  }
}

/** What the wall over a segment of a cut's outline is called. */
function wallName({ name, shape }: PlateCut, segment: number): string {
  if (shape.kind === "loop") return at(shape.names, segment);
  return `${name} ${shape.kind === "round" ? "wall" : at(BOX_SIDES, segment)}`;
}

/**
 * A plate from z = 0 to its height. Corners lie on the thousandths of a millimetre where anything is cut.
 * Faces: the outline's names, `below` and `above`, and of each cut its walls (front, right, back and left, or wall) and `floor`.
 */
export function plateSolid(plate: Plate, fineness: Fineness): Solid {
  const polygon = (loop: Loop): Polygon => ringOf(loop, fineness).points.map((point) => point.at);
  const outline = polygon(plate.outline);
  const { height } = plate;
  const cuts = plate.cuts
    .map((cut) => ({ ...cut, low: Math.max(0, cut.low), high: Math.min(height, cut.high) }))
    .filter(({ low, high }) => high - low > LEVEL_MM);
  const polygons = new Map(cuts.map((cut) => [cut, polygon(loopOfCut(cut))]));
  const taken = (some: readonly PlateCut[]) => some.map((cut) => polygons.get(cut) ?? []);
  const levels = [0, height, ...cuts.flatMap(({ low, high }) => [low, high])]
    .sort((a, b) => a - b)
    .filter((level, i, all) => i === 0 || level - at(all, i - 1) > LEVEL_MM);
  const layers = levels.slice(1).map((high, i): Layer => {
    const low = at(levels, i);
    const middle = (low + high) / 2;
    const open = cuts.filter((cut) => cut.low < middle && cut.high > middle);
    return {
      low,
      high,
      cuts: open,
      rings: cuts.length === 0 ? [outline] : without([outline], taken(open)).rings,
    };
  });
  const builder = new PlateBuilder(sourcesOf(plate, cuts, fineness.step));
  for (const { low, high, rings } of layers) for (const ring of rings) builder.walls(ring, low, high);
  levels.forEach((level, i) => {
    for (const way of [1, -1] as const) {
      const [own, other] = way > 0 ? [layers[i - 1], layers[i]] : [layers[i], layers[i - 1]];
      if (!own) continue;
      if (!other) {
        const name = way > 0 ? plate.above : plate.below;
        const regions = cuts.length === 0 ? [{ outer: outline, holes: [] }] : without(own.rings, []).regions;
        for (const region of regions) builder.level(region, { z: level, way, name, own: [], other: [] });
        continue;
      }
      // By what is taken from the other layer, not by its rings: their corners lie a rounding beside the edges that they
      // part, and a difference of two regions with nearly the same edges comes out wrong.
      let left = own.rings;
      for (const cut of other.cuts) {
        if (own.cuts.includes(cut)) continue;
        const clip = taken([cut]);
        for (const region of within(left, clip).regions)
          builder.level(region, {
            z: level,
            way,
            name: `${cut.name} floor`,
            own: own.rings,
            other: other.rings,
          });
        left = without(left, clip).rings;
      }
    }
  });
  return builder.solid();
}

/** mm. Levels nearer than this are one. */
const LEVEL_MM = 1e-6;
/** mm. Corners are rounded to whole thousandths, so a wall may lie this far from what it stands on. */
const ON_SOURCE_MM = 3 / CLIPPER_UNIT;
/** Radians. Walls that turn by less run on into one another. */
const SMOOTH = 0.02;

function sourcesOf({ outline, names }: Plate, cuts: readonly PlateCut[], step: number): readonly Source[] {
  const of = (loop: Loop, name: (i: number) => string) =>
    loop.map((segment, i): Source => {
      if (segment.kind === "line") return { ...segment, name: name(i) };
      const { centre, radius } = segment;
      return { kind: "round", centre, radius, bow: radius * (1 - Math.cos(step / 2)), name: name(i) };
    });
  return [
    ...of(outline, (i) => at(names, i)),
    ...cuts.flatMap((cut) => of(loopOfCut(cut), (i) => wallName(cut, i))),
  ];
}

/** How far outside of a circle a place lies. */
const awayFrom = ({ centre, radius }: Extract<Source, { kind: "round" }>, place: Vec2): number =>
  norm2(subtract2(place, centre)) - radius;

/** Whether a straight piece of a wall lies on a source. */
function liesOn(source: Source, a: Vec2, b: Vec2): boolean {
  if (source.kind === "line") {
    const along = subtract2(source.to, source.from);
    const size = norm2(along);
    return [a, b].every((p) => {
      const [x, y] = subtract2(p, source.from);
      const on = dot2([x, y], along) / size;
      const beside = Math.abs(x * along[1] - y * along[0]) / size;
      return beside < ON_SOURCE_MM && on > -ON_SOURCE_MM && on < size + ON_SOURCE_MM;
    });
  }
  const away = (p: Vec2) => awayFrom(source, p);
  const middle: Vec2 = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  // Its corners on the circle, and between them no farther inside than a chord of one step.
  return (
    [a, b].every((p) => away(p) < ON_SOURCE_MM && away(p) > -source.bow - ON_SOURCE_MM) &&
    away(middle) > -source.bow - ON_SOURCE_MM
  );
}

class PlateBuilder {
  private readonly points: Vec3[] = [];
  private readonly indexOf = new Map<string, number>();
  private readonly normals: Vec3[] = [];
  private readonly faces: SolidFace[] = [];
  private readonly lines: SolidLine[] = [];
  private readonly curves: Ellipse[] = [];
  private readonly curveAt = new Map<string, number>();
  private readonly sources: readonly Source[];

  constructor(sources: readonly Source[]) {
    this.sources = sources;
  }

  private point([x, y]: Vec2, z: number): number {
    const key = `${x} ${y} ${z}`;
    const known = this.indexOf.get(key);
    if (known !== undefined) return known;
    this.indexOf.set(key, this.points.length);
    return this.points.push([x, y, z]) - 1;
  }

  private sourceOf(a: Vec2, b: Vec2): Source | null {
    // Of arcs that run on into one another several come near: the wall is that of the one that its corners lie on.
    let best: Source | null = null;
    let least = Number.POSITIVE_INFINITY;
    for (const source of this.sources) {
      if (!liesOn(source, a, b)) continue;
      const off = source.kind === "line" ? 0 : Math.max(...[a, b].map((p) => Math.abs(awayFrom(source, p))));
      if (off < least) [best, least] = [source, off];
    }
    return best;
  }

  /** The walls over a ring, with the lines that stand where it turns. */
  walls(ring: Polygon, low: number, high: number): void {
    const runs = ring.map((from, i) => {
      const to = at(ring, (i + 1) % ring.length);
      const [x, y] = subtract2(to, from);
      const size = norm2([x, y]);
      const normal = this.normals.push([y / size, -x / size, 0]) - 1;
      const corners = [
        this.point(from, low),
        this.point(to, low),
        this.point(to, high),
        this.point(from, high),
      ];
      const source = this.sourceOf(from, to);
      const name = source?.name ?? "wall";
      this.faces.push({ corners, normal, name });
      return { from, to, source, name, normal, way: [x / size, y / size] as Vec2 };
    });
    runs.forEach((after, i) => {
      const before = at(runs, (i + runs.length - 1) % runs.length);
      const kind = this.turnAt(before, after);
      if (kind === null) return;
      this.lines.push({
        from: this.point(after.from, low),
        to: this.point(after.from, high),
        normals: [before.normal, after.normal],
        kind,
        curve: null,
        name: lineName(before.name, after.name),
      });
    });
  }

  private turnAt(before: Run, after: Run): "sharp" | "smooth" | null {
    const place = after.from;
    const [a, b] = [directionOn(before, place), directionOn(after, place)];
    const turn = Math.abs(Math.atan2(a[0] * b[1] - a[1] * b[0], dot2(a, b)));
    if (turn > SMOOTH) return "sharp";
    return before.source?.kind === "round" || after.source?.kind === "round" ? "smooth" : null;
  }

  /** A level face with the lines round it. */
  level({ outer, holes }: Region, face: LevelFace): void {
    const { z, way, name } = face;
    const normal = this.normals.push([0, 0, way]) - 1;
    const rings = [outer, ...holes];
    const flat = rings.flat();
    const starts = holes.map((_, i) => rings.slice(0, i + 1).reduce((sum, ring) => sum + ring.length, 0));
    const found = earcut(flat.flat(), starts);
    for (let i = 0; i < found.length; i += 3) {
      const three = [0, 1, 2].map((k) => at(flat, at(found, i + k))) as [Vec2, Vec2, Vec2];
      const left = runsLeft(...three) === way > 0;
      this.faces.push({
        corners: (left ? three : three.toReversed()).map((p) => this.point(p, z)),
        normal,
        name,
      });
    }
    for (const ring of rings)
      for (const [i, from] of ring.entries()) this.rim(from, at(ring, (i + 1) % ring.length), face, normal);
  }

  /** The line between a level face, which lies on the left, and the wall beside it. */
  private rim(from: Vec2, to: Vec2, { z, name, own, other }: LevelFace, normal: number): void {
    const [x, y] = subtract2(to, from);
    const size = norm2([x, y]);
    if (size === 0) return;
    const outward: Vec2 = [y / size, -x / size];
    const middle: Vec2 = [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2];
    const beyond: Vec2 = [middle[0] + outward[0] * BESIDE_MM, middle[1] + outward[1] * BESIDE_MM];
    const isSolid = (rings: readonly Polygon[]) =>
      rings.filter((ring) => isInside(ring, beyond)).length % 2 === 1;
    // Where what is behind the face goes on beyond it, a wall rises from it there; else one falls away.
    const rises = isSolid(own);
    // Two cuts of one depth that run into one another share their floor.
    if (rises && !isSolid(other)) return;
    const [wx, wy] = rises ? scale2(outward, -1) : outward;
    const source = this.sourceOf(from, to);
    this.lines.push({
      from: this.point(from, z),
      to: this.point(to, z),
      normals: [normal, this.normals.push([wx, wy, 0]) - 1],
      kind: "sharp",
      curve: source?.kind === "round" ? this.curveOf(source, z, from, to) : null,
      name: lineName(name, source?.name ?? "wall"),
    });
  }

  private curveOf({ centre, radius }: Round, z: number, from: Vec2, to: Vec2): SolidLine["curve"] {
    const key = `${centre[0]} ${centre[1]} ${radius} ${z}`;
    let of = this.curveAt.get(key);
    if (of === undefined) {
      of = this.curves.push({ centre: [centre[0], centre[1], z], u: [radius, 0, 0], v: [0, radius, 0] }) - 1;
      this.curveAt.set(key, of);
    }
    return { of, ...chordAngles(centre, from, to) };
  }

  solid(): Solid {
    const { points, normals, faces, lines, curves } = this;
    return { points, normals, faces, lines, curves };
  }
}

/** mm. So far beside a line it is looked what stands there. */
const BESIDE_MM = 0.01;

type Round = Extract<Source, { kind: "round" }>;
type Run = {
  readonly from: Vec2;
  readonly source: Source | null;
  readonly way: Vec2;
};
type LevelFace = {
  readonly z: number;
  /** Seen from above (1) or from below (−1). */
  readonly way: 1 | -1;
  readonly name: string;
  /** What is solid behind the face and before it; nothing where it is a face of the whole plate. */
  readonly own: readonly Polygon[];
  readonly other: readonly Polygon[];
};

/** The direction in which a wall runs at a place: on a circle that of its tangent, not of a chord. */
function directionOn({ source, way }: Run, place: Vec2): Vec2 {
  if (source?.kind !== "round") return way;
  const [x, y] = subtract2(place, source.centre);
  const size = norm2([x, y]);
  const tangent: Vec2 = [-y / size, x / size];
  return dot2(tangent, way) < 0 ? scale2(tangent, -1) : tangent;
}

const runsLeft = (p: Vec2, q: Vec2, r: Vec2) =>
  (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0]) > 0;
