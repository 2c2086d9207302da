/**
 * A body as a member: a direction that nearly all of it runs along, the section that most slices square to it show, and what
 * its two ends are. Whatever of it is none of these is told as left over; a member with nothing left over is the body.
 */

import { type End, type EndFace, kindOf } from "../ends";
import { add, cross, direction, dot, norm, scale, subtract, type Vec2, type Vec3 } from "../geometry";
import { at } from "../kernel";
import { type SectionShape, sectionProperties } from "../stockroom";
import type { Body } from "./body";
import { holesOf, type MemberHole, pointsOf } from "./member-holes";
import { type FacingPlane, type MemberFrame, type MemberNotch, notchesAt } from "./member-notches";
import { type SeatedSection, sectionOf } from "./section";
import { type SliceAxes, sliceOf } from "./slice";
import { type PlaneSurface, squareTo } from "./surface";

/** An end in the axes of its member: `z` where the plane meets the centroids, `slope` how far it reaches out per mm across. */
export type ReadEnd =
  | { readonly kind: "plane"; readonly z: number; readonly slope: Vec2 }
  | {
      readonly kind: "cope";
      readonly z: number;
      readonly axis: Vec3;
      readonly centre: Vec3;
      readonly radius: number;
    }
  /** Of both planes the lower one stands. `z`: where the first of them meets the centroids. */
  | { readonly kind: "twoPlanes"; readonly z: number; readonly faces: readonly [EndFace, EndFace] }
  | { readonly kind: "complex"; readonly z: number };

export type ReadMember = {
  readonly kind: "member";
  readonly shape: SectionShape;
  /** What of the section is otherwise than the product draws it. */
  readonly differences: readonly string[];
  /** A point on the centroids, the axes of the section and the way along; right-handed. */
  readonly origin: Vec3;
  readonly x: Vec3;
  readonly y: Vec3;
  readonly along: Vec3;
  readonly start: ReadEnd;
  readonly end: ReadEnd;
  /** Round walls of holes square to the length. */
  readonly holes: readonly MemberHole[];
  /** Right across its ends. */
  readonly notches: readonly MemberNotch[];
  /** Faces that belong to neither the section, nor an end, nor a hole. */
  readonly leftOver: number;
};

const SIDE = 1e-3;
/** mm. How far corners may lie beyond a plane that is an end. */
const BEYOND = 0.05;
const SLICES = [0.5, 0.35, 0.65, 0.2, 0.8];

/** The member that a body is; null: none. */
export function memberOf(body: Body): ReadMember | null {
  let best: { readonly member: ReadMember; readonly score: number } | null = null;
  for (const along of directions(body)) {
    // Angles with unequal legs stand on their line only one way round.
    const member = memberAlong(body, along) ?? memberAlong(body, scale(along, -1));
    if (member) {
      const ends = [member.start, member.end].filter(({ kind }) => kind !== "complex").length;
      // Of a block the longest side is the length; a simpler reading goes before a longer one.
      const score = 1e6 * ends - 1e5 * member.leftOver + Math.abs(member.end.z - member.start.z);
      if (!best || score > best.score + 1e-6) best = { member, score };
    }
  }
  return best?.member ?? null;
}

/** Ways that a member may run: axes of round faces, and what two large flats have in common. */
function directions(body: Body): readonly Vec3[] {
  const found: Vec3[] = [];
  const take = (way: Vec3 | null) => {
    if (way && !found.some((other) => Math.abs(dot(other, way)) > 1 - 1e-9)) found.push(way);
  };
  const large = body.surfaces.toSorted((a, b) => b.area - a.area);
  for (const { surface } of large.slice(0, 12)) if (surface.kind === "cylinder") take(surface.axis);
  const flats = large
    .flatMap(({ surface }) => (surface.kind === "plane" ? [surface.normal] : []))
    .slice(0, 8);
  for (const [i, a] of flats.entries())
    for (const b of flats.slice(i + 1)) {
      const both = cross(a, b);
      if (norm(both) > 0.02) take(direction(both));
    }
  const whole = body.surfaces.reduce((sum, { area }) => sum + area, 0);
  return found
    .map((way) => ({ way, share: sideArea(body, way) / whole }))
    .filter(({ share }) => share > 0.3)
    .toSorted((a, b) => b.share - a.share)
    .slice(0, 4)
    .map(({ way }) => way);
}

const runsAlong = (surface: Body["surfaces"][number]["surface"], way: Vec3): boolean =>
  surface.kind === "plane"
    ? Math.abs(dot(surface.normal, way)) < SIDE
    : surface.kind === "cylinder" && Math.abs(dot(surface.axis, way)) > 1 - SIDE * SIDE;

const sideArea = (body: Body, way: Vec3): number =>
  body.surfaces.reduce((sum, { surface, area }) => sum + (runsAlong(surface, way) ? area : 0), 0);

