/**
 * Closed outlines in a plane, made of straight lines and circular arcs. Areas, centroids and reaches
 * are exact (Green's theorem over lines and arcs), so corner radii count; polygons are only for drawing.
 */
import { at } from "../kernel";
import { add2, cross2, dot2, norm2, scale2, subtract2, type Vec2 } from "./vector";

export type Segment =
  | { readonly kind: "line"; readonly from: Vec2; readonly to: Vec2 }
  | {
      readonly kind: "arc";
      readonly centre: Vec2;
      readonly radius: number;
      readonly start: number;
      /** Signed sweep in radians, counter-clockwise positive. */
      readonly sweep: number;
    };

/** Segments head to tail. Outer loops run counter-clockwise, holes clockwise. */
export type Loop = readonly Segment[];

export type Corner = { readonly at: Vec2; readonly radius: number };

type Round = { readonly centre: Vec2; readonly radius: number };

/** The place on a circle at an angle. */
export const onArc = ({ centre, radius }: Round, angle: number): Vec2 => [
  centre[0] + radius * Math.cos(angle),
  centre[1] + radius * Math.sin(angle),
];

/** So many points spread evenly round a circle, counter-clockwise from its +x; for drawing. */
export function ringPoints(round: Round, corners: number): readonly Vec2[] {
  return Array.from({ length: corners }, (_, i) => onArc(round, (2 * Math.PI * i) / corners));
}

export function startOf(segment: Segment): Vec2 {
  return segment.kind === "line" ? segment.from : onArc(segment, segment.start);
}

export function endOf(segment: Segment): Vec2 {
  return segment.kind === "line" ? segment.to : onArc(segment, segment.start + segment.sweep);
}

/** A full circle, counter-clockwise (or clockwise, for a hole). */
export function circle(radius: number, hole = false): Loop {
  return [{ kind: "arc", centre: [0, 0], radius, start: 0, sweep: hole ? -2 * Math.PI : 2 * Math.PI }];
}

/** A segment of a rounded polygon: the rounding of a corner, or the edge from it to the next one. */
type RoundedSegment = {
  readonly segment: Segment;
  readonly corner: number;
  readonly part: "rounding" | "edge";
};

/** A polygon whose corners are rounded by their radius; works for corners that point inwards as well. */
export const roundedPolygon = (corners: readonly Corner[]): Loop =>
  roundedSegments(corners).map(({ segment }) => segment);

/** The same, each segment with the corner that it belongs to. */
export function roundedSegments(corners: readonly Corner[]): readonly RoundedSegment[] {
  const joined = corners.map((corner, i) => {
    const before = at(corners, (i + corners.length - 1) % corners.length).at;
    const after = at(corners, (i + 1) % corners.length).at;
    return cornerArc(before, corner, after);
  });
  return joined.flatMap(({ arc, leave }, corner): readonly RoundedSegment[] => {
    const { enter } = at(joined, (corner + 1) % joined.length);
    const rounding: readonly RoundedSegment[] = arc ? [{ segment: arc, corner, part: "rounding" }] : [];
    if (norm2(subtract2(enter, leave)) <= 1e-9) return rounding;
    return [...rounding, { segment: { kind: "line", from: leave, to: enter }, corner, part: "edge" }];
  });
}

type JoinedCorner = { readonly enter: Vec2; readonly leave: Vec2; readonly arc: Segment | null };

function cornerArc(before: Vec2, corner: Corner, after: Vec2): JoinedCorner {
  if (corner.radius <= 0) return { enter: corner.at, leave: corner.at, arc: null };
  const inward = scale2(subtract2(corner.at, before), 1 / (norm2(subtract2(corner.at, before)) || 1));
  const outward = scale2(subtract2(after, corner.at), 1 / (norm2(subtract2(after, corner.at)) || 1));
  const turn = Math.atan2(cross2(inward, outward), dot2(inward, outward));
  const reach = corner.radius * Math.tan(Math.abs(turn) / 2);
  const enter = subtract2(corner.at, scale2(inward, reach));
  const leave = add2(corner.at, scale2(outward, reach));
  const side: Vec2 = turn > 0 ? [-inward[1], inward[0]] : [inward[1], -inward[0]];
  const centre = add2(enter, scale2(side, corner.radius));
  const start = Math.atan2(enter[1] - centre[1], enter[0] - centre[0]);
  return { enter, leave, arc: { kind: "arc", centre, radius: corner.radius, start, sweep: turn } };
}

/** Signed area (positive for counter-clockwise loops). */
export function loopArea(loop: Loop): number {
  return loop.reduce((sum, segment) => sum + segmentArea(segment), 0);
}

function segmentArea(segment: Segment): number {
  const from = startOf(segment);
  const to = endOf(segment);
  const chord = cross2(from, to) / 2;
  if (segment.kind === "line") return chord;
  return chord + (segment.radius ** 2 * (segment.sweep - Math.sin(segment.sweep))) / 2;
}

/** First moments of area (∫x, ∫y) of the region that the loop bounds, signed like its area. */
export function loopMoments(loop: Loop): Vec2 {
  return loop.reduce<Vec2>((sum, segment) => add2(sum, segmentMoments(segment)), [0, 0]);
}

function segmentMoments(segment: Segment): Vec2 {
  const from = startOf(segment);
  const to = endOf(segment);
  const triangle = scale2(add2(from, to), cross2(from, to) / 6);
  if (segment.kind === "line") return triangle;
  // The circular segment beyond the chord: area A, centroid on the bisector of the arc.
  const area = (segment.radius ** 2 * (segment.sweep - Math.sin(segment.sweep))) / 2;
  const middle = segment.start + segment.sweep / 2;
  const moment = (2 / 3) * (segment.radius * Math.sin(Math.abs(segment.sweep) / 2)) ** 3;
  const signed = Math.sign(segment.sweep) * moment;
  return add2(
    triangle,
    add2(scale2(segment.centre, area), [signed * Math.cos(middle), signed * Math.sin(middle)]),
  );
}

/** The greatest v·p over the loop: how far it reaches along `v` (in mm when v has length one). */
export function reach(loop: Loop, v: Vec2): number {
  let greatest = Number.NEGATIVE_INFINITY;
  for (const segment of loop) greatest = Math.max(greatest, segmentReach(segment, v));
  return greatest;
}

function segmentReach(segment: Segment, v: Vec2): number {
  const ends = Math.max(dot2(v, startOf(segment)), dot2(v, endOf(segment)));
  if (segment.kind === "line") return ends;
  const angle = Math.atan2(v[1], v[0]);
  const turn = segment.sweep > 0 ? angle - segment.start : segment.start - angle;
  const within = ((turn % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI) <= Math.abs(segment.sweep);
  return within ? Math.max(ends, dot2(v, segment.centre) + segment.radius * norm2(v)) : ends;
}

/** The same loop the other way round. */
export const reversedLoop = (loop: Loop): Loop =>
  loop
    .toReversed()
    .map(
      (segment): Segment =>
        segment.kind === "line"
          ? { kind: "line", from: segment.to, to: segment.from }
          : { ...segment, start: segment.start + segment.sweep, sweep: -segment.sweep },
    );

export function moveLoop(loop: Loop, by: Vec2): Loop {
  return loop.map((segment) =>
    segment.kind === "line"
      ? { kind: "line", from: add2(segment.from, by), to: add2(segment.to, by) }
      : { ...segment, centre: add2(segment.centre, by) },
  );
}
