/** Notches right across an end of a member: floors along it that look out of its sides, each with a shoulder square to it. */
import { dot, ringOf, sharedArea, subtract, type Vec2, type Vec3 } from "../geometry";
import { type SectionShape, sectionProperties } from "../stockroom";
import type { Body } from "./body";
import { pointsOf } from "./member-holes";
import type { SeatedSection } from "./section";
import type { PlaneSurface } from "./surface";

export type MemberNotch = {
  readonly side: "start" | "end";
  /** Out of the side of the section that it is cut from. */
  readonly way: Vec3;
  readonly depth: number;
  /** Of its shoulder, along the member. */
  readonly z: number;
};

/** A plane that looks out of an end, and what of the section it shows. mm². */
export type FacingPlane = {
  readonly index: number;
  readonly surface: PlaneSurface;
  readonly share: number;
};

export type MemberFrame = { readonly origin: Vec3; readonly x: Vec3; readonly y: Vec3; readonly along: Vec3 };

/** Cosines: a plane whose normal is nearer to a direction looks that way. */
const SAME_WAY = 1 - 1e-9;
/** mm. */
const SAME = 0.02;
const LEAST_DEPTH = 0.05;

type Floor = {
  readonly index: number;
  readonly way: Vec3;
  readonly across: Vec2;
  readonly level: number;
  /** Where it ends within the member, counted outwards. */
  readonly inner: number;
};

/**
 * The notches at an end with one or two outermost planes, `ends`; null: none, or what stands there is no notch right across. Proven by areas: what
 * each shoulder shows of the section is what its floors cut off, what the planes show is what they all leave.
 */
export function notchesAt(
  body: Body,
  { shape, surfaces }: Pick<SeatedSection, "shape" | "surfaces">,
  frame: MemberFrame,
  side: 1 | -1,
  ends: readonly FacingPlane[],
  facing: readonly FacingPlane[],
): { readonly notches: readonly MemberNotch[]; readonly faces: readonly number[] } | null {
  const out: Vec3 = [side * frame.along[0], side * frame.along[1], side * frame.along[2]];
  const base = dot(frame.origin, out);
  const shoulders = facing.flatMap(({ index, surface, share }) =>
    ends.every((end) => end.index !== index) && dot(surface.normal, out) > SAME_WAY
      ? [{ index, share, reach: surface.offset - base }]
      : [],
  );
  if (shoulders.length === 0) return null;
  const floors = body.surfaces.flatMap(({ surface }, index): readonly Floor[] => {
    if (surfaces.has(index) || surface.kind !== "plane") return [];
    const across: Vec2 = [dot(surface.normal, frame.x), dot(surface.normal, frame.y)];
    const k = ([0, 1] as const).find((one) => Math.abs(across[one]) > SAME_WAY);
    if (k === undefined) return [];
    const inner = pointsOf(body, index).reduce(
      (least, point) => Math.min(least, dot(subtract(point, frame.origin), out)),
      Number.POSITIVE_INFINITY,
    );
    if (!shoulders.some(({ reach }) => Math.abs(reach - inner) < SAME)) return [];
    const sign = Math.sign(across[k]);
    const way: Vec2 = k === 0 ? [sign, 0] : [0, sign];
    const level = surface.offset - dot(surface.normal, frame.origin);
    return [{ index, way: surface.normal, across: way, level, inner }];
  });
  const used = shoulders.filter(({ reach }) => floors.some(({ inner }) => Math.abs(reach - inner) < SAME));
  if (floors.length === 0) return null;
  const { areaMm2 } = sectionProperties(shape);
  const left = (from: number) =>
    areaLeft(
      shape,
      floors.filter(({ inner }) => inner < from),
    );
  const isProven =
    Math.abs(ends.reduce((sum, { share }) => sum + share, 0) - left(Number.POSITIVE_INFINITY)) <
      0.01 * areaMm2 + 1 &&
    used.every(
      ({ share, reach }) => Math.abs(share - (left(reach - SAME) - left(reach + SAME))) < 0.01 * areaMm2 + 1,
    );
  if (!isProven) return null;
  const notches = floors.map(({ way, across, level, inner }): MemberNotch => {
    const { boxCentre, extent } = sectionProperties(shape);
    const edge =
      boxCentre[0] * across[0] +
      boxCentre[1] * across[1] +
      (Math.abs(across[0]) * extent[0] + Math.abs(across[1]) * extent[1]) / 2;
    return { side: side === 1 ? "end" : "start", way, depth: edge - level, z: side * inner };
  });
  if (notches.some(({ depth }) => depth < LEAST_DEPTH)) return null;
  return {
    notches,
    faces: [
      ...ends.map(({ index }) => index),
      ...floors.map(({ index }) => index),
      ...used.map(({ index }) => index),
    ],
  };
}

/** mm². What floors leave of a section. */
function areaLeft(shape: SectionShape, floors: readonly Floor[]): number {
  const { loops, boxCentre, extent } = sectionProperties(shape);
  const low: [number, number] = [boxCentre[0] - extent[0], boxCentre[1] - extent[1]];
  const high: [number, number] = [boxCentre[0] + extent[0], boxCentre[1] + extent[1]];
  for (const { across, level } of floors) {
    const k = across[0] === 0 ? 1 : 0;
    if (across[k] > 0) high[k] = Math.min(high[k], level);
    else low[k] = Math.max(low[k], -level);
  }
  if (low[0] >= high[0] || low[1] >= high[1]) return 0;
  const box: readonly Vec2[] = [low, [high[0], low[1]], high, [low[0], high[1]]];
  // The outer loop, less its holes.
  return loops.reduce((sum, loop, i) => {
    const polygon = ringOf(loop, { step: Math.PI / 24 }).points.map((point) => point.at);
    return sum + (i === 0 ? 1 : -1) * sharedArea(polygon, box);
  }, 0);
}
