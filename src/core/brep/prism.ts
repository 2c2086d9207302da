/** A bar by its borders, exact: a section between two ends, each in one plane, in two that meet across it, or on a cylinder. */
import {
  direction,
  type Linear,
  type Loop,
  pointOn,
  polygonArea,
  type Segment,
  scale,
  startOf,
  subtract2,
  type Vec2,
  type Vec3,
  valueAt,
  zerosOn,
} from "../geometry";
import { at } from "../kernel";
import type { Brep, BrepCurve, BrepSurface, BrepUse } from "./brep";
import { Builder, backwards, ringOfUses, withHoles } from "./builder";
import { type CurvePlace, splineAlong } from "./spline";

/** A plane of an end: z = height + slope · (x, y). */
export type SlantedEnd = { readonly height: number; readonly slope: Vec2 };
/** One plane, or two of which the one nearer to the bar's middle stands at each point. */
export type FlatEnd = readonly [SlantedEnd] | readonly [SlantedEnd, SlantedEnd];
/** Cut to a cylinder that lies beyond: z over the centre of the section and all that hangs on where one stands on an arc. */
export type RoundEnd = {
  readonly on: Vec3;
  readonly axis: Vec3;
  readonly radius: number;
  /** Over a point of the section. */
  readonly heightAt: (place: Vec2) => number;
  /** How the curve over an arc runs, by the angle on the arc; about an angle at which it is flat, its plane. */
  readonly over: (arc: Arc, angle: number) => CurvePlace;
  readonly flatOver: (arc: Arc, angle: number) => SlantedEnd | null;
  /** Angles on an arc at which that curve is parted: in its corners, and so that no part turns sharply and hardly at all. */
  readonly parted: (arc: Arc) => readonly number[];
};
export type BarEnd = FlatEnd | RoundEnd;
type Arc = Extract<Segment, { readonly kind: "arc" }>;

/** mm. How near a spline comes to where two cylinders cross. */
const NEAR = 1e-7;

/** Shares of a segment. A ridge that crosses nearer to a corner crosses in it. */
const AT_CORNER = 1e-9;

/** Arcs of half a turn at most: an edge has two ends. */
export const inParts = (loop: Loop): Loop =>
  loop.flatMap((segment): readonly Segment[] => {
    if (segment.kind === "line") return [segment];
    const parts = Math.max(1, Math.ceil(Math.abs(segment.sweep) / Math.PI - 1e-9));
    const sweep = segment.sweep / parts;
    return Array.from({ length: parts }, (_, i) => ({ ...segment, start: segment.start + i * sweep, sweep }));
  });

/**
 * A bar along z of a section between two ends. Loops: the outer one anticlockwise, holes clockwise. Null: a ridge only touches
 * the section, so that its faces cannot be told apart, or the curve round a cylinder turns too sharply.
 */
export function prismBrep(loops: readonly Loop[], start: BarEnd, end: BarEnd): Brep | null {
  const made = new Builder();
  const [low, high] = [endFace(made, start, -1), endFace(made, end, 1)];
  for (const loop of loops) if (!walls(made, inParts(loop), low, high)) return null;
  for (const face of [low, high]) if (!face.close()) return null;
  return { points: made.points, edges: made.edges, faces: made.faces, isFaceted: false };
}

/** The face of an end, at the start (−1) or at the end (1) of the bar. */
export const endFace = (made: Builder, end: BarEnd, side: 1 | -1): BarFace =>
  "axis" in end ? new RoundFace(made, end, side) : new FlatFace(made, end, side);

const heightOn = ({ height, slope }: SlantedEnd, [x, y]: Vec2) => height + slope[0] * x + slope[1] * y;

/** An edge on an end, along its loop, and in which of its planes it lies. */
export type EndEdge = { readonly edge: number; readonly plane: 0 | 1 };

