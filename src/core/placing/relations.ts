/**
 * What a drawing tells of the places of bodies without a number: faces that meet or lie in line at a joint, ends that are cut
 * to fit, what stands on the floor. Each relation holds one body to another in some directions.
 *
 * Pieces that are centred, equally far apart or symmetric only look so; nothing says that they are, so it does not count.
 */
import {
  add,
  boxOfPoints,
  cross,
  dot,
  norm,
  type PlaneBox,
  polygonArea,
  scale,
  sharedArea,
  subtract,
  toWorld,
  type Vec2,
  type Vec3,
} from "../geometry";
import { addTo, at } from "../kernel";
import type { Body, Flat } from "./bodies";

/** mm². Faces that share less only touch at an edge. */
const LEAST_AREA = 20;
/** mm. Planes that are nearer are one: what formulas of one design differ by. */
const ONE_PLANE = 0.05;
/** mm. Play that a groove leaves what stands in it. */
const GROOVE_PLAY = 2;
/** mm. The widest gap for a weld between an end and what it is cut against. */
const WIDEST_GAP = 10;
/** mm. Faces that lie in line count where they come so near to one another: a weld gap, a rounded corner. */
const BESIDE = 5;
/** Of the area of each face that a joint covers where outlines fall on one another. */
const WHOLE = 0.98;

/** A point of both bodies that cannot move apart along a direction, in the axes of their home. */
export type Hold = { readonly at: Vec3; readonly along: Vec3 };

export type Relation = {
  /** Faces on one another, outlines on one another, faces in line at a joint, like pieces in line, a saddle, on the floor. */
  readonly kind: "meets" | "fits" | "inLine" | "alike" | "cope" | "floor";
  /** Numbers of bodies; the floor is −1. */
  readonly a: number;
  readonly b: number;
  readonly holds: readonly Hold[];
  /** The faces that it is read from; none of copes. */
  readonly faces: readonly [string, string] | null;
};

/** Number of the floor among bodies: it only has a height. */
export const FLOOR = -1;

/** An end of a member that is cut to fit another: its body, that of the neighbour, and where both meet. */
export type Declared = {
  readonly a: number;
  readonly b: number;
  readonly side: "start" | "end";
  /** Of round ends: points of the saddle with the directions in which they lie on the neighbour. */
  readonly saddle: readonly Hold[];
};

type Lying = {
  readonly body: number;
  readonly flat: Flat;
  readonly box: PlaneBox;
  readonly parts: readonly (readonly Vec2[])[];
};

/** Faces of one direction or the opposite one. */
type Direction = {
  readonly normal: Vec3;
  readonly u: Vec3;
  readonly w: Vec3;
  readonly out: Lying[];
  readonly back: Lying[];
};

/** All relations between bodies of a home; `onFloor`: what lies lowest stands on the floor. */
export function relationsOf(
  bodies: readonly Body[],
  declared: readonly Declared[],
  onFloor: boolean,
): readonly Relation[] {
  const directions = directionsOf(bodies);
  const cutTo = new Map<string, Declared[]>();
  for (const one of declared) {
    const key = pairKey(one.a, one.b);
    addTo(cutTo, key, one);
  }
  const met = directions.flatMap((direction) => meetings(direction, cutTo));
  const copes = declared.flatMap(({ a, b, saddle }): Relation[] =>
    saddle.length === 0 ? [] : [{ kind: "cope", a, b, holds: saddle, faces: null }],
  );
  const joined = new Set([...met, ...copes].map(({ a, b }) => pairKey(a, b)));
  const inLine = directions.flatMap((direction) =>
    [direction.out, direction.back].flatMap((side) => facesInLine(direction, side, joined)),
  );
  const alike = directions.flatMap((direction) =>
    [direction.out, direction.back].flatMap((side) => likeInLine(direction, side, bodies)),
  );
  return [...met, ...copes, ...(onFloor ? floorOf(bodies) : []), ...inLine, ...alike];
}

const pairKey = (a: number, b: number): string => (a < b ? `${a} ${b}` : `${b} ${a}`);

/** Directions that differ by less are one. Sine. */
const SAME_DIRECTION = 1e-6;

function directionsOf(bodies: readonly Body[]): readonly Direction[] {
  const directions: Direction[] = [];
  // Most faces have one of a few directions: looked for among rounded ones first.
  const known = new Map<string, Direction>();
  for (const [body, { flats }] of bodies.entries())
    for (const flat of flats) {
      const sign = leading(flat.normal);
      const normal = scale(flat.normal, sign);
      const key = normal.map((one) => one.toFixed(5)).join(" ");
      let direction =
        known.get(key) ?? directions.find((one) => norm(cross(one.normal, normal)) < SAME_DIRECTION);
      if (!direction) {
        const u = unit(cross(Math.abs(normal[2]) < 0.9 ? [0, 0, 1] : [1, 0, 0], normal));
        direction = { normal, u, w: cross(normal, u), out: [], back: [] };
        directions.push(direction);
      }
      known.set(key, direction);
      const { u, w } = direction;
      const parts = flat.parts.map((part) => part.map((p): Vec2 => [dot(p, u), dot(p, w)]));
      const lying: Lying = { body, flat, parts, box: boxOfPoints(parts.flat()) };
      (dot(direction.normal, flat.normal) > 0 ? direction.out : direction.back).push(lying);
    }
  for (const { out, back } of directions)
    for (const side of [out, back]) side.sort((a, b) => a.box.x0 - b.box.x0);
  return directions;
}

