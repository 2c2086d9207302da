/** Lines that lie on one another, as one: each stretch with the strongest kind that is drawn there and all whose it is. */
import type { Vec2 } from "../../geometry";
import { at } from "../../kernel";
import type { Arc } from "./candidates";

/** From the strongest to the weakest. */
const LINE_KINDS = ["outline", "edge", "crease", "hidden"] as const;
export type ViewLineKind = (typeof LINE_KINDS)[number];
const HIDDEN = LINE_KINDS.indexOf("hidden");

export type ViewLine = {
  readonly from: Vec2;
  readonly to: Vec2;
  readonly kind: ViewLineKind;
  /** The numbers of the solids that it belongs to, in order. */
  readonly owners: readonly number[];
  /** The piece of a curve that it is a chord of, from its `from` to its `to`. */
  readonly arc: Arc | null;
};

/** Right and up on the paper; what lies behind does not matter. */
type OnPaper = readonly [x: number, y: number, ...rest: number[]];

/** A line that was cut out of a whole one, which tells the direction better than a short stretch of it. */
export type CutLine = {
  readonly from: Vec2;
  readonly to: Vec2;
  readonly whole: { readonly from: OnPaper; readonly to: OnPaper };
  readonly kind: ViewLineKind;
  readonly owner: number;
  readonly arc: Arc | null;
};

/** Radians: directions nearer than this are one; a run of such reaches at most eight times as far. */
const ANGLE = 2e-6;
/** mm. Lines beside one another nearer than this are one; a run of such is at most twice as wide. */
const BESIDE_MM = 0.005;
/** mm. Gaps up to this are closed; shorter lines are not drawn. */
const GAP_MM = 0.01;

type Lying = { readonly line: CutLine; readonly angle: number; readonly size: number };

export function mergedLines(lines: readonly CutLine[]): readonly ViewLine[] {
  const lying = lines.map((line): Lying => {
    const { from, to } = line.whole;
    const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
    const angle = Math.atan2(dy, dx);
    // A line has no direction: half a turn holds all.
    return { line, angle: angle < 0 ? angle + Math.PI : angle, size: Math.sqrt(dx * dx + dy * dy) };
  });
  return runsOf(lying, ({ angle }) => angle, ANGLE, 8 * ANGLE, Math.PI).flatMap(mergedParallel);
}

/** Items in runs of such as follow one another closely; where the scale wraps, the last run goes on in the first. */
function runsOf<T>(
  items: readonly T[],
  placeOn: (item: T) => number,
  near: number,
  most: number,
  wrap: number | null = null,
): readonly (readonly T[])[] {
  if (items.length === 1) return [items];
  // A place is worked out once, not at each comparison.
  const places = Float64Array.from(items, placeOn);
  const order = Uint32Array.from(items.keys()).sort((a, b) => (places[a] ?? 0) - (places[b] ?? 0));
  const runs: T[][] = [];
  let run: T[] | null = null;
  let [first, last] = [Number.NaN, Number.NaN];
  for (const i of order) {
    const value = places[i] ?? 0;
    if (run && value - last <= near && value - first <= most) run.push(at(items, i));
    else {
      run = [at(items, i)];
      runs.push(run);
      first = value;
    }
    last = value;
  }
  const [head, tail] = [runs[0], runs.at(-1)];
  if (wrap !== null && head && tail && head !== tail) {
    const gap = placeOn(at(head, 0)) + wrap - placeOn(at(tail, tail.length - 1));
    if (gap <= near) {
      head.unshift(...tail);
      runs.pop();
    }
  }
  return runs;
}

/** Lines of one direction, which is that of the longest of them. */
function mergedParallel(lying: readonly Lying[]): readonly ViewLine[] {
  const { whole } = lying.reduce((a, b) => (b.size > a.size ? b : a)).line;
  const [[x0, y0], [x1, y1]] = [whole.from, whole.to];
  const size = Math.hypot(x1 - x0, y1 - y0) || 1;
  const along: Vec2 = [(x1 - x0) / size, (y1 - y0) / size];
  const offset = ([x, y]: Vec2) => along[0] * y - along[1] * x;
  const middle = ({ line: { from, to } }: Lying) => (offset(from) + offset(to)) / 2;
  return runsOf(lying, middle, BESIDE_MM, 2 * BESIDE_MM).flatMap((run) => mergedInLine(run, along, middle));
}

