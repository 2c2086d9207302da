/**
 * End planes of members. In a member's own axes the start plane is z = z0 − s·(x, y) and the end plane
 * z = z1 + s·(x, y): the slope s points to the long point and |s| is the tangent of the angle from square.
 */
import { cross2, dot, dot2, norm2, reach, subtract2, type Vec2, type Vec3 } from "../geometry";
import { at, err, ok, PARALLEL_TOLERANCE, POINT_TOLERANCE_MM, type Result, SLOPE_TOLERANCE } from "../kernel";
import { type SectionProperties, sectionProperties } from "../stockroom";

import type { Bar, EndSide } from "./bar";
import { type Cope, type CopeCurve, copeHeight, copeOn } from "./cope";
import type { MeetFault } from "./fault";

/**
 * `z` where the plane crosses the member's axis (the line of centroids); `slope` as above. With a cope,
 * `z` is the foot of the common perpendicular and `slope` the lean of the saddle, −u·cot θ.
 */
export type EndPlane = { readonly z: number; readonly slope: Vec2; readonly cope: Cope | null };

/** A plane n·p = offset. */
export type WorldPlane = { readonly normal: Vec3; readonly offset: number };

const subtract3 = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];

export function outerLoop(properties: SectionProperties) {
  return at(properties.loops, 0);
}

/** The end plane that a plane in the job makes on a bar; an error when it runs along the bar. */
export function endOnPlane(bar: Bar, side: EndSide, plane: WorldPlane): Result<EndPlane, MeetFault> {
  const { frame } = bar;
  const along = dot(plane.normal, frame.z);
  if (Math.abs(along) < PARALLEL_TOLERANCE) return err("cutAlong");
  const z = (plane.offset - dot(plane.normal, frame.origin)) / along;
  const sign = side === "start" ? 1 : -1;
  const slope = ([dot(plane.normal, frame.x), dot(plane.normal, frame.y)] as const).map((part) => {
    const value = (sign * part) / along;
    return Math.abs(value) < PARALLEL_TOLERANCE ? 0 : value;
  });
  return ok({ z, slope: [at(slope, 0), at(slope, 1)], cope: null });
}

/** The end that fits round another bar. */
export function endOnRound(
  bar: Bar,
  side: EndSide,
  header: Bar,
  gap: number,
  curve: CopeCurve,
): Result<EndPlane, MeetFault> {
  const found = copeOn(bar, side, header, gap, curve);
  if (!found.ok) return found;
  const { cope, foot } = found.value;
  const lean = cope.cos / cope.sin;
  return ok({ z: foot, slope: [-cope.u[0] * lean + 0, -cope.u[1] * lean + 0], cope });
}

/** Where an end stands above a point of the section, along the member's z. */
export function endHeight(side: EndSide, { z, slope, cope }: EndPlane): (point: Vec2) => number {
  const sign = side === "start" ? 1 : -1;
  if (cope) return (point) => z + sign * copeHeight(cope, point);
  return ([x, y]) => z - sign * (slope[0] * x + slope[1] * y);
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