function memberAlong(body: Body, along: Vec3): ReadMember | null {
  const [x, y] = squareTo(along);
  const axes: SliceAxes = { origin: at(body.points, 0), x, y, along };
  const heights = body.points.map((point) => dot(subtract(point, axes.origin), along));
  const low = heights.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY);
  const high = heights.reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY);
  const section = commonSection(body, axes, low, high);
  if (!section) return null;
  const world = ([u, v]: Vec2): Vec3 => add(scale(x, u), scale(y, v));
  const origin = add(axes.origin, world(section.centroid));
  const frame = { origin, x: world(section.x), y: world(section.y), along };
  const [startFaces, endFaces] = [endOf(body, section, frame, -1), endOf(body, section, frame, 1)];
  if (!startFaces || !endFaces) return null;
  if (!isWithin(body, section.shape, frame)) return null;
  const used = new Set([...section.surfaces, ...startFaces.faces, ...endFaces.faces]);
  const { holes, faces } = holesOf(body, frame, used);
  for (const face of faces) used.add(face);
  const notches = [...(startFaces.notches ?? []), ...(endFaces.notches ?? [])];
  const leftOver = body.surfaces.filter((_, i) => !used.has(i)).length;
  // More material than section and length make is proof that it is something else.
  const length = endFaces.end.z - startFaces.end.z;
  if (length <= 0) return null;
  const area = sectionProperties(section.shape).areaMm2;
  const isPlain = [startFaces, endFaces].every(({ end }) => end.kind === "plane" || end.kind === "twoPlanes");
  const mean = meanBeyond(startFaces.end, section.shape) + meanBeyond(endFaces.end, section.shape);
  const whole = area * (length + mean);
  if (isPlain && body.volume > whole * 1.005 + 1) return null;
  if (
    isPlain &&
    leftOver === 0 &&
    holes.length === 0 &&
    notches.length === 0 &&
    section.differences.length === 0 &&
    body.volume < whole * 0.98
  )
    return null;
  return {
    kind: "member",
    shape: section.shape,
    differences: section.differences,
    ...frame,
    start: startFaces.end,
    end: endFaces.end,
    holes,
    notches,
    leftOver,
  };
}

/** Of slices along it the section that most of them show; slices through holes and notches show none or another. */
function commonSection(body: Body, axes: SliceAxes, low: number, high: number): SeatedSection | null {
  const shown = new Map<string, { readonly section: SeatedSection; votes: number }>();
  for (const share of SLICES) {
    // A little off round shares, where corners lie.
    const loops = sliceOf(body, axes, low + (high - low) * (share + 0.00137));
    const section = loops && sectionOf(body, axes, loops);
    if (!section) continue;
    const key = JSON.stringify(section.shape);
    const known = shown.get(key) ?? { section, votes: 0 };
    known.votes++;
    shown.set(key, known);
    if (known.votes > SLICES.length / 2) return section;
  }
  const [best] = [...shown.values()].toSorted((a, b) => b.votes - a.votes);
  return best?.section ?? null;
}

type EndFaces = {
  readonly end: ReadEnd;
  readonly faces: readonly number[];
  readonly notches?: readonly MemberNotch[];
};

type PlaneStand = { readonly z: number; readonly slope: Vec2 };

/** How far a plane reaches out per mm across, and where it meets the centroids. */
function standOf({ normal, offset }: PlaneSurface, { origin, x, y, along }: MemberFrame): PlaneStand {
  const lean = Math.abs(dot(normal, along));
  return {
    z: (offset - dot(normal, origin)) / dot(normal, along),
    slope: [clean(-dot(normal, x) / lean), clean(-dot(normal, y) / lean)],
  };
}

/** mm. Planes that cross the centroids this near to one another cross them in one place. */
const ONE_PLACE = 1e-3;

/** Two planes as one end: of both the lower one stands, in a ridge, a corner of a frame, or anyhow. */
function twoPlaneEnd(planes: readonly [FacingPlane, FacingPlane], frame: MemberFrame, side: 1 | -1): ReadEnd {
  const [a, b] = planes.map(({ surface }) => standOf(surface, frame)) as [PlaneStand, PlaneStand];
  const reach = Math.min(side * a.z, side * b.z);
  const faceOf = ({ z, slope }: PlaneStand): EndFace => {
    const beyond = side * z - reach;
    return { slope, beyond: beyond < ONE_PLACE ? 0 : beyond };
  };
  return { kind: "twoPlanes", z: side * reach, faces: [faceOf(a), faceOf(b)] };
}

/** mm. What two planes add to the mean height of an end beyond where they cross the centroids first. */
function meanBeyond(end: ReadEnd, shape: SectionShape): number {
  if (end.kind !== "twoPlanes") return 0;
  const form: End = { kind: "twoPlanes", faces: end.faces };
  return kindOf(form).mean(form, shape);
}

