/**
 * Straight solids over rings: walls along z between two ends, which are cut in planes or curved. Walls are flat whatever
 * the ends are, since both stand over one straight line.
 */
import earcut from "earcut";
import { addTo, at, byKey, byTuple, type Order, remembersEach } from "../kernel";
import { type Linear, valueAt } from "./loop-parts";
import type { Mesh } from "./mesh";
import type { Segment } from "./outline";
import type { Ring, RingPoint } from "./ring";
import {
  type Build,
  chordAngles,
  drawnBuild,
  type Ellipse,
  lineName,
  normalOf,
  type Solid,
  type SolidFace,
  type SolidLine,
} from "./solid";
import { dot2, norm2, subtract2, type Vec2, type Vec3 } from "./vector";

/** One plane of an end: its height outwards is beyond + slope · p over a point p. */
export type EndPlane = { readonly slope: Vec2; readonly beyond: number };

/** Where an end stands over a point of the section, and the lines across it at which two planes meet. */
export type EndSurface = {
  /** Along z. */
  readonly height: (point: Vec2) => number;
  /** Of which the lowest stands at each point; null: the end is curved. */
  readonly planes: readonly EndPlane[] | null;
  readonly ridges: readonly Linear[];
};

/** A level end. */
export const levelEnd = (z: number): EndSurface => ({
  height: () => z,
  planes: [{ slope: [0, 0], beyond: z }],
  ridges: [],
});

/**
 * A prism over rings (the outer one first, then the holes) between two ends. Faces: `side 1` and so on over the segments
 * of the outer ring, `bore 1` over those of holes, `start` and `end`, with a number for each further plane.
 */
export function prismSolid(rings: readonly Ring[], start: EndSurface, end: EndSurface): Solid {
  const { plan, build } = builtOver(rings, start, end);
  const points = placesOf(plan, start, end);
  const ends = { start, end };
  const normals = [
    ...build.walls.map(({ from, to }) => wallNormal(at(plan.points, from).at, at(plan.points, to).at)),
    ...build.caps.map(({ side, plane, corners }) => {
      const { planes } = ends[side];
      return planes ? planeNormal(at(planes, plane), side) : normalOf(points, corners);
    }),
  ];
  const curves = build.arcs.map(({ arc, side, plane }): Ellipse => {
    const surface = ends[side];
    const { slope } = at(surface.planes ?? [], plane);
    const out = side === "start" ? -1 : 1;
    const { centre, radius } = arc;
    const heightAt = planeHeight(surface, side, plane);
    return {
      centre: [centre[0], centre[1], heightAt(centre)],
      u: [radius, 0, out * slope[0] * radius],
      v: [0, radius, out * slope[1] * radius],
    };
  });
  return { points, normals, faces: build.faces, lines: build.lines, curves };
}

/** The same prism as a picture shows it; members of one section share everything but the places of their corners. */
export function prismMesh(rings: readonly Ring[], start: EndSurface, end: EndSurface): Mesh {
  const { plan, build } = builtOver(rings, start, end);
  return { vertices: placesOf(plan, start, end), ...drawnBuild(build) };
}

type Side = "start" | "end";
type Arc = Extract<Segment, { kind: "arc" }>;

type PrismBuild = Build & {
  readonly walls: readonly { readonly from: number; readonly to: number }[];
  readonly caps: readonly {
    readonly side: Side;
    readonly plane: number;
    readonly corners: readonly number[];
  }[];
  readonly arcs: readonly { readonly arc: Arc; readonly side: Side; readonly plane: number }[];
};

/** The section flat: its rings and triangles, both parted where ridges cross them, so that walls and ends stay one. */
type Plan = {
  readonly rings: readonly Ring[];
  readonly points: readonly RingPoint[];
  readonly loops: readonly (readonly number[])[];
  readonly triangles: readonly number[];
  /** Pairs of points along each ridge. */
  readonly ridges: readonly (readonly [Linear, readonly number[]])[];
};

const plans = remembersEach<readonly Ring[], Plan>();
const builds = remembersEach<Plan, Map<string, PrismBuild>>();

