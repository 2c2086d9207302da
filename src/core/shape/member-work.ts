/** Holes and notches of members: from formulas to places in the member's own axes, what should be looked at, and what they take out. */
import { kindOf, tipOf } from "../ends";
import { type BodySide, dot2, type Polygon, ringOf, type Vec2, type Vec3 } from "../geometry";
import {
  lengthWith,
  type MemberFace,
  type MemberHole,
  type MemberNotch,
  type MemberWork,
  type Sizes,
} from "../job";
import { at, err, ok, type Result, remembersEach } from "../kernel";
import { type LengthStyle, sayLength } from "../measure";
import { type SectionProperties, type SectionShape, sectionProperties } from "../stockroom";
import type { EndSide } from "./bar";
import { endHeight, type MemberEnd, type SolidEnds } from "./ends";
import { type ShapeFault, textFault } from "./fault";
import { wholeCount } from "./places";

/** One hole where it begins: on the outer box of the section, `outwards` of it, at `z` along the member. mm. */
export type MemberHoleSolid = {
  readonly id: string;
  readonly face: MemberFace;
  readonly outwards: Vec2;
  readonly begins: Vec2;
  readonly z: number;
  /** From the middle of its face. */
  readonly across: number;
  readonly diameter: number;
  /** Its length over all along the member: the diameter where it is round. */
  readonly slot: number;
  readonly walls: "one" | "all";
};

/** A notch right across an end: `depth` in from a face, from `inner` on to the tip. */
export type MemberNotchSolid = {
  readonly id: string;
  readonly end: EndSide;
  readonly face: MemberFace;
  readonly outwards: Vec2;
  readonly depth: number;
  readonly length: number;
  /** Along z, where it ends in the member. */
  readonly inner: number;
};

export type MemberWorkSolid = {
  readonly holes: readonly MemberHoleSolid[];
  readonly notches: readonly MemberNotchSolid[];
  /** Where the tips of both ends stand along z. */
  readonly tips: Vec2;
};

const OUTWARDS: Readonly<Record<MemberFace, Vec2>> = {
  top: [0, 1],
  bottom: [0, -1],
  right: [1, 0],
  left: [-1, 0],
};

const MOST_HOLES = 500;

/** Where the tips of a member's ends stand. */
function tipsOf({ start, end, entry: { shape } }: SolidEnds): Vec2 {
  return [start.z - tipOf(shape, start.form), end.z + tipOf(shape, end.form)];
}

/** What an end is cut back to fit up to another member. */
type Fitted = {
  readonly side: EndSide;
  readonly face: MemberFace;
  readonly depth: number;
  readonly length: number;
};

/** The work of a member whose ends are cut; `fitted` comes from how they are cut. */
export function resolveWork(
  work: readonly MemberWork[],
  ends: SolidEnds,
  sizes: Sizes,
  fitted: readonly Fitted[] = [],
): Result<MemberWorkSolid, ShapeFault> {
  const tips = tipsOf(ends);
  const holes: MemberHoleSolid[] = [];
  const notches: MemberNotchSolid[] = fitted.map(({ side, face, depth, length }, i) =>
    notchAt({ id: `fit ${i + 1}`, end: side, face }, depth, length, tips),
  );
  for (const one of work) {
    if (one.kind === "hole") {
      const found = resolveHoles(one, { tips, shape: ends.entry.shape }, sizes);
      if (!found.ok) return found;
      holes.push(...found.value);
    } else {
      const found = resolveNotch(one, tips, sizes);
      if (!found.ok) return found;
      notches.push(found.value);
    }
  }
  return ok({ holes, notches, tips });
}

type Ground = { readonly tips: Vec2; readonly shape: SectionShape };

function resolveHoles(
  hole: MemberHole,
  { tips: [first, last], shape }: Ground,
  sizes: Sizes,
): Result<readonly MemberHoleSolid[], ShapeFault> {
  const read: number[] = [];
  for (const field of ["along", "across", "diameter", "slot", "step"] as const) {
    const value = lengthWith(sizes, hole[field]);
    if (!value.ok) return err(textFault("hole", value.problem));
    read.push(value.value);
  }
  const count = wholeCount(sizes, hole.count, MOST_HOLES, "holeCount");
  if (!count.ok) return count;
  const [along = 0, across = 0, diameter = 0, slot = 0, step = 0] = read;
  const { boxCentre, extent } = sectionProperties(shape);
  const outwards = OUTWARDS[hole.face];
  // Along the face: to the right on top and bottom, upwards on the sides.
  const aside: Vec2 = outwards[0] === 0 ? [1, 0] : [0, 1];
  const begins: Vec2 = [0, 1].map(
    (i) => at(boxCentre, i) + (at(outwards, i) * at(extent, i)) / 2 + at(aside, i) * across,
  ) as unknown as Vec2;
  const from = { start: first, end: last, middle: (first + last) / 2 }[hole.from];
  const inwards = hole.from === "end" ? -1 : 1;
  return ok(
    Array.from({ length: count.value }, (_, i) => ({
      id: hole.id,
      face: hole.face,
      outwards,
      begins,
      z: from + inwards * (along + i * step),
      across,
      diameter,
      slot: Math.max(slot, diameter),
      walls: hole.walls,
    })),
  );
}

