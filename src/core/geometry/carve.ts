/**
 * What a convex body takes out of a solid: holes, slots, notches. Faces of the solid lose what lies within the body (each is
 * parted along the body's planes), and on each plane of the body stands what of the solid's section lies within its face.
 */
import { at } from "../kernel";
import { CUT, cutSolid } from "./cut-solid";
import { angleOnChord, lineName, type Solid, type SolidFace, type SolidLine } from "./solid";
import { add, cross, direction, dot, scale, subtract, type Vec2, type Vec3 } from "./vector";

/** A side of the body: what lies within it has normal · p < offset. The normal has the length 1. */
export type BodySide = { readonly normal: Vec3; readonly offset: number; readonly name: string };

/** mm. Corners nearer to a plane lie on it. */
const ON_PLANE = 1e-7;
/** mm. The section is taken so far outside of the body, where a face that only touches it shows nothing. */
const BESIDE = 1e-6;
/** mm. Faces of the body are cut from squares of this size. */
const WIDE = 1e6;
/** Cosine of 30°: sides that turn by less run on into one another. */
const SMOOTH = 0.866;

/** The solid without what lies in a convex body; the identical one where the body stands beside it. */
export function carved(solid: Solid, sides: readonly BodySide[]): Solid {
  const beside = sides.some((side) => solid.points.every((point) => heightOver(side, point) >= 0));
  if (beside) return solid;
  const points = [...solid.points];
  const normals = [...solid.normals, ...sides.map(({ normal }) => scale(normal, -1))];
  const faces: SolidFace[] = [];
  const lines: SolidLine[] = [];
  const place = (point: Vec3) => points.push(point) - 1;
  const polygon = (corners: readonly Vec3[], like: Omit<SolidFace, "corners">) => {
    if (corners.length >= 3) faces.push({ ...like, corners: corners.map(place) });
  };
  for (const face of solid.faces) {
    const corners = face.corners.map((i) => at(solid.points, i));
    const parting = sides.filter((side) => corners.some((corner) => heightOver(side, corner) !== 0));
    if (parting.some((side) => corners.every((corner) => heightOver(side, corner) >= 0))) {
      faces.push(face);
      continue;
    }
    let rest = corners;
    const kept: (readonly Vec3[])[] = [];
    for (const side of parting) {
      kept.push(partOf(rest, side, 1));
      rest = [...partOf(rest, side, -1)];
      if (rest.length < 3) break;
    }
    for (const one of kept) polygon(one, { normal: face.normal, name: face.name });
  }
  for (const line of solid.lines) lines.push(...outside(line, solid.points, sides, place));
  sides.forEach((side, i) => {
    const others = sides.filter((_, k) => k !== i);
    const inwards = scale(side.normal, -1);
    const cut = cutSolid(solid, inwards, -(side.offset + BESIDE)).solid;
    if (!cut) return;
    const own = solid.normals.length + i;
    const onSide = (index: number) => add(at(cut.points, index), scale(side.normal, -BESIDE));
    for (const face of cut.faces) {
      if (face.name !== CUT) continue;
      polygon(within(face.corners.map(onSide), others), { normal: own, name: side.name });
    }
    for (const line of cut.lines) {
      if (line.normals[0] !== solid.normals.length) continue;
      const piece = stretchWithin([onSide(line.from), onSide(line.to)], others);
      if (!piece) continue;
      lines.push({
        from: place(piece[0]),
        to: place(piece[1]),
        normals: [own, line.normals[1]],
        kind: "sharp",
        curve: null,
        name: line.name.replace(CUT, side.name),
      });
    }
    sides.forEach((other, k) => {
      if (k <= i || dot(side.normal, other.normal) > SMOOTH) return;
      const edge = edgeBetween(
        side,
        other,
        sides.filter((_, n) => n !== i && n !== k),
      );
      for (const [from, to] of edge ? insideOf(solid, edge, add(side.normal, other.normal)) : [])
        lines.push({
          from: place(from),
          to: place(to),
          normals: [own, solid.normals.length + k],
          kind: "sharp",
          curve: null,
          name: lineName(side.name, other.name),
        });
    });
  });
  return onlyUsed({ points, normals, faces, lines, curves: solid.curves });
}

/** Without the points that nothing stands on any more. */
function onlyUsed({ points, faces, lines, ...rest }: Solid): Solid {
  const places = new Map<number, number>();
  const kept: Vec3[] = [];
  const place = (i: number): number => {
    const known = places.get(i);
    if (known !== undefined) return known;
    places.set(i, kept.push(at(points, i)) - 1);
    return kept.length - 1;
  };
  return {
    ...rest,
    faces: faces.map((face) => ({ ...face, corners: face.corners.map(place) })),
    lines: lines.map((line) => ({ ...line, from: place(line.from), to: place(line.to) })),
    points: kept,
  };
}

function heightOver({ normal, offset }: BodySide, point: Vec3): number {
  const height = dot(normal, point) - offset;
  return Math.abs(height) < ON_PLANE ? 0 : height;
}

