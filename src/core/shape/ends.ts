/**
 * Ends of members on the planes of their neighbours. In a member's own axes a start plane is z = z0 − s·(x, y) and an end
 * plane z = z1 + s·(x, y): the slope s points to the long point and |s| is the tangent of the angle from square.
 */
import { type End, type EndFace, endOfTwoPlanes, kindOf, ridgesOf } from "../ends";
import {
  cross2,
  distance,
  dot,
  dot2,
  type EndSurface,
  norm2,
  reach,
  subtract2,
  type Vec2,
  type Vec3,
} from "../geometry";
import {
  at,
  err,
  ok,
  PARALLEL_TOLERANCE,
  POINT_TOLERANCE_MM,
  type Result,
  SAME_PLACE_MM,
  SLOPE_TOLERANCE,
} from "../kernel";
import { type SectionProperties, type SectionShape, sectionProperties } from "../stockroom";

import type { Bar, EndSide } from "./bar";
import type { MeetFault } from "./fault";

/** An end where it stands: `z` is where it crosses the member's axis (the line of centroids). */
export type MemberEnd = { readonly z: number; readonly form: End };

/** A plane n·p = offset. */
export type WorldPlane = { readonly normal: Vec3; readonly offset: number };

const subtract3 = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];

function outerLoop(properties: SectionProperties) {
  return at(properties.loops, 0);
}

type OnePlane = { readonly z: number; readonly slope: Vec2 };
export const planeEnd = ({ z, slope }: OnePlane): MemberEnd => ({ z, form: { kind: "plane", slope } });

/** Where a plane in the job crosses a bar's axis and how it leans there, counted outwards; an error when it runs along the bar. */
export function endOnPlane(bar: Bar, side: EndSide, plane: WorldPlane): Result<OnePlane, MeetFault> {
  const { frame } = bar;
  const along = dot(plane.normal, frame.z);
  if (Math.abs(along) < PARALLEL_TOLERANCE) return err("cutAlong");
  const z = (plane.offset - dot(plane.normal, frame.origin)) / along;
  const sign = side === "start" ? 1 : -1;
  const slope = ([dot(plane.normal, frame.x), dot(plane.normal, frame.y)] as const).map((part) => {
    const value = (sign * part) / along;
    return Math.abs(value) < PARALLEL_TOLERANCE ? 0 : value;
  });
  return ok({ z, slope: [at(slope, 0), at(slope, 1)] });
}

/** The end that two planes in the job leave of a bar, the lower of both everywhere. */
export function endOnTwoPlanes(
  bar: Bar,
  side: EndSide,
  planes: readonly [WorldPlane, WorldPlane],
): Result<MemberEnd, MeetFault> {
  const first = endOnPlane(bar, side, planes[0]);
  if (!first.ok) return first;
  const second = endOnPlane(bar, side, planes[1]);
  if (!second.ok) return second;
  // Heights are counted outwards, at the start against z.
  const out = side === "start" ? -1 : 1;
  const face = ({ z, slope }: OnePlane): EndFace => ({ slope, beyond: out * z });
  const { form, beyond } = endOfTwoPlanes(bar.shape, face(first.value), face(second.value));
  return ok({ z: out * beyond, form });
}

/** Where an end stands above a point of the section, along the member's z. */
export function endHeight(
  side: EndSide,
  { z, form }: MemberEnd,
  section: SectionShape,
): (point: Vec2) => number {
  const out = side === "start" ? -1 : 1;
  const height = kindOf(form).height(form, section);
  return (point) => z + out * height(point);
}

/** An end as the picture draws it. */
export function endSurface(solid: SolidEnds, side: EndSide): EndSurface {
  const { form } = solid[side];
  const planes = kindOf(form).faces(form);
  return {
    height: endHeight(side, solid[side], solid.entry.shape),
    planes,
    ridges: ridgesOf(planes ?? []),
  };
}

