/**
 * Neighbours that share a mitred cut. A piece has a mid-length and two end slopes s = tan(angle), signed as seen on the
 * table. Between facing slopes s and t the blade takes
 *   s = t (one cut):    k·√(1+s²)
 *   else (two cuts):    |s − t|·H/2 + k·max(√(1+s²), √(1+t²))
 * and a bar end costs |s|·H/2, measured along the middle of a section H deep. A shared cut so saves |s|·H. Turning a piece
 * end for end exchanges its slopes, rolling it by half a turn negates them, turning it over does both.
 *
 * Which order of a bar's pieces is shortest hangs only on how many there are of each pair of ends: a dynamic programme
 * over what is left and the last slope finds it exactly.
 */
import { at } from "../../kernel";
import type { PieceEnds, PieceTurn } from "./problem";

/** A slope in its plane; square ends share with one another whatever their plane. */
export type Slope = { readonly tan: number; readonly depthNm: number; readonly plane: string };
export type Way = { readonly turn: PieceTurn | null; readonly left: Slope; readonly right: Slope };
/** Pieces whose pairs of ends are alike. */
export type EndClass = { readonly key: string; readonly ways: readonly Way[] };

/** Pairs of a bar's pieces from its start on, as end classes with the way each lies. */
export type Ordered = {
  /** Nanometres that cuts and bar ends take beyond the mid-lengths. */
  readonly extraNm: number;
  readonly sequence: readonly { readonly endClass: number; readonly way: Way }[];
};

const SQUARE: Slope = { tan: 0, depthNm: 0, plane: "" };

function slopeOf(ends: PieceEnds, which: 0 | 1): Slope {
  // A thousandth of a degree: what comes from geometry as 45.0000001 is 45.
  const angle = Math.round(ends.angles[which] * 1000) / 1000;
  if (angle === 0) return SQUARE;
  const tan = Math.abs(angle) === 45 ? Math.sign(angle) : Math.tan((angle * Math.PI) / 180);
  return { tan, depthNm: Math.round(ends.depth * 1e6), plane: `${ends.plane}:${ends.depth}` };
}
const negated = (slope: Slope): Slope => (slope.tan === 0 ? slope : { ...slope, tan: -slope.tan });

/** The ways in which a piece may lie; as drawn comes first. */
export function waysOf(ends: PieceEnds | null): readonly Way[] {
  if (ends === null) return [{ turn: null, left: SQUARE, right: SQUARE }];
  const [left, right] = [slopeOf(ends, 0), slopeOf(ends, 1)];
  const all: Way[] = [{ turn: null, left, right }];
  for (const turn of ends.turns) {
    if (turn === "end") all.push({ turn, left: right, right: left });
    if (turn === "roll") all.push({ turn, left: negated(left), right: negated(right) });
    if (turn === "over") all.push({ turn, left: negated(right), right: negated(left) });
  }
  const seen = new Set<string>();
  return all.filter((way) => {
    const key = `${slopeKey(way.left)}|${slopeKey(way.right)}`;
    return seen.has(key) ? false : seen.add(key);
  });
}

/** The ways that a search may choose from: turning is of use only where cuts are shared. */
export const usedWays = (ends: PieceEnds | null, share: boolean): readonly Way[] =>
  share ? waysOf(ends) : waysOf(ends).slice(0, 1);

const slopeKey = (slope: Slope) => (slope.tan === 0 ? "0" : `${slope.plane}:${slope.tan}`);

/** What names an end class: pieces that can lie in the same ways. */
export const endKey = (ways: readonly Way[]) =>
  ways
    .map(({ left, right }) => `${slopeKey(left)}|${slopeKey(right)}`)
    .sort()
    .join(" ");

const secant = (slope: Slope) => Math.sqrt(1 + slope.tan * slope.tan);
/** To the whole nanometre above, but for double noise: what is taken is never told too small. */
const up = (nm: number) => Math.ceil(nm - 1e-4) + 0;
/** What a slope takes of a bar's end, in whole nanometres. */
export const endLossNm = (slope: Slope) => up((Math.abs(slope.tan) * slope.depthNm) / 2);

/** Whether two facing ends are one cut. */
export const sharesCut = (left: Slope, right: Slope) =>
  left.tan !== 0 && left.tan === right.tan && left.plane === right.plane;