/** One end of the bar: its edges loop by loop, and from them its faces. */
export type BarFace = {
  /** The corner over a point of the section. */
  readonly corner: (place: Vec2) => number;
  /** The edges over a segment, between the corners over its ends; null: they cannot be said. */
  readonly along: (segment: Segment, from: number, to: number) => readonly EndEdge[] | null;
  /** Takes a whole loop; the outer one first. */
  readonly loop: (edges: readonly EndEdge[]) => void;
  /** Makes its faces of them; whether that can be done. */
  readonly close: () => boolean;
};

/** In one plane, or in two that meet in a ridge. */
class FlatFace {
  /** Above zero where the second plane stands. */
  private readonly ridge: Linear | null;
  private readonly loops: (readonly EndEdge[])[] = [];

  private readonly made: Builder;
  private readonly end: FlatEnd;
  private readonly side: 1 | -1;

  constructor(made: Builder, end: FlatEnd, side: 1 | -1) {
    this.made = made;
    this.end = end;
    this.side = side;
    const [a, b] = end;
    const slope = b && subtract2(a.slope, b.slope);
    this.ridge = slope
      ? {
          slope: [side * slope[0], side * slope[1]],
          constant: side * (a.height - b.height),
        }
      : null;
  }

  private planeAt(place: Vec2): 0 | 1 {
    return this.ridge && valueAt(this.ridge, place) > 0 ? 1 : 0;
  }

  private lift(place: Vec2, plane = this.planeAt(place)): Vec3 {
    return [place[0], place[1], heightOn(this.end[plane] ?? this.end[0], place)];
  }

  corner(place: Vec2): number {
    return this.made.point(this.lift(place));
  }

  /** Parted where the ridge crosses. */
  along(segment: Segment, from: number, to: number): readonly EndEdge[] {
    const crossings = this.ridge
      ? zerosOn(segment, this.ridge)
          .filter((share) => share > AT_CORNER && share < 1 - AT_CORNER)
          .toSorted((a, b) => a - b)
      : [];
    const stops = [0, ...crossings, 1];
    const corners = [
      from,
      ...crossings.map((share) => this.made.point(this.lift(pointOn(segment, share)))),
      to,
    ];
    return stops.slice(1).map((stop, i) => {
      const plane = this.planeAt(pointOn(segment, (at(stops, i) + stop) / 2));
      const curve = curveOf(segment, this.end[plane] ?? this.end[0]);
      return { edge: this.made.edge(at(corners, i), at(corners, i + 1), curve), plane };
    });
  }

  loop(edges: readonly EndEdge[]): void {
    this.loops.push(edges);
  }

  close(): boolean {
    const partner = this.acrossRidge();
    if (!partner) return false;
    for (const plane of [0, 1] as const) if (!this.closePlane(plane, partner)) return false;
    return true;
  }

  /** Corners in which the outline goes from one plane over to the other, each with the one across the section and the edge between them. */
  private acrossRidge(): ReadonlyMap<number, { readonly to: number; readonly use: BrepUse }> | null {
    const crossed: { readonly corner: number; readonly along: number }[] = [];
    const { ridge } = this;
    for (const edges of ridge ? this.loops : [])
      for (const [i, { edge, plane }] of edges.entries()) {
        if (at(edges, (i + 1) % edges.length).plane === plane) continue;
        const corner = at(this.made.edges, edge).to;
        const [x, y] = at(this.made.points, corner);
        crossed.push({ corner, along: x * -(ridge?.slope[1] ?? 0) + y * (ridge?.slope[0] ?? 0) });
      }
    const partner = new Map<number, { readonly to: number; readonly use: BrepUse }>();
    if (crossed.length % 2 === 1) return null;
    crossed.sort((a, b) => a.along - b.along);
    for (let i = 0; i < crossed.length; i += 2) {
      const [a, b] = [at(crossed, i).corner, at(crossed, i + 1).corner];
      if (partner.has(a) || partner.has(b) || a === b) return null;
      const edge = this.made.edge(a, b, { kind: "line" });
      partner.set(a, { to: b, use: { edge, ahead: true } });
      partner.set(b, { to: a, use: { edge, ahead: false } });
    }
    return partner;
  }