function builtOver(rings: readonly Ring[], start: EndSurface, end: EndSurface) {
  const whole = plans(rings, [], () => planOf(rings));
  // In an order of their own, so that a solid drawn from its other end is parted in the same places.
  const ridges = [...start.ridges, ...end.ridges].sort(byPlace);
  if (ridges.length > 0) {
    const plan = ridges.reduce(parted, whole);
    return { plan, build: buildOf(plan, start, end) };
  }
  const known = builds(whole, [], () => new Map());
  const key = [start, end].map(({ planes }) => (planes ? "flat" : "curved")).join(" ");
  const build = known.get(key) ?? buildOf(whole, start, end);
  known.set(key, build);
  return { plan: whole, build };
}

const placesOf = ({ points }: Plan, start: EndSurface, end: EndSurface): readonly Vec3[] => [
  ...points.map(({ at: p }): Vec3 => [p[0], p[1], start.height(p)]),
  ...points.map(({ at: p }): Vec3 => [p[0], p[1], end.height(p)]),
];

/** Seen along the run of a ring what is solid lies on the left. */
function wallNormal(from: Vec2, to: Vec2): Vec3 {
  const [x, y] = subtract2(to, from);
  const size = Math.hypot(x, y);
  return [y / size, -x / size, 0];
}

function planeNormal({ slope: [x, y] }: EndPlane, side: Side): Vec3 {
  const size = Math.hypot(x, y, 1);
  return [-x / size, -y / size, (side === "start" ? -1 : 1) / size];
}

/** The height along z of one of the planes of an end. */
function planeHeight({ planes, height }: EndSurface, side: Side, plane: number): (point: Vec2) => number {
  const one = at(planes ?? [], plane);
  const outward = (p: Vec2) => one.beyond + dot2(one.slope, p);
  const lowest = (p: Vec2) => Math.min(...(planes ?? []).map(({ slope, beyond }) => beyond + dot2(slope, p)));
  const out = side === "start" ? -1 : 1;
  return (p) => height(p) + out * (outward(p) - lowest(p));
}

const SIDES = ["start", "end"] as const;

const buildOf = (plan: Plan, start: EndSurface, end: EndSurface): PrismBuild =>
  new PrismBuilder(plan, { start, end }).build();

/** Gathers the faces and lines of a prism; normals are numbered walls first, then the triangles of both ends. */
class PrismBuilder {
  private readonly faces: SolidFace[] = [];
  private readonly lines: SolidLine[] = [];
  private readonly walls: PrismBuild["walls"][number][] = [];
  private readonly caps: PrismBuild["caps"][number][] = [];
  private readonly arcs: PrismBuild["arcs"][number][] = [];
  /** The numbers of the end triangles at each of their edges, by the side and the edge's two points. */
  private readonly capsAt = new Map<string, number[]>();
  private readonly plan: Plan;
  private readonly ends: Readonly<Record<Side, EndSurface>>;

  constructor(plan: Plan, ends: Readonly<Record<Side, EndSurface>>) {
    this.plan = plan;
    this.ends = ends;
  }

  build(): PrismBuild {
    const { loops, ridges } = this.plan;
    const wallOf = loops.map((loop, k) => this.wallsOver(loop, k));
    for (const side of SIDES) this.capsOf(side);
    for (const [k, loop] of loops.entries())
      for (let i = 0; i < loop.length; i++) this.linesAt(k, i, at(wallOf, k));
    for (const [ridge, along] of ridges)
      this.ridgeLines(this.ends.start.ridges.includes(ridge) ? "start" : "end", along);
    const { faces, lines, walls, caps, arcs } = this;
    return { faces, lines, walls, caps, arcs };
  }

  /** The number of a point over the plan at one of the ends. */
  private pointAt(side: Side, i: number): number {
    return side === "start" ? i : i + this.plan.points.length;
  }

  private wallsOver(loop: readonly number[], k: number): readonly number[] {
    return loop.map((from, i) => {
      const to = at(loop, (i + 1) % loop.length);
      const normal = this.walls.push({ from, to }) - 1;
      const corners = [from, to, this.pointAt("end", to), this.pointAt("end", from)];
      this.faces.push({ corners, normal, name: sideName(k, at(this.plan.points, from).segment) });
      return normal;
    });
  }