/** The part of a convex polygon on one side of a plane: outside of the body (1) or within it (−1). */
function partOf(corners: readonly Vec3[], side: BodySide, sign: 1 | -1): readonly Vec3[] {
  const part: Vec3[] = [];
  let inner = false;
  corners.forEach((a, i) => {
    const b = at(corners, (i + 1) % corners.length);
    const [ha, hb] = [sign * heightOver(side, a), sign * heightOver(side, b)];
    if (ha >= 0) part.push(a);
    if (ha > 0) inner = true;
    if (ha * hb < 0) part.push(between(a, b, ha / (ha - hb)));
  });
  // What only touches the plane has no area on this side of it.
  return inner && part.length >= 3 ? part : [];
}

const between = (a: Vec3, b: Vec3, t: number): Vec3 => add(a, scale(subtract(b, a), t));

/** What of a convex polygon lies within all of these sides. */
function within(corners: readonly Vec3[], sides: readonly BodySide[]): readonly Vec3[] {
  return sides.reduce<readonly Vec3[]>(
    (rest, side) => (rest.length < 3 ? [] : partOf(rest, side, -1)),
    corners,
  );
}

type Stretch = readonly [Vec3, Vec3];

/** From where to where along a stretch it lies within all sides; null: nowhere. */
function sharesWithin([a, b]: Stretch, sides: readonly BodySide[]): Vec2 | null {
  let [from, to] = [0, 1];
  for (const side of sides) {
    const [ha, hb] = [heightOver(side, a), heightOver(side, b)];
    if (ha >= 0 && hb >= 0) return null;
    if (ha > 0) from = Math.max(from, ha / (ha - hb));
    if (hb > 0) to = Math.min(to, ha / (ha - hb));
  }
  return from < to - 1e-12 ? [from, to] : null;
}

function stretchWithin(stretch: Stretch, sides: readonly BodySide[]): Stretch | null {
  const shares = sharesWithin(stretch, sides);
  return shares && [between(...stretch, shares[0]), between(...stretch, shares[1])];
}

/** What is left of a line outside of the body. */
function outside(
  line: SolidLine,
  points: readonly Vec3[],
  sides: readonly BodySide[],
  place: (point: Vec3) => number,
): readonly SolidLine[] {
  const stretch: Stretch = [at(points, line.from), at(points, line.to)];
  const shares = sharesWithin(stretch, sides);
  if (!shares) return [line];
  const [first, last] = shares;
  const { curve } = line;
  const angle = (share: number) => (curve ? angleOnChord(curve, share) : 0);
  const rest: SolidLine[] = [];
  if (first > 0)
    rest.push({
      ...line,
      to: place(between(...stretch, first)),
      curve: curve && { ...curve, to: angle(first) },
    });
  if (last < 1)
    rest.push({
      ...line,
      from: place(between(...stretch, last)),
      curve: curve && { ...curve, from: angle(last) },
    });
  return rest;
}

/** The edge of the body between two of its sides; null where they are parallel or the edge lies outside of the others. */
function edgeBetween(a: BodySide, b: BodySide, others: readonly BodySide[]): Stretch | null {
  const along = direction(cross(a.normal, b.normal));
  if (!along) return null;
  const cos = dot(a.normal, b.normal);
  const sine = 1 - cos * cos;
  if (sine < 1e-9) return null;
  const [s, t] = [(a.offset - cos * b.offset) / sine, (b.offset - cos * a.offset) / sine];
  const foot = add(scale(a.normal, s), scale(b.normal, t));
  const whole: Stretch = [add(foot, scale(along, -WIDE)), add(foot, scale(along, WIDE))];
  return stretchWithin(whole, others);
}

/** The parts of a stretch that lie in a solid; it is asked a hair beside it, outside of the body. */
function insideOf(solid: Solid, stretch: Stretch, outwards: Vec3): readonly Stretch[] {
  const hair = scale(outwards, BESIDE);
  const [a, b] = [add(stretch[0], hair), add(stretch[1], hair)];
  const run = subtract(b, a);
  const crossed = new Map<string, number>();
  for (const face of solid.faces) {
    const normal = at(solid.normals, face.normal);
    const corners = face.corners.map((i) => at(solid.points, i));
    const leaning = dot(normal, run);
    if (Math.abs(leaning) < 1e-12) continue;
    const share = dot(normal, subtract(at(corners, 0), a)) / leaning;
    const point = between(a, b, share);
    const lies = corners.every((corner, i) => {
      const next = at(corners, (i + 1) % corners.length);
      return dot(cross(subtract(next, corner), subtract(point, corner)), normal) >= 0;
    });
    // On the edge between two faces of one wall it is crossed once.
    if (lies) crossed.set(`${Math.sign(leaning)} ${Math.round(share * 1e9)}`, share);
  }
  const shares = [...crossed.values()].sort((p, q) => p - q);
  const found: Stretch[] = [];
  for (let i = 0; i + 1 < shares.length; i += 2) {
    const [from, to] = [Math.max(0, at(shares, i)), Math.min(1, at(shares, i + 1))];
    if (from < to) found.push([between(...stretch, from), between(...stretch, to)]);
  }
  return found;
}