/** What the solid of a member is made of: its section, and its ends where they stand on its axis. */
export type SolidEnds = {
  readonly start: MemberEnd;
  readonly end: MemberEnd;
  readonly entry: { readonly shape: SectionShape };
};

/** At which of its ends a member meets a point; null when it does not. */
export function sideAt(line: { readonly from: Vec3; readonly to: Vec3 }, point: Vec3): EndSide | null {
  // A micron: far below what two formulas for one corner differ by, far above double noise.
  if (distance(line.from, point) < SAME_PLACE_MM) return "start";
  return distance(line.to, point) < SAME_PLACE_MM ? "end" : null;
}

/** The direction along a bar away from the joint at one of its ends. */
const awayFrom = (bar: Bar, side: EndSide): Vec3 =>
  side === "start" ? bar.frame.z : [-bar.frame.z[0], -bar.frame.z[1], -bar.frame.z[2]];

/** The plane that halves the corner between two bars that meet in `joint`: normal u − b. */
export function mitrePlane(
  bar: Bar,
  side: EndSide,
  other: Bar,
  otherSide: EndSide,
  joint: Vec3,
): Result<WorldPlane, MeetFault> {
  const u = awayFrom(bar, side);
  const b = awayFrom(other, otherSide);
  const normal = subtract3(u, b);
  const size = Math.hypot(...normal);
  if (size < 1e-6) return err("onOneAnother");
  const unit: Vec3 = [normal[0] / size, normal[1] / size, normal[2] / size];
  return ok({ normal: unit, offset: dot(unit, joint) });
}

/**
 * Whether the mitre closes: reflected in its plane, the outline of the one must fall on the outline of
 * the other. Both sections, their turn about the line and their place on it count.
 */
export function mitreCloses(bar: Bar, other: Bar, plane: WorldPlane): boolean {
  if (JSON.stringify(bar.shape) !== JSON.stringify(other.shape)) return false;
  const reflect = (p: Vec3): Vec3 => {
    const twice = 2 * (dot(plane.normal, p) - plane.offset);
    return [p[0] - twice * plane.normal[0], p[1] - twice * plane.normal[1], p[2] - twice * plane.normal[2]];
  };
  const seen = (p: Vec3): Vec2 => {
    const from = subtract3(reflect(p), other.frame.origin);
    return [dot(from, other.frame.x), dot(from, other.frame.y)];
  };
  const { origin, x, y } = bar.frame;
  const centre = seen(origin);
  if (norm2(centre) > POINT_TOLERANCE_MM * 1e3) return false;
  const towards = (axis: Vec3): Vec2 =>
    subtract2(seen([origin[0] + axis[0], origin[1] + axis[1], origin[2] + axis[2]]), centre);
  const [mx, my] = [towards(x), towards(y)];
  const { symmetry } = sectionProperties(bar.shape);
  if (symmetry.kind === "round") return true;
  return symmetry.turns.some(({ rows: [r0, r1] }) => {
    const difference = Math.max(
      Math.abs(mx[0] - r0[0]),
      Math.abs(mx[1] - r1[0]),
      Math.abs(my[0] - r0[1]),
      Math.abs(my[1] - r1[1]),
    );
    return difference < SLOPE_TOLERANCE;
  });
}

/**
 * The face plane of `other` that a bar meets first, coming from its far end: the first flat of the
 * other's outline that the bar's axis hits, or, where the axis passes beside it, an edge of the bar.
 */