function resolveNotch(notch: MemberNotch, tips: Vec2, sizes: Sizes): Result<MemberNotchSolid, ShapeFault> {
  const depth = lengthWith(sizes, notch.depth);
  if (!depth.ok) return err(textFault("notch", depth.problem));
  const length = lengthWith(sizes, notch.length);
  if (!length.ok) return err(textFault("notch", length.problem));
  return ok(notchAt(notch, depth.value, length.value, tips));
}

function notchAt(
  { id, end, face }: Pick<MemberNotch, "id" | "end" | "face">,
  depth: number,
  length: number,
  [first, last]: Vec2,
): MemberNotchSolid {
  const inner = end === "start" ? first + length : last - length;
  return { id, end, face, outwards: OUTWARDS[face], depth, length, inner };
}

const flatLoops = remembersEach<SectionProperties["loops"], readonly Polygon[]>();
const polygonsOf = ({ loops }: SectionProperties) =>
  flatLoops(loops, [], () =>
    loops.map((loop) => ringOf(loop, { step: Math.PI / 64 }).points.map((one) => one.at)),
  );

/** The depths under its face at which the middle of a hole goes into a wall and comes out of it, in pairs; mm. */
export function wallsMet(
  shape: SectionShape,
  { begins, outwards }: Pick<MemberHoleSolid, "begins" | "outwards">,
) {
  const depths: number[] = [];
  const along: Vec2 = [outwards[1], -outwards[0]];
  const place = (p: Vec2) => ({
    aside: dot2(p, along) - dot2(begins, along),
    deep: dot2(begins, outwards) - dot2(p, outwards),
  });
  for (const polygon of polygonsOf(sectionProperties(shape)))
    polygon.forEach((corner, i) => {
      const [a, b] = [place(corner), place(at(polygon, (i + 1) % polygon.length))];
      if (a.aside > 0 === b.aside > 0) return;
      depths.push(a.deep + ((b.deep - a.deep) * a.aside) / (a.aside - b.aside));
    });
  return depths.sort((p, q) => p - q);
}

/** Least distance from the middle of a hole to an edge, in diameters: EN 1993-1-8, table 3.3 (1.2 d₀; of slots 1.5 d₀), from memory. */
const LEAST_EDGE = { round: 1.2, slot: 1.5 } as const;

/** What should be looked at: each told once. */
export function workRemarks(work: MemberWorkSolid, ends: SolidEnds, style: LengthStyle): readonly string[] {
  const remarks = new Set<string>();
  for (const hole of work.holes) {
    const remark = holeRemark(hole, ends, style);
    if (remark) remarks.add(remark);
  }
  const { extent } = sectionProperties(ends.entry.shape);
  for (const { depth, length, outwards } of work.notches) {
    const deepest = outwards[0] === 0 ? extent[1] : extent[0];
    if (depth <= 0 || length <= 0) remarks.add("a notch has no size");
    else if (depth >= deepest) remarks.add("a notch is as deep as the section; shorten the member instead");
    else if (length >= work.tips[1] - work.tips[0]) remarks.add("a notch is as long as the member");
  }
  return [...remarks];
}

function holeRemark(hole: MemberHoleSolid, ends: SolidEnds, style: LengthStyle): string | null {
  const { diameter, slot, across, z, outwards, begins } = hole;
  const { shape } = ends.entry;
  if (diameter <= 0) return "a hole has no diameter";
  const walls = wallsMet(shape, hole);
  if (walls.length === 0) return "a hole misses the section";
  const { extent } = sectionProperties(shape);
  const side = (outwards[0] === 0 ? extent[0] : extent[1]) / 2 - Math.abs(across);
  const ground: Vec2 = [begins[0] - outwards[0] * at(walls, 0), begins[1] - outwards[1] * at(walls, 0)];
  const [low, high] = [heightAt(ends, "start", ground), heightAt(ends, "end", ground)];
  const half = (slot - diameter) / 2;
  const end = Math.min(z - half - low, high - z - half);
  if (end < diameter / 2) return "a hole lies on or beyond an end";
  if (side < diameter / 2) return "a hole lies on or beyond the edge of its face";
  const least = (slot > diameter ? LEAST_EDGE.slot : LEAST_EDGE.round) * diameter;
  if (Math.min(end, side) < least)
    return `a hole ${sayLength(diameter, style)} wide is nearer to an edge than ${sayLength(least, style)}`;
  return null;
}

