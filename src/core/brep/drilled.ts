/** Round holes and slots in a body by its borders, exact where they go square through flat faces. */
import { add, cross, direction, dot, norm, scale, subtract, type Vec3 } from "../geometry";
import { at } from "../kernel";
import {
  type Brep,
  type BrepCurve,
  type BrepEdge,
  type BrepFace,
  type BrepSurface,
  type BrepUse,
  middleOfEdge,
} from "./brep";
import { isWithin } from "./flat";

export type Drilling = {
  /** A point of its axis, outside the body, and the way that the drill goes. */
  readonly from: Vec3;
  readonly way: Vec3;
  readonly radius: number;
  /** From the middle of a slot to that of its round end, square to the way; null: it is round. */
  readonly slot: Vec3 | null;
  /** Through the wall that is met first, through all, or so deep. */
  readonly to: "first" | "all" | number;
};

/** The border of a hole at one depth: its corners, and its edges from each to the next. */
type Ring = { readonly corners: readonly number[]; readonly edges: readonly number[] };

/** mm. A hole comes no nearer to the border of a face. */
const CLEAR = 1e-4;

/** The body with a hole; null: it would cut the border of a face, or meet one at a slant. */
export function drilled(brep: Brep, { from, way, radius, slot, to }: Drilling): Brep | null {
  // A slot is looked at from so many places of its middle line that none of its border is farther than its width from all of them.
  const steps = slot ? Math.ceil((16 * norm(slot)) / radius) : 0;
  const apart = slot ? (2 * norm(slot)) / steps : 0;
  const wide = radius + apart / 2 + CLEAR;
  const placesAbout = (place: Vec3): readonly Vec3[] =>
    slot
      ? Array.from({ length: steps + 1 }, (_, i) => add(place, scale(slot, (2 * i) / steps - 1)))
      : [place];
  type Met = { readonly face: number; readonly depth: number; readonly into: boolean };
  const met: Met[] = [];
  for (const [face, { surface, loops }] of brep.faces.entries()) {
    if (surface.kind !== "plane") continue;
    const lean = dot(surface.normal, way);
    if (Math.abs(lean) < 1 - 1e-9) {
      // A slanted or upright face in the way: the border of the hole would be no circle.
      if (Math.abs(lean) > 1e-9) {
        const depth = dot(subtract(surface.on, from), surface.normal) / lean;
        const place = add(from, scale(way, depth));
        const isMet = placesAbout(place).some((one) => reachTo(brep, loops, one, surface.normal) !== null);
        if (depth > 0 && isMet) return null;
      }
      continue;
    }
    const depth = dot(subtract(surface.on, from), way);
    const place = add(from, scale(way, depth));
    const isNear = () => placesAbout(place).some((one) => borderDistance(brep, loops, one) < wide);
    if (reachTo(brep, loops, place, surface.normal) === null) {
      // The axis misses the face: its border must not reach into the hole.
      if (depth > 0 && isNear()) return null;
      continue;
    }
    if (isNear()) return null;
    met.push({ face, depth, into: lean < 0 });
  }
  met.sort((a, b) => a.depth - b.depth);
  if (met.length === 0 || met.length % 2 === 1 || met.some(({ into }, i) => into !== (i % 2 === 0)))
    return null;
  const last = typeof to === "number" || to === "first" ? 2 : met.length;
  const points = [...brep.points];
  const edges: BrepEdge[] = [...brep.edges];
  const faces: BrepFace[] = [...brep.faces];
  const p = direction(slot ?? cross(way, Math.abs(way[0]) < 0.6 ? [1, 0, 0] : [0, 1, 0])) ?? [1, 0, 0];
  const q = cross(way, p);
  const half = slot ? norm(slot) : 0;
  /** Two half circles at a depth, anticlockwise about the way, with two lines between those of a slot. */
  const ringAt = (depth: number): Ring => {
    const centre = add(from, scale(way, depth));
    const on = (along: number, across: number) => add(centre, add(scale(p, along), scale(q, across)));
    const arc = (along: number): BrepCurve => ({
      kind: "ellipse",
      centre: on(along, 0),
      normal: way,
      major: p,
      long: radius,
      short: radius,
      ahead: true,
    });
    const [one, other, line] = [arc(half), arc(-half), { kind: "line" } as const];
    const parts: readonly (readonly [Vec3, BrepCurve])[] = slot
      ? [
          [on(half, -radius), one],
          [on(half, radius), line],
          [on(-half, radius), other],
          [on(-half, -radius), line],
        ]
      : [
          [on(0, -radius), one],
          [on(0, radius), other],
        ];
    const corners = parts.map(([place]) => points.push(place) - 1);
    const run = parts.map(
      ([, curve], i) =>
        edges.push({ from: at(corners, i), to: at(corners, (i + 1) % corners.length), curve }) - 1,
    );
    return { corners, edges: run };
  };
  /** Of a part of the ring the wall over it. */
  const wallOver = (edge: number): BrepSurface => {
    const { from: first, to: last, curve } = at(edges, edge);
    if (curve.kind === "ellipse")
      return { kind: "cylinder", on: curve.centre, axis: way, radius, outwards: false };
    const along = direction(subtract(at(points, last), at(points, first))) ?? p;
    return { kind: "plane", on: at(points, first), normal: cross(way, along) };
  };
  const ahead = (ring: Ring): BrepUse[] => ring.edges.map((edge) => ({ edge, ahead: true }));
  const back = (ring: Ring): BrepUse[] => ring.edges.toReversed().map((edge) => ({ edge, ahead: false }));
  const open = (face: number, loop: readonly BrepUse[]) => {
    const before = at(faces, face);
    faces[face] = { ...before, loops: [...before.loops, loop] };
  };
  for (let i = 0; i < last; i += 2) {
    const [enter, leave] = [at(met, i), at(met, i + 1)];
    const isBlind = typeof to === "number" && enter.depth + to < leave.depth - CLEAR;
    const top = ringAt(enter.depth);
    const foot = ringAt(isBlind ? enter.depth + to : leave.depth);
    // The face that is entered looks against the way: seen from outside the way's anticlockwise is clockwise.
    open(enter.face, ahead(top));
    if (isBlind)
      faces.push({
        surface: { kind: "plane", on: add(from, scale(way, enter.depth + to)), normal: scale(way, -1) },
        loops: [back(foot)],
      });
    else open(leave.face, back(foot));
    const uprights = top.corners.map(
      (corner, k) => edges.push({ from: corner, to: at(foot.corners, k), curve: { kind: "line" } }) - 1,
    );
    for (const [k, edge] of top.edges.entries())
      faces.push({
        surface: wallOver(edge),
        loops: [
          [
            { edge: at(foot.edges, k), ahead: true },
            { edge: at(uprights, (k + 1) % uprights.length), ahead: false },
            { edge, ahead: false },
            { edge: at(uprights, k), ahead: true },
          ],
        ],
      });
  }
  return { points, edges, faces, isFaceted: brep.isFaceted };
}