/** 1, or −1 where the first part of a direction that is not nought is negative. */
function leading(normal: Vec3): 1 | -1 {
  const first = normal.find((part) => Math.abs(part) > SAME_DIRECTION) ?? 1;
  return first < 0 ? -1 : 1;
}

const unit = (v: Vec3): Vec3 => scale(v, 1 / norm(v));

/** Where a face lies along the direction of its kind. */
const levelOf = ({ flat }: Lying, { normal }: Direction): number =>
  dot(normal, flat.normal) > 0 ? flat.offset : -flat.offset;

/** Pairs of two lists whose boxes come within a distance, by a sweep over their left edges. */
function* near(
  first: readonly Lying[],
  second: readonly Lying[],
  within: number,
): Generator<readonly [Lying, Lying]> {
  const widest = Math.max(0, ...spansOf(second));
  let from = 0;
  for (const a of first) {
    while (from < second.length && at(second, from).box.x0 < a.box.x0 - widest - within) from++;
    for (let i = from; i < second.length; i++) {
      const b = at(second, i);
      if (b.box.x0 > a.box.x1 + within) break;
      if (b.box.x1 < a.box.x0 - within || b.box.y0 > a.box.y1 + within || b.box.y1 < a.box.y0 - within)
        continue;
      if (a.body !== b.body) yield [a, b];
    }
  }
}

function* spansOf(all: readonly Lying[]): Generator<number> {
  for (const { box } of all) yield box.x1 - box.x0;
}

/** Faces that lie on one another. */
function meetings(
  direction: Direction,
  cutTo: ReadonlyMap<string, readonly Declared[]>,
): readonly Relation[] {
  const found: Relation[] = [];
  for (const [a, b] of near(direction.out, direction.back, 0)) {
    const apart = Math.abs(levelOf(a, direction) - levelOf(b, direction));
    if (apart > WIDEST_GAP || apart > reachOf(a, b, cutTo)) continue;
    const shared = sharedOf(a, b);
    if (shared < LEAST_AREA) continue;
    const isWhole = shared > WHOLE * areaOf(a) && shared > WHOLE * areaOf(b);
    const spot = spotOf(direction, a, b);
    found.push({
      kind: isWhole ? "fits" : "meets",
      a: a.body,
      b: b.body,
      holds: isWhole ? fixedAt(direction, spot) : planeAt(direction, spot),
      faces: [a.flat.name, b.flat.name],
    });
  }
  return found;
}

/** How far apart two faces may lie and still meet. */
function reachOf(a: Lying, b: Lying, cutTo: ReadonlyMap<string, readonly Declared[]>): number {
  const isEnd = (one: Lying, { side, a: member }: Declared) => one.body === member && one.flat.of === side;
  const cut = (cutTo.get(pairKey(a.body, b.body)) ?? []).some((one) => isEnd(a, one) || isEnd(b, one));
  if (cut) return WIDEST_GAP;
  return a.flat.of === "groove" || b.flat.of === "groove" ? GROOVE_PLAY : ONE_PLANE;
}

const sharedOf = (a: Lying, b: Lying): number =>
  a.parts.reduce((sum, one) => sum + b.parts.reduce((all, other) => all + sharedArea(one, other), 0), 0);
const areaOf = (a: Lying): number => a.parts.reduce((sum, part) => sum + Math.abs(polygonArea(part)), 0);

/** The middle of what the boxes of two faces share. */
function spotOf(direction: Direction, a: Lying, b: Lying): Vec3 {
  const middle = (low: "x0" | "y0", high: "x1" | "y1") =>
    (Math.max(a.box[low], b.box[low]) + Math.min(a.box[high], b.box[high])) / 2;
  return toWorld(
    {
      origin: scale(direction.normal, levelOf(a, direction)),
      x: direction.u,
      y: direction.w,
      z: direction.normal,
    },
    [middle("x0", "x1"), middle("y0", "y1"), 0],
  );
}

/** mm. How far apart the points of a plane are taken that hold turns. */
const ARM = 500;

const beside = (p: Vec3, way: Vec3, by: number): Vec3 => add(p, scale(way, by));

/** Two planes that stay one: three points of it. */
const planeAt = ({ normal, u, w }: Direction, spot: Vec3): readonly Hold[] => [
  { at: spot, along: normal },
  { at: beside(spot, u, ARM), along: normal },
  { at: beside(spot, w, ARM), along: normal },
];

/** Outlines that fall on one another: nothing moves, nor turns in their plane. */
const fixedAt = (direction: Direction, spot: Vec3): readonly Hold[] => [
  ...planeAt(direction, spot),
  { at: spot, along: direction.u },
  { at: spot, along: direction.w },
  { at: beside(spot, direction.u, ARM), along: direction.w },
];