/** The end on one side, and the faces that make it. */
function endOf(body: Body, section: SeatedSection, frame: MemberFrame, side: 1 | -1): EndFaces | null {
  const { origin, along } = frame;
  const out = scale(along, side);
  const area = sectionProperties(section.shape).areaMm2;
  const facing = body.surfaces.flatMap(({ surface, area }, index) => {
    if (section.surfaces.has(index) || surface.kind !== "plane") return [];
    const lean = dot(surface.normal, out);
    if (lean < 0.02) return [];
    const isOutermost = body.points.every((point) => dot(surface.normal, point) <= surface.offset + BEYOND);
    return [{ index, surface, lean, share: area * lean, isOutermost }];
  });
  const farthest = body.points.reduce(
    (far, point) => Math.max(far, dot(subtract(point, origin), out)),
    Number.NEGATIVE_INFINITY,
  );
  const outermost = facing.filter(({ isOutermost }) => isOutermost).toSorted((a, b) => b.share - a.share);
  const [plane, second, ...others] = outermost;
  const cut =
    plane && others.length === 0
      ? second
        ? twoPlaneEnd([plane, second], frame, side)
        : ({ kind: "plane", ...standOf(plane.surface, frame) } as const)
      : null;
  const notched = cut && notchesAt(body, section, frame, side, outermost, facing);
  if (notched) return { end: cut, ...notched };
  if (cut?.kind === "twoPlanes") {
    // Both show the whole section together.
    const share = outermost.reduce((sum, one) => sum + one.share, 0);
    if (share > 0.97 * area && share < 1.01 * area)
      return { end: cut, faces: outermost.map(({ index }) => index) };
  }
  // The plane shows the whole section, or it is only part of the end. Roundings are read as facets: a little less.
  const whole = section.differences.length > 0 ? [0.9, 1.1] : [0.97, 1.01];
  if (plane && plane.share > area * (whole[0] ?? 0) && plane.share < area * (whole[1] ?? 0)) {
    return { end: { kind: "plane", ...standOf(plane.surface, frame) }, faces: [plane.index] };
  }
  const hollows = body.surfaces.flatMap(({ surface }, index) =>
    surface.kind === "cylinder" && surface.isHollow && !section.surfaces.has(index)
      ? [{ surface, index }]
      : [],
  );
  const cope = hollows.find(({ surface: { axis, centre, radius }, index }) => {
    // It crosses the centroids and lies at this end.
    const closest = nearest(origin, along, centre, axis);
    if (!closest || closest.apart > radius * 0.95) return false;
    const ends = pointsOf(body, index).map((point) => dot(subtract(point, origin), out));
    const reach = ends.reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY);
    return Math.abs(reach - farthest) < BEYOND && coneOut(body, index, out);
  });
  if (cope) {
    const { axis, centre, radius } = cope.surface;
    return { end: { kind: "cope", z: side * farthest, axis, centre, radius }, faces: [cope.index] };
  }
  return { end: { kind: "complex", z: side * farthest }, faces: [] };
}

const clean = (value: number) => (Math.abs(value) < 1e-9 ? 0 : value);

/** Whether the triangles of a surface look out of an end on the whole. */
function coneOut(body: Body, index: number, out: Vec3): boolean {
  const sum = at(body.surfaces, index).triangles.reduce((all, t) => {
    const [a, b, c] = at(body.triangles, t).corners;
    const area = cross(
      subtract(at(body.points, b), at(body.points, a)),
      subtract(at(body.points, c), at(body.points, a)),
    );
    return all + dot(area, out);
  }, 0);
  return sum > 0;
}

/** Where on the first of two lines they come nearest, and how near; null: they are parallel. */
export function nearest(
  a: Vec3,
  along: Vec3,
  b: Vec3,
  other: Vec3,
): { readonly z: number; readonly apart: number } | null {
  const square = cross(along, other);
  const size = norm(square);
  if (size < 1e-6) return null;
  const between = subtract(b, a);
  return {
    z: dot(cross(between, other), square) / (size * size),
    apart: Math.abs(dot(between, square)) / size,
  };
}

/** Whether every corner lies within the box of the section. */
function isWithin(body: Body, shape: SectionShape, { origin, x, y }: MemberFrame): boolean {
  const { extent, boxCentre } = sectionProperties(shape);
  return body.points.every((point) => {
    const from = subtract(point, origin);
    return (
      Math.abs(dot(from, x) - boxCentre[0]) <= extent[0] / 2 + BEYOND &&
      Math.abs(dot(from, y) - boxCentre[1]) <= extent[1] / 2 + BEYOND
    );
  });
}
