/** Upright rectangles taken out of a region that loops of lines and arcs bound, exactly: what is an arc stays one. */
import { at, grouped } from "../kernel";
import { type Linear, pointOn, zerosOn } from "./loop-parts";
import { endOf, type Loop, loopArea, type Segment, startOf } from "./outline";
import { dot2, norm2, subtract2, type Vec2, type Vec3 } from "./vector";
import { welded } from "./weld";

/** An upright rectangle; it may reach beyond the region. */
export type CutBox = { readonly from: Vec2; readonly to: Vec2 };

/** mm. What comes nearer to a border cannot be said to lie on either side of it. */
const UNSURE = 1e-7;
/** Shares of a segment: crossings nearer to its ends are in its corners. */
const AT_CORNER = 1e-9;
/** mm. Ends nearer than this are one. */
const MEETING = 1e-6;

/**
 * The loops of what is left of a region without a rectangle; the outer ones anticlockwise, holes clockwise. None where nothing is
 * left. Null: an edge runs along a side of it, or touches a corner, so that it cannot be told what is inside.
 */
export function withoutBox(loops: readonly Loop[], { from, to }: CutBox): readonly Loop[] | null {
  const sides: readonly Linear[] = [
    { slope: [1, 0], constant: -from[0] },
    { slope: [1, 0], constant: -to[0] },
    { slope: [0, 1], constant: -from[1] },
    { slope: [0, 1], constant: -to[1] },
  ];
  const overBox = ([x, y]: Vec2): number => Math.max(from[0] - x, x - to[0], from[1] - y, y - to[1]);
  const pieces: Segment[] = [];
  const onBorder: Vec2[] = [];
  for (const segment of loops.flat()) {
    const shares = sides
      .flatMap((side) => zerosOn(segment, side))
      .filter(
        (share) =>
          share > AT_CORNER && share < 1 - AT_CORNER && Math.abs(overBox(pointOn(segment, share))) < UNSURE,
      )
      .toSorted((a, b) => a - b)
      .filter((share, i, all) => i === 0 || share - at(all, i - 1) > AT_CORNER);
    onBorder.push(...shares.map((share) => pointOn(segment, share)));
    const start = startOf(segment);
    if (Math.abs(overBox(start)) < UNSURE) onBorder.push(start);
    const stops = [0, ...shares, 1];
    for (let i = 1; i < stops.length; i++) {
      const piece = partOf(segment, at(stops, i - 1), at(stops, i));
      const away = overBox(pointOn(piece, 0.5));
      if (Math.abs(away) < UNSURE) return null;
      if (away > 0) pieces.push(piece);
    }
  }
  const corners: readonly Vec2[] = [from, [to[0], from[1]], to, [from[0], to[1]]];
  for (const [i, corner] of corners.entries()) {
    const next = at(corners, (i + 1) % 4);
    const way = subtract2(next, corner);
    const size = norm2(way);
    const along = (place: Vec2) => dot2(subtract2(place, corner), way) / size;
    const beside = (place: Vec2) =>
      Math.abs(way[0] * (place[1] - corner[1]) - way[1] * (place[0] - corner[0])) / size;
    const stops = [
      corner,
      ...onBorder
        .filter((place) => beside(place) < UNSURE && along(place) > UNSURE && along(place) < size - UNSURE)
        .toSorted((a, b) => along(a) - along(b))
        .filter((place, k, all) => k === 0 || along(place) - along(at(all, k - 1)) > UNSURE),
      next,
    ];
    for (let k = 1; k < stops.length; k++) {
      const [a, b] = [at(stops, k - 1), at(stops, k)];
      // Seen from what is left, the rectangle lies to the right.
      if (isInRegion(loops, [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]))
        pieces.push({ kind: "line", from: b, to: a });
    }
  }
  return chained(pieces);
}

/** The same loops with all of those places that lie on them as corners of theirs. */
export function withCorners(loops: readonly Loop[], places: readonly Vec2[]): readonly Loop[] {
  return loops.map((loop) =>
    loop.flatMap((segment): readonly Segment[] => {
      const shares = places
        .flatMap((place) => {
          const share = shareOf(segment, place);
          return share === null ? [] : [share];
        })
        .toSorted((a, b) => a - b)
        .filter((share, i, all) => i === 0 || share - at(all, i - 1) > AT_CORNER);
      const stops = [0, ...shares, 1];
      return stops.slice(1).map((stop, i) => partOf(segment, at(stops, i), stop));
    }),
  );
}

/** Where a place lies on a segment, between its ends; null: it does not. */
function shareOf(segment: Segment, place: Vec2): number | null {
  const near = (a: Vec2, b: Vec2) => norm2(subtract2(a, b)) < MEETING;
  if (near(place, startOf(segment)) || near(place, endOf(segment))) return null;
  let share: number;
  if (segment.kind === "line") {
    const way = subtract2(segment.to, segment.from);
    share = dot2(subtract2(place, segment.from), way) / dot2(way, way);
  } else {
    const { centre, start, sweep } = segment;
    const turn = Math.sign(sweep) * (Math.atan2(place[1] - centre[1], place[0] - centre[0]) - start);
    share = (((turn % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI)) / Math.abs(sweep);
  }
  return share > 0 && share < 1 && near(pointOn(segment, share), place) ? share : null;
}

function partOf(segment: Segment, from: number, to: number): Segment {
  if (from === 0 && to === 1) return segment;
  if (segment.kind === "line")
    return { kind: "line", from: pointOn(segment, from), to: pointOn(segment, to) };
  const { start, sweep } = segment;
  return { ...segment, start: start + sweep * from, sweep: sweep * (to - from) };
}

/** By how often a slanting ray crosses the loops. */
function isInRegion(loops: readonly Loop[], [x, y]: Vec2): boolean {
  const [dx, dy] = [0.917, 0.399];
  const ray: Linear = { slope: [-dy, dx], constant: dy * x - dx * y };
  const crossings = loops
    .flat()
    .flatMap((segment) => zerosOn(segment, ray).map((share) => pointOn(segment, share)));
  return crossings.filter((place) => (place[0] - x) * dx + (place[1] - y) * dy > 0).length % 2 === 1;
}

/** Pieces head to tail; null: several go on from one place, or one from none. */
function chained(pieces: readonly Segment[]): readonly Loop[] | null {
  const ends = pieces.flatMap((piece) => [startOf(piece), endOf(piece)]);
  const { indices } = welded(ends.length, (i): Vec3 => [at(ends, i)[0], at(ends, i)[1], 0], MEETING);
  const placed = pieces.map((piece, i) => ({
    piece,
    start: indices[2 * i] ?? 0,
    end: indices[2 * i + 1] ?? 0,
  }));
  const after = grouped(placed, ({ start }) => start);
  if ([...after.values()].some(({ length }) => length > 1)) return null;
  const open = new Set(placed);
  const loops: Loop[] = [];
  for (const first of placed) {
    if (!open.has(first)) continue;
    const loop: Segment[] = [];
    for (let one = first; ; ) {
      open.delete(one);
      loop.push(one.piece);
      if (one.end === first.start) break;
      const next = after.get(one.end)?.[0];
      if (!next || !open.has(next)) return null;
      one = next;
    }
    loops.push(loop);
  }
  // The largest outer one first.
  return loops.toSorted((a, b) => loopArea(b) - loopArea(a));
}
