/** Round holes in a body by its borders, exact where they go square through flat faces. */
import { add, cross, direction, dot, norm, scale, subtract, type Vec3 } from "../geometry";
import { at } from "../kernel";
import { type Brep, type BrepCurve, type BrepEdge, type BrepFace, type BrepUse, middleOfEdge } from "./brep";
import { isWithin } from "./flat";

export type Drilling = {
  /** A point of its axis, outside the body, and the way that the drill goes. */
  readonly from: Vec3;
  readonly way: Vec3;
  readonly radius: number;
  /** Through the wall that is met first, through all, or so deep. */
  readonly to: "first" | "all" | number;
};

/** mm. A hole comes no nearer to the border of a face. */
const CLEAR = 1e-4;

/** The body with a hole; null: it would cut the border of a face, or meet one at a slant. */
export function drilled(brep: Brep, { from, way, radius, to }: Drilling): Brep | null {
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
        if (depth > 0 && reachTo(brep, loops, place, surface.normal) !== null) return null;
      }
      continue;
    }
    const depth = dot(subtract(surface.on, from), way);
    const place = add(from, scale(way, depth));
    const clear = reachTo(brep, loops, place, surface.normal);
    if (clear === null) {
      // The axis misses the face: its border must not reach into the hole.
      if (borderDistance(brep, loops, place) < radius + CLEAR && depth > 0) return null;
      continue;
    }
    if (clear < radius + CLEAR) return null;
    met.push({ face, depth, into: lean < 0 });
  }
  met.sort((a, b) => a.depth - b.depth);
  if (met.length === 0 || met.length % 2 === 1 || met.some(({ into }, i) => into !== (i % 2 === 0)))
    return null;
  const last = typeof to === "number" || to === "first" ? 2 : met.length;
  const points = [...brep.points];
  const edges: BrepEdge[] = [...brep.edges];
  const faces: BrepFace[] = [...brep.faces];
  const u = direction(cross(way, Math.abs(way[0]) < 0.6 ? [1, 0, 0] : [0, 1, 0])) ?? [1, 0, 0];
  /** Two half circles at a depth, anticlockwise about the way. */
  const ringAt = (depth: number) => {
    const centre = add(from, scale(way, depth));
    const ends = [1, -1].map((side) => points.push(add(centre, scale(u, side * radius))) - 1) as [
      number,
      number,
    ];
    const curve: BrepCurve = {
      kind: "ellipse",
      centre,
      normal: way,
      major: u,
      long: radius,
      short: radius,
      ahead: true,
    };
    const [a, b] = ends;
    const halves = [
      edges.push({ from: a, to: b, curve }) - 1,
      edges.push({ from: b, to: a, curve }) - 1,
    ] as const;
    return { ends, halves };
  };
  const ahead = (halves: readonly number[]): BrepUse[] => halves.map((edge) => ({ edge, ahead: true }));
  const back = (halves: readonly number[]): BrepUse[] =>
    halves.toReversed().map((edge) => ({ edge, ahead: false }));
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
    open(enter.face, ahead(top.halves));
    if (isBlind)
      faces.push({
        surface: { kind: "plane", on: add(from, scale(way, enter.depth + to)), normal: scale(way, -1) },
        loops: [back(foot.halves)],
      });
    else open(leave.face, back(foot.halves));
    const uprights = ([0, 1] as const).map(
      (k) => edges.push({ from: top.ends[k], to: foot.ends[k], curve: { kind: "line" } }) - 1,
    ) as [number, number];
    for (const k of [0, 1] as const)
      faces.push({
        surface: { kind: "cylinder", on: from, axis: way, radius, outwards: false },
        loops: [
          [
            { edge: at(foot.halves, k), ahead: true },
            { edge: uprights[1 - k] as number, ahead: false },
            { edge: at(top.halves, k), ahead: false },
            { edge: uprights[k], ahead: true },
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
