/** Holes that were read one by one as rows at even steps, as somebody would have set them. */
import { at, grouped } from "../kernel";
import { type LengthUnit, MM_PER_UNIT, roundTo } from "../measure";
import type { MemberWork } from "./member-work";
import type { Work } from "./panel";
import { textOf } from "./place-text";

/** Fewer at even steps are no row. */
const LEAST_ROW = 4;
/** As many as one row may have. */
const MOST_IN_ROW = 2_000;
/** mm. How far a hole may stand from its place in a row: readings come within a few microns. */
const OFF_MM = 0.004;

/** One way in which holes may stand in a row: where each stands along it, and the first of them with count and step. */
type RowWay<W> = {
  readonly place: (hole: W) => number;
  /** The same for all that stand in one line. */
  readonly line: (hole: W) => string;
  readonly row: (first: W, count: string, step: string) => W;
};

/** Work of a panel with the holes that stand in rows as such; their texts are plain numbers in the unit. */
export function panelHolesInRows(work: readonly Work[], unit: LengthUnit): readonly Work[] {
  const off = OFF_MM / MM_PER_UNIT[unit];
  return inRows(
    work,
    (["x", "y"] as const).map((field): RowWay<Work> => {
      const other = field === "x" ? "y" : "x";
      return {
        place: (one) => (one.kind === "hole" ? Number(one[field]) : Number.NaN),
        line: (one) => (one.kind === "hole" ? lineOf({ ...one, [field]: "" }, one[other], off, other) : ""),
        row: (first, count, step) =>
          first.kind === "hole"
            ? { ...first, count, step, along: field === "x" ? "length" : "width" }
            : first,
      };
    }),
    off,
  );
}

/** Work of a member likewise. */
export function memberHolesInRows(work: readonly MemberWork[], unit: LengthUnit): readonly MemberWork[] {
  const off = OFF_MM / MM_PER_UNIT[unit];
  return inRows(
    work,
    [
      {
        place: (one) => (one.kind === "hole" ? Number(one.along) : Number.NaN),
        line: (one) => (one.kind === "hole" ? lineOf({ ...one, along: "" }, one.across, off, "across") : ""),
        row: (first, count, step) => (first.kind === "hole" ? { ...first, count, step } : first),
      },
    ],
    off,
  );
}

/** Everything but where it stands in its row and its id; beside the line it may stand a rounding off. */
const lineOf = (hole: object, beside: string, off: number, field: string): string =>
  JSON.stringify({ ...hole, id: "", [field]: Math.round(Number(beside) / off) });

function inRows<W>(work: readonly W[], ways: readonly RowWay<W>[], off: number): readonly W[] {
  const rowOf = new Map<W, W | null>();
  let free = work.filter((one) => ways.some(({ place }) => Number.isFinite(place(one))));
  for (;;) {
    const longest = ways
      .flatMap((way) => runsOf(free, way, off).map((run) => ({ way, run })))
      .reduce<{ readonly way: RowWay<W>; readonly run: readonly W[] } | null>(
        (best, one) => (best && best.run.length >= one.run.length ? best : one),
        null,
      );
    if (!longest || longest.run.length < LEAST_ROW) break;
    const { way, run } = longest;
    const [first, last] = [at(run, 0), at(run, run.length - 1)];
    const step = roundTo((way.place(last) - way.place(first)) / (run.length - 1), 6);
    for (const one of run) rowOf.set(one, null);
    rowOf.set(first, way.row(first, String(run.length), textOf(step)));
    const taken = new Set(run);
    free = free.filter((one) => !taken.has(one));
  }
  return work.flatMap((one) => {
    const row = rowOf.get(one);
    return row === undefined ? [one] : row === null ? [] : [row];
  });
}

/** The longest run at even steps in each line. */
function runsOf<W>(holes: readonly W[], way: RowWay<W>, off: number): readonly (readonly W[])[] {
  return [...grouped(holes, way.line).values()].map((line) => {
    const inOrder = line.toSorted((a, b) => way.place(a) - way.place(b));
    const sorted = inOrder.map(way.place);
    let best: readonly W[] = [];
    for (let from = 0; from + 1 < sorted.length; ) {
      let to = from + 1;
      while (to + 1 < sorted.length && to - from < MOST_IN_ROW - 1 && isEven(sorted.slice(from, to + 2), off))
        to++;
      if (at(sorted, to) - at(sorted, from) > off && to + 1 - from > best.length)
        best = inOrder.slice(from, to + 1);
      from = to;
    }
    return best;
  });
}

/** Whether places in order stand at even steps from the first to the last. */
function isEven(places: readonly number[], off: number): boolean {
  const first = at(places, 0);
  const step = (at(places, places.length - 1) - first) / (places.length - 1);
  return places.every((place, i) => Math.abs(place - first - i * step) <= off);
}
