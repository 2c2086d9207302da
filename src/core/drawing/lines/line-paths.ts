/** Lines of a view as paths: chords of a curve become pieces of it again, and what runs on is one path. */
import type { Vec2 } from "../../geometry";
import { addTo, at } from "../../kernel";
import { endOfSegment, onEllipse, type Path, type PathSegment } from "../path";
import type { FlatEllipse } from "./candidates";
import type { ViewLine } from "./merging";

/** Radians. Pieces of one curve that come this near to one another are one. */
const JOINED = 1e-4;
/** mm. Ends of lines that come this near to one another meet. */
const MEETING_MM = 0.01;

/** A stretch of a path, drawn from one end to the other. */
type Stretch = { readonly from: Vec2; readonly to: Vec2; readonly segment: PathSegment };

/** The paths of lines of one look, with places moved and scaled by `place` (right, up → the paper, without shear). */
export function linePaths(lines: readonly ViewLine[], place: (place: Vec2) => Vec2): readonly Path[] {
  const origin = place([0, 0]);
  const turnedTo = ([x, y]: Vec2): Vec2 => {
    const [px, py] = place([x, y]);
    return [px - origin[0], py - origin[1]];
  };
  const byCurve = new Map<FlatEllipse, ViewLine[]>();
  const stretches: Stretch[] = [];
  for (const line of lines) {
    if (line.arc) {
      addTo(byCurve, line.arc.on, line);
    } else {
      const to = place(line.to);
      stretches.push({ from: place(line.from), to, segment: { kind: "line", to } });
    }
  }
  for (const [{ centre, u, v }, chords] of byCurve) {
    const ellipse = { kind: "ellipse", centre: place(centre), u: turnedTo(u), v: turnedTo(v) } as const;
    for (const [from, to] of runsOfAngles(chords)) {
      const segment = { ...ellipse, from, to };
      stretches.push({ from: onEllipse(segment, from), to: endOfSegment(segment), segment });
    }
  }
  const { closed, open } = partedClosed(stretches);
  return [...closed, ...chained(open)];
}

/** The angles that chords of one curve cover, joined where they run on, also over a whole turn. */
function runsOfAngles(chords: readonly ViewLine[]): readonly (readonly [number, number])[] {
  const turn = 2 * Math.PI;
  const spans = chords
    .flatMap(({ arc }) => (arc ? [arc] : []))
    .map(({ from, to }) => {
      const [low, high] = from < to ? [from, to] : [to, from];
      const shift = Math.floor(low / turn) * turn;
      return [low - shift, high - shift] as [number, number];
    })
    .sort((a, b) => a[0] - b[0]);
  const runs: [number, number][] = [];
  for (const [low, high] of spans) {
    const last = runs.at(-1);
    if (last && low - last[1] <= JOINED) last[1] = Math.max(last[1], high);
    else runs.push([low, high]);
  }
  const [first, last] = [runs[0], runs.at(-1)];
  // What ends at a whole turn goes on where the first begins.
  if (first && last && first !== last && last[1] - turn >= first[0] - JOINED) {
    last[1] = Math.max(last[1], first[1] + turn);
    runs.shift();
  }
  return runs.map(([low, high]) => [low, Math.min(high, low + turn)] as const);
}

function partedClosed(stretches: readonly Stretch[]) {
  const isWhole = ({ segment }: Stretch) =>
    segment.kind === "ellipse" && segment.to - segment.from > 2 * Math.PI - JOINED;
  return {
    closed: stretches
      .filter(isWhole)
      .map(({ from, segment }): Path => ({ from, segments: [segment], closed: true })),
    open: stretches.filter((one) => !isWhole(one)),
  };
}

type End = { readonly stretch: number; readonly atStart: boolean; readonly place: Vec2 };

/** Stretches head to tail, joined where exactly two meet. */
function chained(stretches: readonly Stretch[]): readonly Path[] {
  const partner = meetings(stretches);
  const used = new Set<number>();
  const keyOf = (stretch: number, atStart: boolean) => 2 * stretch + (atStart ? 0 : 1);
  const follow = (first: number, fromStart: boolean): Path => {
    const begin = at(stretches, first);
    const segments: PathSegment[] = [];
    let [stretch, forwards] = [first, fromStart];
    for (;;) {
      used.add(stretch);
      const one = at(stretches, stretch);
      segments.push(forwards ? one.segment : backwards(one));
      const next = partner.get(keyOf(stretch, !forwards));
      if (!next || used.has(next.stretch)) break;
      [stretch, forwards] = [next.stretch, next.atStart];
    }
    const back = partner.get(keyOf(stretch, !forwards));
    const closed = segments.length > 1 && back?.stretch === first && back.atStart === fromStart;
    return { from: fromStart ? begin.from : begin.to, segments, closed };
  };
  const paths: Path[] = [];
  // From loose ends first; what is left then runs round.
  for (const [i] of stretches.entries())
    for (const atStart of [true, false])
      if (!used.has(i) && !partner.has(keyOf(i, atStart))) paths.push(follow(i, atStart));
  for (const [i] of stretches.entries()) if (!used.has(i)) paths.push(follow(i, true));
  return paths;
}

/** For each end the only other one that it meets. */
function meetings(stretches: readonly Stretch[]): ReadonlyMap<number, End> {
  const ends = stretches.flatMap(({ from, to }, stretch): End[] => [
    { stretch, atStart: true, place: from },
    { stretch, atStart: false, place: to },
  ]);
  const cell = (value: number) => Math.floor(value / MEETING_MM);
  const cells = new Map<string, End[]>();
  for (const end of ends) {
    const key = `${cell(end.place[0])} ${cell(end.place[1])}`;
    addTo(cells, key, end);
  }
  const near = (end: End): readonly End[] => {
    const [x, y] = [cell(end.place[0]), cell(end.place[1])];
    return [-1, 0, 1].flatMap((i) =>
      [-1, 0, 1].flatMap((k) =>
        (cells.get(`${x + i} ${y + k}`) ?? []).filter(
          (other) =>
            other !== end &&
            Math.hypot(other.place[0] - end.place[0], other.place[1] - end.place[1]) <= MEETING_MM,
        ),
      ),
    );
  };
  const met = new Map<number, End>();
  for (const end of ends) {
    const [other, ...more] = near(end);
    if (!other || more.length > 0 || other.stretch === end.stretch) continue;
    // Where three meet within reach of one another, two of them may see only one.
    if (near(other).length !== 1) continue;
    met.set(2 * end.stretch + (end.atStart ? 0 : 1), other);
  }
  return met;
}

function backwards({ from, segment }: Stretch): PathSegment {
  return segment.kind === "line"
    ? { kind: "line", to: from }
    : { ...segment, from: segment.to, to: segment.from };
}