const heightAt = (ends: SolidEnds, side: EndSide, point: Vec2) =>
  endHeight(side, ends[side] as MemberEnd, ends.entry.shape)(point);

/** Corners of a round hole: as many as a circle of the drawing has. */
const cornersOf = (step: number) => 4 * Math.max(2, Math.ceil(Math.PI / 2 / step));

/** The bodies that the work of a member takes out of it, in its own axes; holes as polygons of steps no larger. */
export function bodiesOfWork(
  { holes, notches, tips }: MemberWorkSolid,
  shape: SectionShape,
  step: number,
): readonly (readonly BodySide[])[] {
  return [
    ...holes.flatMap((hole, i) => {
      const walls = wallsMet(shape, hole);
      return hole.diameter > 0 && walls.length > 0 ? [drill(hole, walls, cornersOf(step), i)] : [];
    }),
    ...notches.flatMap((notch) =>
      notch.depth > 0 && notch.length > 0 ? [notchBody(notch, tips, shape)] : [],
    ),
  ];
}

function drill(
  { begins, outwards, z, diameter, slot, walls: through, id }: MemberHoleSolid,
  walls: readonly number[],
  corners: number,
  number: number,
): readonly BodySide[] {
  const aside: Vec2 = [outwards[1], -outwards[0]];
  const name = `hole ${id} ${number + 1}`;
  const radius = diameter / 2;
  const half = (slot - diameter) / 2;
  const sides = Array.from({ length: corners }, (_, i): BodySide => {
    const angle = (2 * Math.PI * (i + 0.5)) / corners;
    const [across, along] = [Math.cos(angle), Math.sin(angle)];
    const normal: Vec3 = [aside[0] * across, aside[1] * across, along];
    // A slot is a circle whose halves stand apart along the member.
    const middle: Vec3 = [begins[0], begins[1], z + Math.sign(along) * half];
    const offset = normal[0] * middle[0] + normal[1] * middle[1] + normal[2] * middle[2];
    return { normal, offset: offset + radius * Math.cos(Math.PI / corners), name };
  });
  // The straight sides of a slot.
  if (half > 0)
    for (const sign of [1, -1] as const) {
      const normal: Vec3 = [sign * aside[0], sign * aside[1], 0];
      sides.push({ normal, offset: normal[0] * begins[0] + normal[1] * begins[1] + radius, name });
    }
  const [, out, next] = walls;
  if (through === "all" || out === undefined || next === undefined) return sides;
  // Half-way through the room behind the first wall.
  const deepest = (out + next) / 2;
  const normal: Vec3 = [-outwards[0], -outwards[1], 0];
  return [...sides, { normal, offset: normal[0] * begins[0] + normal[1] * begins[1] + deepest, name }];
}

/** mm. What is open reaches so far beyond the member. */
const BEYOND = 10;

/** How far out along the face that it is cut from a notch begins: what stands further out is cut back. */
export function notchLevel(
  { outwards, depth }: Pick<MemberNotchSolid, "outwards" | "depth">,
  shape: SectionShape,
): number {
  const { boxCentre, extent } = sectionProperties(shape);
  return dot2(boxCentre, outwards) + Math.abs(dot2(extent, outwards)) / 2 - depth;
}

function notchBody(notch: MemberNotchSolid, [first, last]: Vec2, shape: SectionShape): readonly BodySide[] {
  const { id, end, outwards, depth, inner } = notch;
  const level = notchLevel(notch, shape);
  const out: Vec3 = [outwards[0], outwards[1], 0];
  const along: Vec3 = [0, 0, end === "start" ? -1 : 1];
  const name = `notch ${id}`;
  return [
    { normal: out, offset: level + depth + BEYOND, name: `${name} open` },
    { normal: [-out[0], -out[1], 0], offset: -level, name: `${name} floor` },
    { normal: along, offset: (end === "start" ? -first : last) + BEYOND, name: `${name} open` },
    { normal: [0, 0, -along[2]], offset: end === "start" ? inner : -inner, name: `${name} wall` },
  ];
}

/** The middle of all that the saw leaves, which exchanging both ends does not move: pieces are compared from there. */
export function middleOf({ start, end, entry: { shape } }: SolidEnds): number {
  const mean = ({ form }: MemberEnd) => kindOf(form).mean(form, shape);
  return (start.z - mean(start) + end.z + mean(end)) / 2;
}