export function faceMetFirst(bar: Bar, side: EndSide, other: Bar): Result<WorldPlane, MeetFault> {
  const properties = sectionProperties(other.shape);
  if (properties.isRound) return err("roundFace");
  const towards = side === "start" ? ([-1, bar.length] as const) : ([1, 0] as const);
  const flat = (p: Vec3): Vec2 => [
    dot(subtract3(p, other.frame.origin), other.frame.x),
    dot(subtract3(p, other.frame.origin), other.frame.y),
  ];
  const { frame } = bar;
  const onBar = (x: number, y: number): Vec3 =>
    ([0, 1, 2] as const).map(
      (i) => frame.origin[i] + frame.z[i] * towards[1] + frame.x[i] * x + frame.y[i] * y,
    ) as unknown as Vec3;
  const heading: Vec2 = [towards[0] * dot(frame.z, other.frame.x), towards[0] * dot(frame.z, other.frame.y)];
  if (norm2(heading) < 1e-6) return err("parallel");
  const starts = [[0, 0] as const, ...sectionProperties(bar.shape).sharp];
  let best: { readonly t: number; readonly edge: number } | null = null;
  for (const [i, [x, y]] of starts.entries()) {
    const hit = firstHit(flat(onBar(x, y)), heading, properties.sharp);
    if (hit && (best === null || hit.t < best.t)) best = hit;
    if (i === 0 && best) break;
  }
  if (!best) return err("passesBeside");
  return ok(facePlane(other, best.edge));
}

type Hit = { readonly t: number; readonly edge: number };

/** First edge of a counter-clockwise polygon that a ray from outside enters. */
function firstHit(from: Vec2, heading: Vec2, polygon: readonly Vec2[]): Hit | null {
  let best: Hit | null = null;
  for (let edge = 0; edge < polygon.length; edge++) {
    const a = at(polygon, edge);
    const b = at(polygon, (edge + 1) % polygon.length);
    const run = subtract2(b, a);
    const entering = dot2(heading, [run[1], -run[0]]) < 0;
    const crossing = cross2(heading, run);
    if (!entering || Math.abs(crossing) < 1e-12) continue;
    const t = cross2(subtract2(a, from), run) / crossing;
    const along = cross2(subtract2(a, from), heading) / crossing;
    if (t > 0 && along >= -1e-9 && along <= 1 + 1e-9 && (best === null || t < best.t)) best = { t, edge };
  }
  return best;
}

function facePlane(bar: Bar, edge: number): WorldPlane {
  const { sharp } = sectionProperties(bar.shape);
  const a = at(sharp, edge);
  const b = at(sharp, (edge + 1) % sharp.length);
  const run = subtract2(b, a);
  const length = norm2(run);
  const n: Vec2 = [run[1] / length, -run[0] / length];
  const { x, y, origin } = bar.frame;
  const normal: Vec3 = [n[0] * x[0] + n[1] * y[0], n[0] * x[1] + n[1] * y[1], n[0] * x[2] + n[1] * y[2]];
  return { normal, offset: dot(normal, origin) + dot2(n, a) };
}

/**
 * How far a bar that runs through must go on past its point to be flush with the far face of the
 * member that butts against it. In one plane: h/(2 sin θ) − H/(2 tan θ).
 */
export function reachPast(
  bar: Bar,
  side: EndSide,
  joint: Vec3,
  branch: Bar,
  branchSide: EndSide,
): Result<number, MeetFault> {
  const contact = faceMetFirst(branch, branchSide, bar);
  if (!contact.ok) return contact;
  const { normal, offset } = contact.value;
  const { frame } = branch;
  const away = awayFrom(bar, side);
  const outwards: Vec3 = [-away[0], -away[1], -away[2]];
  const along = dot(normal, frame.z);
  if (Math.abs(along) < PARALLEL_TOLERANCE) return err("runsAlong");
  const slip = dot(outwards, frame.z) / along;
  const reachOf: Vec2 = [
    dot(outwards, frame.x) - dot(normal, frame.x) * slip,
    dot(outwards, frame.y) - dot(normal, frame.y) * slip,
  ];
  const centre = dot(outwards, subtract3(frame.origin, joint)) + (offset - dot(normal, frame.origin)) * slip;
  return ok(centre + reach(outerLoop(sectionProperties(branch.shape)), reachOf));
}