  private capsOf(side: Side): void {
    const { points, triangles } = this.plan;
    for (let i = 0; i < triangles.length; i += 3) {
      const flat = [at(triangles, i), at(triangles, i + 1), at(triangles, i + 2)];
      const corners = (side === "start" ? flat.toReversed() : flat).map((one) => this.pointAt(side, one));
      const middle = flat.reduce<Vec2>(
        (sum, corner) => [sum[0] + at(points, corner).at[0] / 3, sum[1] + at(points, corner).at[1] / 3],
        [0, 0],
      );
      const plane = lowestPlane(this.ends[side], middle);
      const normal = this.walls.length + this.caps.push({ side, plane, corners }) - 1;
      this.faces.push({ corners, normal, name: capName(side, plane) });
      flat.forEach((a, k) => {
        const key = edgeKey(side, a, at(flat, (k + 1) % 3));
        addTo(this.capsAt, key, normal);
      });
    }
  }

  /** The lines from a point of a ring: along both ends to the next point, and along the prism. */
  private linesAt(k: number, i: number, walls: readonly number[]): void {
    const { points, loops, rings } = this.plan;
    const loop = at(loops, k);
    const [a, b] = [at(loop, i), at(loop, (i + 1) % loop.length)];
    const last = (i + loop.length - 1) % loop.length;
    const [before, wall] = [at(walls, last), at(walls, i)];
    const point = at(points, a);
    const name = sideName(k, point.segment);
    const segment = at(at(rings, k).loop, point.segment);
    for (const side of SIDES) {
      const [cap] = this.capsAt.get(edgeKey(side, a, b)) ?? [];
      // A ring that earcut found no triangle along is no wider than a line.
      if (cap === undefined) continue;
      const { plane } = this.capNumbered(cap);
      this.lines.push({
        from: this.pointAt(side, a),
        to: this.pointAt(side, b),
        normals: [wall, cap],
        kind: "sharp",
        curve:
          segment.kind === "arc" ? this.curveOn(segment, { side, plane }, point.at, at(points, b).at) : null,
        name: lineName(name, capName(side, plane)),
      });
    }
    if (point.kind === null) return;
    const previous = sideName(k, at(points, at(loop, last)).segment);
    this.lines.push({
      from: a,
      to: this.pointAt("end", a),
      normals: [before, wall],
      kind: point.kind,
      curve: null,
      name: point.kind === "crease" ? `middle of ${name}` : lineName(previous, name),
    });
  }

  private capNumbered(normal: number): PrismBuild["caps"][number] {
    return at(this.caps, normal - this.walls.length);
  }

  private curveOn(arc: Arc, { side, plane }: OnPlane, from: Vec2, to: Vec2): SolidLine["curve"] {
    if (this.ends[side].planes === null) return null;
    const known = this.arcs.findIndex((one) => one.arc === arc && one.side === side && one.plane === plane);
    const of = known < 0 ? this.arcs.push({ arc, side, plane }) - 1 : known;
    return { of, ...chordAngles(arc.centre, from, to) };
  }

  /** Where two planes of an end meet, by pairs of points along the ridge. */
  private ridgeLines(side: Side, along: readonly number[]): void {
    for (let i = 0; i < along.length; i += 2) {
      const [a, b] = [at(along, i), at(along, i + 1)];
      const [first, second] = this.capsAt.get(edgeKey(side, a, b)) ?? [];
      if (first === undefined || second === undefined) continue;
      const [one, other] = [this.capNumbered(first), this.capNumbered(second)];
      this.lines.push({
        from: this.pointAt(side, a),
        to: this.pointAt(side, b),
        normals: [first, second],
        kind: "sharp",
        curve: null,
        name: lineName(capName(side, one.plane), capName(side, other.plane)),
      });
    }
  }
}

type OnPlane = { readonly side: Side; readonly plane: number };

const sideName = (loop: number, segment: number) => `${loop === 0 ? "side" : "bore"} ${segment + 1}`;
const capName = (side: Side, plane: number) => (plane === 0 ? side : `${side} ${plane + 1}`);
const edgeKey = (side: Side, a: number, b: number) => `${side} ${Math.min(a, b)} ${Math.max(a, b)}`;