/** Faces that look the same way and lie in one plane, at a joint of their bodies. */
function facesInLine(
  direction: Direction,
  side: readonly Lying[],
  joined: ReadonlySet<string>,
): readonly Relation[] {
  const found: Relation[] = [];
  for (const [a, b] of near(side, side, BESIDE)) {
    if (a.body > b.body || !joined.has(pairKey(a.body, b.body))) continue;
    // What is cut into a panel is seen from its face alone.
    if (a.flat.of === "groove" || b.flat.of === "groove") continue;
    if (Math.abs(levelOf(a, direction) - levelOf(b, direction)) > ONE_PLANE) continue;
    const holds = planeAt(direction, spotOf(direction, a, b));
    found.push({ kind: "inLine", a: a.body, b: b.body, holds, faces: [a.flat.name, b.flat.name] });
  }
  return found;
}

/**
 * Like pieces that lie square with faces in one plane: the drawing shows them along one line. Each with the next. Of assemblies the
 * same face of both: what is within one may lie level with something else in another by chance.
 */
function likeInLine(
  direction: Direction,
  side: readonly Lying[],
  bodies: readonly Body[],
): readonly Relation[] {
  const last = new Map<string, { readonly one: Lying; readonly level: number }[]>();
  const found: Relation[] = [];
  for (const one of side) {
    const { like, turns, key } = at(bodies, one.body);
    if (turns.length > 0) continue;
    const level = levelOf(one, direction);
    // Within an assembly faces are told by the way to them, which begins with its own step.
    const kind = one.flat.name.startsWith(key) ? `${like} ${one.flat.name.slice(key.length)}` : like;
    const there = last.get(kind) ?? [];
    const i = there.findIndex((before) => Math.abs(before.level - level) < ONE_PLANE);
    const before = there[i]?.one;
    if (before && before.body !== one.body)
      found.push({
        kind: "alike",
        a: before.body,
        b: one.body,
        holds: planeAt(direction, spotOf(direction, before, one)),
        faces: [before.flat.name, one.flat.name],
      });
    if (i < 0) there.push({ one, level });
    else there[i] = { one, level };
    last.set(kind, there);
  }
  return found;
}

/** What stands on the floor: level faces at the foot of everything. */
function floorOf(bodies: readonly Body[]): readonly Relation[] {
  const lowest = bodies.reduce(
    (low, { flats }) =>
      flats.reduce(
        (all, { parts }) => parts.reduce((one, part) => part.reduce((z, p) => Math.min(z, p[2]), one), all),
        low,
      ),
    Number.POSITIVE_INFINITY,
  );
  return bodies.flatMap(({ flats }, i): Relation[] => {
    const foot = flats.find(
      ({ normal, offset }) => normal[2] < -1 + SAME_DIRECTION && -offset < lowest + ONE_PLANE,
    );
    if (!foot) return [];
    const spot = at(at(foot.parts, 0), 0);
    const along: Vec3 = [0, 0, 1];
    const holds = [spot, beside(spot, [1, 0, 0], ARM), beside(spot, [0, 1, 0], ARM)].map((p) => ({
      at: p,
      along,
    }));
    return [{ kind: "floor", a: FLOOR, b: i, holds, faces: [foot.name, foot.name] }];
  });
}

/**
 * What of a relation holds in the same bodies of another size: null where nothing does. What is not there then says nothing
 * against it.
 */
export function lastingPart(
  relation: Relation,
  now: readonly Body[],
  then: readonly (Body | undefined)[],
): Relation | null {
  const { kind, a, b, faces, holds } = relation;
  if (!faces || kind === "floor") return relation;
  const [p, q] = [flatOf(now[a], faces[0]), flatOf(now[b], faces[1])];
  const [r, s] = [flatOf(then[a], faces[0]), flatOf(then[b], faces[1])];
  if (!p || !q || !r || !s) return relation;
  const same = dot(p.normal, q.normal) > 0 ? 1 : -1;
  const gap = (one: Flat, other: Flat) => one.offset - same * other.offset;
  if (norm(subtract(r.normal, scale(s.normal, same))) > SAME_DIRECTION * 10) return null;
  // What stands in a groove with play may have a little more or less of it.
  const play = p.of === "groove" || q.of === "groove" ? GROOVE_PLAY - ONE_PLANE : ONE_PLANE;
  if (Math.abs(gap(r, s) - gap(p, q)) > play / 2) return null;
  const slip = (one: Flat, other: Flat) => subtract(middleOf(one), middleOf(other));
  return kind === "fits" && norm(subtract(slip(r, s), slip(p, q))) > ONE_PLANE / 2
    ? { ...relation, kind: "meets", holds: holds.slice(0, 3) }
    : relation;
}

function middleOf({ parts }: Flat): Vec3 {
  const points = parts.flat();
  const middle = (axis: 0 | 1 | 2) => {
    const all = points.map((point) => point[axis]);
    return (Math.min(...all) + Math.max(...all)) / 2;
  };
  return [middle(0), middle(1), middle(2)];
}

const flatOf = (body: Body | undefined, name: string): Flat | undefined =>
  body?.flats.find((one) => one.name === name);
