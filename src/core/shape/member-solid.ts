/**
 * Members as solids with named faces, lines and places, in their own axes. The names come from the section, so they are the
 * same after an edit of any size: a drawing holds on to them. The picture's meshes are made from the same solids.
 */
import { kindOf, ridgesOf } from "../ends";
import {
  carved,
  type Fineness,
  type FlatMesh,
  flatMesh,
  type Linear,
  prismMesh,
  prismSolid,
  type Ring,
  ringOf,
  type Solid,
  sharpRing,
  solidMesh,
  type Vec2,
  type Vec3,
} from "../geometry";
import { at, remembersEach } from "../kernel";
import { type SectionProperties, sectionProperties } from "../stockroom";
import type { EndSide } from "./bar";
import { endHeight, endSurface, type SolidEnds } from "./ends";
import type { MemberSolid } from "./member";
import { bodiesOfWork, type MemberWorkSolid, wallsMet } from "./member-work";

/** How the picture on the desk is drawn: sections at two steps a corner, circles at 32. */
const PICTURE: Fineness = { step: Math.PI / 4, creases: true };
const PICTURE_CIRCLE: Fineness = { step: Math.PI / 16 };

/** A circle is drawn finer than the corner of a tube: of a tube the whole circle is seen. */
const pictureRing = (loop: SectionProperties["loops"][number]): Ring =>
  ringOf(loop, loop.length === 1 ? PICTURE_CIRCLE : PICTURE);

const pictureRings = remembersEach<SectionProperties["loops"], readonly Ring[]>();
const sharpRings = remembersEach<SectionProperties["loops"], readonly Ring[]>();

const fineRings = remembersEach<SectionProperties["loops"], Map<string, readonly Ring[]>>();

/** Members of one section that are drawn alike share their rings, and so all but the heights of their ends. */
function ringsOf(loops: SectionProperties["loops"], fineness: Fineness): readonly Ring[] {
  const known = fineRings(loops, [], () => new Map());
  const { step, silhouettes = [], creases = false } = fineness;
  const key = `${step} ${silhouettes.join(" ")} ${creases}`;
  const rings = known.get(key) ?? loops.map((loop) => ringOf(loop, fineness));
  if (known.size > 64) known.clear();
  known.set(key, rings);
  return rings;
}

/**
 * A member in its own axes, z along it from its start. Faces: `side 1` and on round its section, `bore 1` and on inside,
 * `start` and `end`, of each hole its wall, of each notch its floor and wall; each line by the two faces that meet in it.
 */
export function solidOfMember(solid: WorkedEnds, fineness: Fineness): Solid {
  const { shape } = solid.entry;
  const whole = prismSolid(
    ringsOf(sectionProperties(shape).loops, fineness),
    endSurface(solid, "start"),
    endSurface(solid, "end"),
  );
  return solid.work ? bodiesOfWork(solid.work, shape, fineness.step).reduce(carved, whole) : whole;
}

/** The ends of a member with the work on it, where there is some. */
export type WorkedEnds = SolidEnds & { readonly work?: MemberWorkSolid | null };

const outerRings = remembersEach<SectionProperties["loops"], readonly Ring[]>();

/** The member without the roundings and the bore of its section, for small pictures of many pieces; null where an end is curved. */
export function plainSolidOfMember(solid: MemberSolid): Solid | null {
  if ([solid.start, solid.end].some(({ form }) => kindOf(form).faces(form) === null)) return null;
  const { loops } = sectionProperties(solid.entry.shape);
  const rings = outerRings(loops, [], () => loops.slice(0, 1).map(sharpRing));
  return prismSolid(rings, endSurface(solid, "start"), endSurface(solid, "end"));
}

/** The member as the picture shows it, in its home's axes; `sharp`: without the roundings of its section. */
export function meshOfMember(solid: MemberSolid, sharp = false): FlatMesh {
  // Among very many pieces holes are no larger than a point.
  if (solid.work && !sharp) return flatMesh(solidMesh(solidOfMember(solid, PICTURE)), solid.frame);
  const { loops } = sectionProperties(solid.entry.shape);
  // A saddle follows the section's true outline: beside it there may be nothing that it lies on.
  const flat = sharp && [solid.start, solid.end].every(({ form }) => kindOf(form).faces(form) !== null);
  const rings = flat
    ? sharpRings(loops, [], () => loops.map(sharpRing))
    : pictureRings(loops, [], () => loops.map(pictureRing));
  const mesh = prismMesh(rings, endSurface(solid, "start"), endSurface(solid, "end"));
  return flatMesh(mesh, solid.frame);
}