/** Which plane of an end stands at a point; 0 where it is curved. */
function lowestPlane({ planes }: EndSurface, point: Vec2): number {
  const heights = (planes ?? []).map(({ slope, beyond }) => beyond + dot2(slope, point));
  return Math.max(0, heights.indexOf(Math.min(...heights)));
}

function planOf(rings: readonly Ring[]): Plan {
  const points = rings.flatMap((ring) => ring.points);
  const firsts = rings.map((_, k) => rings.slice(0, k).reduce((sum, ring) => sum + ring.points.length, 0));
  return {
    rings,
    points,
    loops: rings.map((ring, k) => ring.points.map((_, i) => at(firsts, k) + i)),
    triangles: earcut(
      points.flatMap(({ at: p }) => [p[0], p[1]]),
      firsts.slice(1),
    ),
    ridges: [],
  };
}

/** Ridges by the line on which they lie, whichever way their slope points. */
const byPlace: Order<Linear> = byKey(({ slope: [x, y], constant }) => {
  const size = Math.hypot(x, y);
  const sign = x < -ON_RIDGE_MM || (Math.abs(x) <= ON_RIDGE_MM && y < 0) ? -1 : 1;
  return [x, y, constant].map((part) => Math.round((sign * part * 1e6) / size));
}, byTuple);

/** mm. Nearer to a ridge than this a point lies on it. */
const ON_RIDGE_MM = 1e-6;

/** Parts the rings and the triangles of a plan where a ridge crosses them. */
function parted(plan: Plan, ridge: Linear): Plan {
  const points = [...plan.points];
  const steep = norm2(ridge.slope);
  const beside = plan.points.map(({ at: p }) => {
    const away = valueAt(ridge, p) / steep;
    return Math.abs(away) <= ON_RIDGE_MM ? 0 : away;
  });
  const sideOf = (i: number) => beside[i] ?? 0;
  const made = new Map<string, number>();
  const pairKey = (a: number, b: number) => (a < b ? `${a}|${b}` : `${b}|${a}`);
  /** Two points with the one between them that lies on the ridge, where they stand on two sides of it. */
  const withCrossing = (a: number, b: number, onRing: Ring | null): readonly number[] => {
    const [p, q] = [sideOf(a), sideOf(b)];
    if (p * q >= 0) return [a];
    const known = made.get(pairKey(a, b));
    if (known !== undefined) return [a, known];
    const [from, to] = [at(points, a), at(points, b)];
    const share = p / (p - q);
    const place: Vec2 = [
      from.at[0] + (to.at[0] - from.at[0]) * share,
      from.at[1] + (to.at[1] - from.at[1]) * share,
    ];
    // Along a ring the segment goes on; on an arc the walls on either side are two facets of one round.
    const round = onRing && at(onRing.loop, from.segment).kind === "arc";
    const index = points.push({ at: place, segment: from.segment, kind: round ? "smooth" : null }) - 1;
    made.set(pairKey(a, b), index);
    return [a, index];
  };
  const around = (corners: readonly number[], onRing: Ring | null) =>
    corners.flatMap((a, i) => withCrossing(a, at(corners, (i + 1) % corners.length), onRing));
  // The rings first: what lies on them is told from what lies inside.
  const loops = plan.loops.map((loop, k) => around(loop, at(plan.rings, k)));
  const triangles: number[] = [];
  const along = new Map<string, readonly [number, number]>();
  for (let i = 0; i < plan.triangles.length; i += 3) {
    const corners = around(plan.triangles.slice(i, i + 3), null);
    const [first, second, ...more] = corners.filter((a) => sideOf(a) === 0);
    if (first !== undefined && second !== undefined && more.length === 0)
      along.set(pairKey(first, second), [first, second]);
    const parts =
      corners.length === 3 ? [corners] : [1, -1].map((side) => corners.filter((a) => side * sideOf(a) >= 0));
    for (const part of parts)
      for (let k = 2; k < part.length; k++) triangles.push(at(part, 0), at(part, k - 1), at(part, k));
  }
  return { ...plan, points, loops, triangles, ridges: [...plan.ridges, [ridge, [...along.values()].flat()]] };
}