/** Whole nanometres between two facing ends, measured along the middle of the bar; unless they share, tip to tip. */
export function gapNm(left: Slope, right: Slope, kerfNm: number, share: boolean): number {
  if (!share) {
    const square = left.tan === 0 && right.tan === 0;
    const cut = square ? kerfNm : up(kerfNm * Math.max(secant(left), secant(right)));
    return endLossNm(left) + endLossNm(right) + cut;
  }
  if (left.tan === right.tan && (left.tan === 0 || left.plane === right.plane))
    return up(kerfNm * secant(left));
  const cut = kerfNm * Math.max(secant(left), secant(right));
  const onePlane = left.tan === 0 || right.tan === 0 || left.plane === right.plane;
  return onePlane
    ? up((Math.abs(left.tan - right.tan) * Math.max(left.depthNm, right.depthNm)) / 2 + cut)
    : endLossNm(left) + endLossNm(right) + up(cut);
}

/** The least that an end can take: half a shared cut. Summed over a bar it never exceeds what its cuts take. */
export const halfCutNm = (slope: Slope, kerfNm: number) => (kerfNm * secant(slope)) / 2;

/** More states than this are ordered by hand of the nearest slope. */
const MOST_STATES = 20_000;

/** Orders bars; answers are remembered, since a search asks for the same bars again and again. */
export class BarOrderer {
  private readonly known = new Map<string, Ordered>();
  private readonly classes: readonly EndClass[];
  private readonly byKey: ReadonlyMap<string, number>;
  private readonly kerfNm: number;
  private readonly share: boolean;

  constructor(classes: readonly EndClass[], kerfNm: number, share: boolean) {
    this.classes = classes;
    this.byKey = new Map(classes.map(({ key }, c) => [key, c]));
    this.kerfNm = kerfNm;
    this.share = share;
  }

  /** The end class of a piece's ends. */
  classOf(ends: PieceEnds | null): number {
    return this.byKey.get(endKey(usedWays(ends, this.share))) ?? 0;
  }

  /** The shortest order of `counts[c]` pieces of each end class. */
  order(counts: readonly number[]): Ordered {
    const key = counts.join(",");
    const known = this.known.get(key);
    if (known) return known;
    const states = counts.reduce((product, count) => product * (count + 1), 1);
    const found = states > MOST_STATES ? this.nearest(counts) : this.exact(counts);
    if (this.known.size > 200_000) this.known.clear();
    this.known.set(key, found);
    return found;
  }

  /** Dynamic programme from the empty rest backwards, over what is left and the slope before it. */
  private exact(counts: readonly number[]): Ordered {
    type Step = { readonly cost: number; readonly endClass: number; readonly way: Way | null };
    const memo = new Map<string, Step>();
    const rest = [...counts];
    const best = (last: Slope | null): Step => {
      const key = `${last === null ? "-" : slopeKey(last)};${rest.join(",")}`;
      const known = memo.get(key);
      if (known) return known;
      let found: Step | null = null;
      for (let c = 0; c < rest.length; c++) {
        if (at(rest, c) === 0) continue;
        rest[c] = at(rest, c) - 1;
        for (const way of at(this.classes, c).ways) {
          const step = last === null ? endLossNm(way.left) : gapNm(last, way.left, this.kerfNm, this.share);
          const cost = step + best(way.right).cost;
          if (found === null || cost < found.cost) found = { cost, endClass: c, way };
        }
        rest[c] = at(rest, c) + 1;
      }
      const step = found ?? { cost: last === null ? 0 : endLossNm(last), endClass: -1, way: null };
      memo.set(key, step);
      return step;
    };
    const first = best(null);
    const sequence: { endClass: number; way: Way }[] = [];
    for (let step = first; step.way !== null; step = best(step.way.right)) {
      sequence.push({ endClass: step.endClass, way: step.way });
      rest[step.endClass] = at(rest, step.endClass) - 1;
    }
    return { extraNm: first.cost, sequence };
  }

  /** Each time the piece whose end lies nearest to the last one's. */
  private nearest(counts: readonly number[]): Ordered {
    const rest = [...counts];
    const sequence: { endClass: number; way: Way }[] = [];
    let last: Slope | null = null;
    let extra = 0;
    for (let left = rest.reduce((sum, count) => sum + count, 0); left > 0; left--) {
      let pick: { cost: number; endClass: number; way: Way } | null = null;
      for (let c = 0; c < rest.length; c++) {
        if (at(rest, c) === 0) continue;
        for (const way of at(this.classes, c).ways) {
          const cost: number =
            last === null ? endLossNm(way.left) : gapNm(last, way.left, this.kerfNm, this.share);
          if (pick === null || cost < pick.cost) pick = { cost, endClass: c, way };
        }
      }
      if (pick === null) break;
      extra += pick.cost;
      rest[pick.endClass] = at(rest, pick.endClass) - 1;
      sequence.push({ endClass: pick.endClass, way: pick.way });
      last = pick.way.right;
    }
    if (last) extra += endLossNm(last);
    return { extraNm: extra, sequence };
  }
}