  private closePlane(
    plane: 0 | 1,
    partner: ReadonlyMap<number, { readonly to: number; readonly use: BrepUse }>,
  ): boolean {
    const standing = this.end[plane];
    if (!standing) return true;
    const outer: (readonly BrepUse[])[] = [];
    const holes: (readonly BrepUse[])[] = [];
    /** Runs of edges in this plane, by the corner that they begin in. */
    const runs = new Map<number, { readonly uses: readonly BrepUse[]; readonly last: number }>();
    for (const edges of this.loops) {
      if (edges.every((one) => one.plane === plane)) {
        const uses = edges.map(({ edge }) => ({ edge, ahead: true }));
        (polygonArea(ringOfUses(this.made, uses)) > 0 ? outer : holes).push(uses);
        continue;
      }
      for (const [i, { plane: own }] of edges.entries()) {
        if (own !== plane || at(edges, (i + edges.length - 1) % edges.length).plane === plane) continue;
        const uses: BrepUse[] = [];
        for (let j = i; at(edges, j % edges.length).plane === plane; j++)
          uses.push({ edge: at(edges, j % edges.length).edge, ahead: true });
        const ends = (edge: number) => at(this.made.edges, edge);
        runs.set(ends(at(uses, 0).edge).from, { uses, last: ends(at(uses, uses.length - 1).edge).to });
      }
    }
    while (runs.size > 0) {
      const [first] = runs.keys();
      const uses: BrepUse[] = [];
      let corner = first as number;
      do {
        const run = runs.get(corner);
        const over = run && partner.get(run.last);
        // The ridge leads to where no part of this plane begins: it only touches the section.
        if (!run || !over) return false;
        runs.delete(corner);
        uses.push(...run.uses, over.use);
        corner = over.to;
      } while (corner !== first);
      outer.push(uses);
    }
    const faces = withHoles(this.made, outer, holes);
    for (const loops of faces ?? [])
      this.made.faces.push({
        surface: endPlane(standing, this.side),
        loops: this.side === 1 ? loops : loops.map(backwards),
      });
    return faces !== null;
  }
}

/** On a cylinder. */
class RoundFace {
  private readonly loops: (readonly EndEdge[])[] = [];
  private readonly made: Builder;
  private readonly end: RoundEnd;
  private readonly side: 1 | -1;

  constructor(made: Builder, end: RoundEnd, side: 1 | -1) {
    this.made = made;
    this.end = end;
    this.side = side;
  }

  corner(place: Vec2): number {
    return this.made.point([place[0], place[1], this.end.heightAt(place)]);
  }

  along(segment: Segment, from: number, to: number): readonly EndEdge[] | null {
    if (segment.kind === "line") return null;
    const { start, sweep } = segment;
    const turn = 2 * Math.PI;
    const shares = this.end
      .parted(segment)
      .map((angle) => ((((angle - start) * Math.sign(sweep)) % turn) + turn) % turn)
      .map((away) => away / Math.abs(sweep))
      .filter((share) => share > AT_CORNER && share < 1 - AT_CORNER)
      .toSorted((a, b) => a - b);
    const stops = [0, ...shares, 1];
    const corners = [from, ...shares.map((share) => this.corner(pointOn(segment, share))), to];
    const edges: EndEdge[] = [];
    for (let i = 1; i < stops.length; i++) {
      const [low, high] = [start + sweep * at(stops, i - 1), start + sweep * at(stops, i)];
      const flat = this.end.flatOver(segment, (low + high) / 2);
      const curve = flat
        ? curveOf(segment, flat)
        : splineAlong((angle) => this.end.over(segment, angle), [low, high], NEAR);
      if (!curve) return null;
      edges.push({ edge: this.made.edge(at(corners, i - 1), at(corners, i), curve), plane: 0 });
    }
    return edges;
  }