/** The corners of a loop, with the middles of its curved edges. */
const cornersOf = (brep: Brep, loop: readonly BrepUse[]): readonly Vec3[] =>
  loop.flatMap(({ edge, ahead }) => {
    const one = at(brep.edges, edge);
    const first = at(brep.points, ahead ? one.from : one.to);
    return one.curve.kind === "line" ? [first] : [first, middleOfEdge(brep, one)];
  });

/** How far a place in a face is from its border; null: it lies outside. */
function reachTo(brep: Brep, loops: BrepFace["loops"], place: Vec3, normal: Vec3): number | null {
  const isInside = loops.every((loop, i) => isWithin(place, cornersOf(brep, loop), normal) === (i === 0));
  return isInside ? borderDistance(brep, loops, place) : null;
}

/** The greatest way from a pole to the next. */
const stepOf = (poles: readonly Vec3[]): number =>
  poles.slice(1).reduce((most, pole, i) => Math.max(most, norm(subtract(pole, at(poles, i)))), 0);

function borderDistance(brep: Brep, loops: BrepFace["loops"], place: Vec3): number {
  return loops.flat().reduce((least, { edge }) => {
    const one = at(brep.edges, edge);
    if (one.curve.kind === "spline") {
      // Its poles hold all of it.
      const { poles } = one.curve;
      return Math.min(least, ...poles.map((pole) => norm(subtract(place, pole)) - stepOf(poles)));
    }
    if (one.curve.kind !== "line") {
      // Half circles of other holes: nothing of them lies nearer than their circle.
      const { centre, long, short } = one.curve;
      const away = norm(subtract(place, centre));
      return Math.min(least, away > long ? away - long : Math.max(0, short - away));
    }
    const [a, b] = [at(brep.points, one.from), at(brep.points, one.to)];
    const way = subtract(b, a);
    const size = dot(way, way);
    const share = size === 0 ? 0 : Math.min(1, Math.max(0, dot(subtract(place, a), way) / size));
    return Math.min(least, norm(subtract(place, add(a, scale(way, share)))));
  }, Number.POSITIVE_INFINITY);
}