/**
 * The places of a member that a drawing can take hold of, by their names: where its line of centroids meets its ends, the
 * corners of either end as they are without roundings (of round sections the points on its two axes), and the long and
 * the short point of either end, in the middle where several stand alike. In its own axes, mm.
 */
export function placesOfMember(solid: MemberSolid): ReadonlyMap<string, Vec3> {
  const { sharp, isRound, extent } = sectionProperties(solid.entry.shape);
  const places = new Map<string, Vec3>();
  const [rx, ry] = [extent[0] / 2, extent[1] / 2];
  const corners: readonly Vec2[] = isRound
    ? [
        [rx, 0],
        [0, ry],
        [-rx, 0],
        [0, -ry],
      ]
    : sharp;
  for (const side of ["start", "end"] as const) {
    const height = endHeight(side, solid[side], solid.entry.shape);
    places.set(`${side}, axis`, [0, 0, height([0, 0])]);
    const word = isRound ? "quarter" : "corner";
    for (const [i, [x, y]] of corners.entries())
      places.set(`${side}, ${word} ${i + 1}`, [x, y, height([x, y])]);
    for (const [which, sign] of [
      ["long", 1],
      ["short", -1],
    ] as const) {
      const place = extremeOf(solid, side, sign);
      if (place) places.set(`${side}, ${which} point`, place);
    }
  }
  for (const [name, { at: place }] of holePlaces(solid)) places.set(name, place);
  return places;
}

/** Where the middles of holes lie on the wall that they enter first, with their diameters. */
export function holePlaces({
  work,
  entry,
}: MemberSolid): ReadonlyMap<string, { readonly at: Vec3; readonly diameter: number }> {
  const found = new Map<string, { readonly at: Vec3; readonly diameter: number }>();
  const numbers = new Map<string, number>();
  for (const hole of work?.holes ?? []) {
    const [deep] = wallsMet(entry.shape, hole);
    const number = (numbers.get(hole.id) ?? 0) + 1;
    numbers.set(hole.id, number);
    if (deep === undefined) continue;
    const { begins, outwards, z, diameter } = hole;
    const place: Vec3 = [begins[0] - outwards[0] * deep, begins[1] - outwards[1] * deep, z];
    found.set(`hole ${hole.id} ${number}, middle`, { at: place, diameter });
  }
  return found;
}

/** mm. Points whose heights differ by less stand alike. */
const ALIKE_MM = 1e-6;

/** The middle of the points of an end that reach farthest out (1) or least (−1); null where all stand alike. */
function extremeOf(solid: MemberSolid, side: EndSide, sign: 1 | -1): Vec3 | null {
  const { sharp, isRound, loops } = sectionProperties(solid.entry.shape);
  const { form } = solid[side];
  const out = side === "start" ? -1 : 1;
  const height = endHeight(side, solid[side], solid.entry.shape);
  const kind = kindOf(form);
  const ridges: readonly Linear[] = ridgesOf(kind.faces(form) ?? []);
  // Round outlines, and copes on them, at points so close together that a drawing shows no difference.
  const ring = isRound
    ? ringOf(at(loops, 0), { step: Math.PI / 180, silhouettes: leaningAngles(kind.slopes(form)) })
    : null;
  const outline = ring ? ring.points.map((point) => point.at) : [...sharp, ...onRidges(sharp, ridges)];
  const reaches = outline.map((p) => sign * out * height(p));
  const most = Math.max(...reaches);
  if (most - Math.min(...reaches) < ALIKE_MM) return null;
  const alike = outline.filter((_, i) => most - at(reaches, i) < ALIKE_MM);
  const middle = alike.reduce<Vec2>(
    (sum, [x, y]) => [sum[0] + x / alike.length, sum[1] + y / alike.length],
    [0, 0],
  );
  return [middle[0], middle[1], (sign * most) / out];
}

const leaningAngles = (slopes: readonly Vec2[]): readonly number[] =>
  slopes.flatMap(([x, y]) => [Math.atan2(y, x), Math.atan2(-y, -x)]);

/** Where ridges cross the straight edges of an outline. */
function onRidges(outline: readonly Vec2[], ridges: readonly Linear[]): readonly Vec2[] {
  return ridges.flatMap(({ slope, constant }) => {
    const value = ([x, y]: Vec2) => constant + slope[0] * x + slope[1] * y;
    return outline.flatMap((a, i): readonly Vec2[] => {
      const b = at(outline, (i + 1) % outline.length);
      const [p, q] = [value(a), value(b)];
      if (p * q >= 0) return [];
      const share = p / (p - q);
      return [[a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share]];
    });
  });
}