  loop(edges: readonly EndEdge[]): void {
    this.loops.push(edges);
  }

  close(): boolean {
    const { on, axis, radius } = this.end;
    const loops = this.loops.map((edges) => edges.map(({ edge }): BrepUse => ({ edge, ahead: true })));
    this.made.faces.push({
      surface: { kind: "cylinder", on, axis, radius, outwards: false },
      loops: this.side === 1 ? loops : loops.map(backwards),
    });
    return true;
  }
}

function endPlane(end: SlantedEnd, side: 1 | -1): BrepSurface {
  const normal = direction([-end.slope[0], -end.slope[1], 1]) ?? [0, 0, 1];
  return { kind: "plane", on: [0, 0, end.height], normal: scale(normal, side) };
}

/** Makes the faces along a loop between both ends, and gives them its edges; whether that can be done. */
export function walls(made: Builder, loop: Loop, low: BarFace, high: BarFace): boolean {
  const starts = loop.map((segment): Vec2 => startOf(segment));
  const [lows, highs] = [low, high].map((end) => starts.map((place) => end.corner(place))) as [
    number[],
    number[],
  ];
  const uprights = starts.map((_, i) => made.edge(at(lows, i), at(highs, i), { kind: "line" }));
  const next = (i: number) => (i + 1) % loop.length;
  const edgesOn = (end: BarFace, corners: readonly number[]) =>
    loop.map((segment, i) => end.along(segment, at(corners, i), at(corners, next(i))));
  const [under, over] = [edgesOn(low, lows), edgesOn(high, highs)].map((all) =>
    all.flatMap((edges) => (edges ? [edges] : [])),
  ) as [(readonly EndEdge[])[], (readonly EndEdge[])[]];
  if (under.length < loop.length || over.length < loop.length) return false;
  const uses = (edges: readonly EndEdge[]): BrepUse[] => edges.map(({ edge }) => ({ edge, ahead: true }));
  for (const [i, segment] of loop.entries())
    made.faces.push({
      surface: wallSurface(segment),
      loops: [
        [
          ...uses(at(under, i)),
          { edge: at(uprights, next(i)), ahead: true },
          ...backwards(uses(at(over, i))),
          { edge: at(uprights, i), ahead: false },
        ],
      ],
    });
  low.loop(under.flat());
  high.loop(over.flat());
  return true;
}

function wallSurface(segment: Segment): BrepSurface {
  if (segment.kind === "arc") {
    const { centre, radius, sweep } = segment;
    return { kind: "cylinder", on: [centre[0], centre[1], 0], axis: [0, 0, 1], radius, outwards: sweep > 0 };
  }
  const { from, to } = segment;
  return {
    kind: "plane",
    on: [from[0], from[1], 0],
    normal: direction([to[1] - from[1], from[0] - to[0], 0]) ?? [1, 0, 0],
  };
}

/** Where the wall over a segment meets a plane: it cuts a cylinder in an ellipse. */
export function curveOf(segment: Segment, end: SlantedEnd): BrepCurve {
  if (segment.kind === "line") return { kind: "line" };
  const { centre, radius, sweep } = segment;
  const lean = Math.hypot(...end.slope);
  const uphill: Vec2 = lean === 0 ? [1, 0] : [end.slope[0] / lean, end.slope[1] / lean];
  const stretch = Math.sqrt(1 + lean * lean);
  return {
    kind: "ellipse",
    centre: [centre[0], centre[1], heightOn(end, centre)],
    normal: [-end.slope[0] / stretch, -end.slope[1] / stretch, 1 / stretch],
    major: [uphill[0] / stretch, uphill[1] / stretch, lean / stretch],
    long: radius * stretch,
    short: radius,
    ahead: sweep > 0,
  };
}