/** What of a span's curve lies over a part of it; so short a chord runs as evenly as its curve. */
function partOfArc({ arc, from: start, to: end }: Span, from: number, to: number): Arc | null {
  if (!arc) return null;
  const share = (t: number) =>
    end - start < 1e-9 ? 0 : Math.min(1, Math.max(0, (t - start) / (end - start)));
  const angle = (t: number) => arc.from + (arc.to - arc.from) * share(t);
  return { on: arc.on, from: angle(from), to: angle(to) };
}

/** Most lines lie on no other one. */
function aloneInView({ from, to, kind, owner, arc }: CutLine): readonly ViewLine[] {
  const size = Math.hypot(to[0] - from[0], to[1] - from[1]);
  return size < GAP_MM ? [] : [{ from, to, kind, owners: [owner], arc }];
}

type Span = {
  readonly from: number;
  readonly to: number;
  readonly rank: number;
  readonly owner: number;
  /** As it runs from `from` to `to`. */
  readonly arc: Arc | null;
};

/** Lines on one another: swept along, every stretch takes the strongest of those that lie there. */
function mergedInLine(
  run: readonly Lying[],
  along: Vec2,
  middle: (one: Lying) => number,
): readonly ViewLine[] {
  const [only] = run;
  if (only && run.length === 1) return aloneInView(only.line);
  const place = ([x, y]: Vec2) => along[0] * x + along[1] * y;
  const spans = run.map(({ line }): Span => {
    const [a, b] = [place(line.from), place(line.to)];
    return {
      from: Math.min(a, b),
      to: Math.max(a, b),
      rank: LINE_KINDS.indexOf(line.kind),
      owner: line.owner,
      arc: line.arc && a > b ? { on: line.arc.on, from: line.arc.to, to: line.arc.from } : line.arc,
    };
  });
  const beside = run.reduce((sum, one) => sum + middle(one), 0) / run.length;
  const stops = [...new Set(spans.flatMap(({ from, to }) => [from, to]))].sort((a, b) => a - b);
  const starting = [...spans].sort((a, b) => a.from - b.from);
  let open: Span[] = [];
  let next = 0;
  const made: { from: number; to: number; rank: number; owners: Set<number>; arc: Arc | null }[] = [];
  for (let i = 0; i + 1 < stops.length; i++) {
    const [from, to] = [at(stops, i), at(stops, i + 1)];
    for (let span = starting[next]; span && span.from <= from; span = starting[++next]) open.push(span);
    open = open.filter((span) => span.to > from);
    const rank = open.reduce<number>((least, span) => Math.min(least, span.rank), LINE_KINDS.length);
    const last = made.at(-1);
    const touches = last !== undefined && from - last.to <= GAP_MM;
    if (open.length === 0) continue;
    // What is hidden beneath a line that is seen is not seen there.
    const owners = open.filter((span) => rank === HIDDEN || span.rank !== HIDDEN).map(({ owner }) => owner);
    // Of several curves with one chord any will do; chords of two are never made one line, nor one with a straight line.
    const curved = open.find((span) => span.rank === rank && span.arc);
    const arc = curved ? partOfArc(curved, from, to) : null;
    if (last && touches && last.rank === rank && last.arc?.on === arc?.on) {
      last.to = to;
      // Two stretches of one chord: the curve goes on to where the second ends.
      if (last.arc && arc) last.arc = { ...last.arc, to: arc.to };
      for (const owner of owners) last.owners.add(owner);
    } else made.push({ from, to, rank, owners: new Set(owners), arc });
  }
  const on = (t: number): Vec2 => [along[0] * t - along[1] * beside, along[1] * t + along[0] * beside];
  return made.flatMap(({ from, to, rank, owners, arc }): readonly ViewLine[] =>
    to - from < GAP_MM
      ? []
      : [
          {
            from: on(from),
            to: on(to),
            kind: at(LINE_KINDS, rank),
            owners: [...owners].sort((a, b) => a - b),
            arc,
          },
        ],
  );
}
