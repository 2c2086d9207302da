/**
 * The check of bar layouts that tests, benchmark and the product itself call: null, or what is wrong. Every number of a
 * layout is worked out here again, from the problem and from the order of the pieces alone.
 */
import { at, toNm } from "../../kernel";
import { claimFault, leastPlain, reasonFault } from "../stock";
import { type BarLayout, type BarProblem, type CutBar, trims, usableLength } from "./problem";

export function verifyBars(problem: BarProblem, layout: BarLayout): string | null {
  for (const bar of layout.bars) {
    const fault = barFault(problem, bar);
    if (fault) return fault;
  }
  return (
    countFault(problem, layout) ??
    lockFault(problem, layout) ??
    sharedFault(problem, layout) ??
    whyFault(problem, layout) ??
    claimFault(layout, {
      used: layout.bars.flatMap((bar) =>
        Array.from({ length: bar.times }, () => at(problem.stock, bar.stock)),
      ),
      stock: problem.stock.map(({ price }) => price),
      isImpossible: (i) => isTooLong(problem, layout.unplaced[i]?.piece ?? -1),
      plain: () => plainLayout(problem, layout),
    })
  );
}

const isCount = (value: number) => Number.isInteger(value) && value > 0;

/** What is wrong with one bar: its pieces, how they lie, its length and what is left of it. */
function barFault(problem: BarProblem, bar: CutBar): string | null {
  const stock = problem.stock[bar.stock];
  if (!stock) return `bar names stock ${bar.stock}`;
  if (!isCount(bar.times)) return `a bar is cut ${bar.times} times`;
  if (bar.pieces.length === 0 && !bar.locked) return "a bar without pieces";
  const unknown = bar.pieces.find((piece) => !problem.pieces[piece]);
  if (unknown !== undefined) return `bar names piece ${unknown}`;
  if (bar.turns && bar.turns.length !== bar.pieces.length) return "a bar does not say how each piece lies";
  const turned = (bar.turns ?? []).findIndex(
    (turn, place) => turn !== null && !problem.pieces[bar.pieces[place] ?? -1]?.ends?.turns.includes(turn),
  );
  if (turned >= 0) return `piece ${bar.pieces[turned]} cannot be turned that way`;
  const places = bar.locked ?? [];
  if (new Set(places).size !== places.length || places.some((place) => !(place in bar.pieces)))
    return "a bar locks a piece that it does not have";
  const endNm = takenNm(problem, bar);
  const over = endNm - toNm(usableLength(problem, bar.stock));
  // Each cut may be rounded up by a nanometre.
  if (over > 0) return `a bar of stock ${bar.stock} is overfull by ${over} nm`;
  const { start, end } = trims(problem);
  const used = bar.pieces.length === 0 ? 0 : endNm + toNm(problem.kerf);
  const left = Math.max(0, toNm(stock.length) - toNm(start) - toNm(end) - used);
  const off = Math.abs(left - toNm(bar.remainder));
  return off > bar.pieces.length ? `a bar leaves ${left} nm, not ${toNm(bar.remainder)}` : null;
}

type Side = { readonly tan: number; readonly depth: number; readonly plane: string };
type Lying = { readonly length: number; readonly left: Side; readonly right: Side };
const SQUARE: Side = { tan: 0, depth: 0, plane: "" };

/** A piece as it lies: its length tip to tip in nanometres and the tangents of its ends. */
function lyingOn(problem: BarProblem, bar: CutBar, place: number): Lying {
  const { length, ends } = at(problem.pieces, at(bar.pieces, place));
  if (!ends) return { length: toNm(length), left: SQUARE, right: SQUARE };
  const [first, second] = ends.angles.map((degrees): number => {
    const angle = Math.round(degrees * 1000) / 1000;
    return Math.abs(angle) === 45 ? Math.sign(angle) : Math.tan((angle * Math.PI) / 180);
  }) as [number, number];
  const side = (tan: number): Side =>
    tan === 0 ? SQUARE : { tan, depth: ends.depth * 1e6, plane: `${ends.plane} ${ends.depth}` };
  const ways = {
    drawn: [first, second],
    end: [second, first],
    over: [-second, -first],
    roll: [-first, -second],
  } as const;
  const [left, right] = ways[bar.turns?.[place] ?? "drawn"];
  return { length: toNm(length), left: side(left), right: side(right) };
}

const halfLean = ({ tan, depth }: Side) => Math.ceil((Math.abs(tan) * depth) / 2 - 1e-4);
const slant = ({ tan }: Side) => Math.hypot(1, tan);
const isOnePlane = (a: Side, b: Side) => a.tan === 0 || b.tan === 0 || a.plane === b.plane;
const isOneCut = (a: Side, b: Side) => a.tan === b.tan && (a.tan === 0 || a.plane === b.plane);

/** From the middle of one end to the middle of the next, in nanometres: what the blade takes, and what leans beyond it. */
function betweenNm(a: Side, b: Side, kerf: number, share: boolean): number {
  const blade = kerf * Math.max(slant(a), slant(b));
  if (isOneCut(a, b) && (share || a.tan === 0)) return Math.ceil(blade - 1e-4);
  if (share && isOnePlane(a, b))
    return Math.ceil((Math.abs(a.tan - b.tan) * Math.max(a.depth, b.depth)) / 2 + blade - 1e-4);
  return halfLean(a) + halfLean(b) + Math.ceil(blade - 1e-4);
}

/** Nanometres from the start of a bar to the end of its last piece. */
function takenNm(problem: BarProblem, bar: CutBar): number {
  let taken = 0;
  let before: Lying | null = null;
  for (const place of bar.pieces.keys()) {
    const one = lyingOn(problem, bar, place);
    taken += before
      ? betweenNm((before as Lying).right, one.left, toNm(problem.kerf), problem.share)
      : halfLean(one.left);
    taken += one.length - halfLean(one.left) - halfLean(one.right);
    before = one;
  }
  return taken + (before ? halfLean((before as Lying).right) : 0);
}

/** What is told as saved by shared cuts. */
function sharedFault(problem: BarProblem, layout: BarLayout): string | null {
  if (!layout.shared) return null;
  let [cuts, length, joints] = [0, 0, 0];
  for (const bar of layout.bars) {
    for (const place of bar.pieces.keys()) {
      if (place === 0) continue;
      const [a, b] = [lyingOn(problem, bar, place - 1).right, lyingOn(problem, bar, place).left];
      const kerf = toNm(problem.kerf);
      if (a.tan !== 0 && isOneCut(a, b)) cuts += bar.times;
      length += bar.times * Math.max(0, halfLean(a) + halfLean(b) + kerf - betweenNm(a, b, kerf, true));
      joints += bar.times;
    }
  }
  if (cuts !== layout.shared.cuts) return `${layout.shared.cuts} shared cuts are told of ${cuts}`;
  const off = Math.abs(toNm(layout.shared.length) - length);
  return off > 2 * joints ? `shared cuts save ${length} nm, not ${toNm(layout.shared.length)}` : null;
}

function countFault(problem: BarProblem, layout: BarLayout): string | null {
  const placed = problem.pieces.map(() => 0);
  const used = problem.stock.map(() => 0);
  for (const bar of layout.bars) {
    used[bar.stock] = at(used, bar.stock) + bar.times;
    for (const piece of bar.pieces) placed[piece] = at(placed, piece) + bar.times;
  }
  for (const { piece, qty } of layout.unplaced) {
    if (!problem.pieces[piece]) return `there is no piece ${piece}`;
    placed[piece] = at(placed, piece) + qty;
  }
  const lost = problem.pieces.findIndex((piece, i) => placed[i] !== piece.qty);
  if (lost >= 0) return `piece ${lost} is placed ${placed[lost]} times of ${problem.pieces[lost]?.qty}`;
  const over = problem.stock.findIndex((stock, i) => stock.count !== null && at(used, i) > stock.count);
  return over >= 0 ? `stock ${over} is used ${used[over]} times of ${problem.stock[over]?.count}` : null;
}

/** Every locked piece stands on a bar of its stock, together with those it was locked with. */
function lockFault(problem: BarProblem, layout: BarLayout): string | null {
  const free = layout.bars.flatMap((bar) => (bar.locked ? [bar] : []));
  for (const fixed of problem.fixed) {
    const wanted = fixed.pieces
      .map(({ piece }) => piece)
      .sort((a, b) => a - b)
      .join();
    const found = free.findIndex((bar) => {
      const own = (bar.locked ?? []).map((place) => bar.pieces[place] ?? -1);
      return bar.stock === fixed.stock && own.sort((a, b) => a - b).join() === wanted;
    });
    if (found < 0) return `locked pieces ${wanted} are not together on a bar of stock ${fixed.stock}`;
    free.splice(found, 1);
  }
  return null;
}

const isTooLong = (problem: BarProblem, piece: number) =>
  problem.stock.every(
    ({ count }, stock) =>
      count === 0 || toNm(at(problem.pieces, piece).length) > toNm(usableLength(problem, stock)),
  );

/** Whether what is told of pieces without a place is so. */
function whyFault(problem: BarProblem, layout: BarLayout): string | null {
  const { start, end } = trims(problem);
  const usable = problem.stock.flatMap(({ count }, stock) =>
    count === 0 ? [] : [usableLength(problem, stock)],
  );
  const largest = [Math.max(0, ...usable)];
  const trimmed = start + end + problem.grip > 0;
  for (const { piece, why } of layout.unplaced) {
    const fault = reasonFault(why, () => [{ size: [at(problem.pieces, piece).length], largest, trimmed }]);
    if (fault) return fault;
  }
  return null;
}

/** First-fit decreasing, tip to tip, on bars of one stock: a layout that exists, against which a bound can be held. */
function plainLayout(
  problem: BarProblem,
  layout: BarLayout,
): { readonly cost: number | null; readonly count: number } | null {
  if (problem.fixed.length > 0) return null;
  const out = new Set(layout.unplaced.map(({ piece }) => piece));
  const kerf = toNm(problem.kerf);
  const steepest = Math.max(
    1,
    ...problem.pieces.flatMap(({ ends }) =>
      (ends?.angles ?? []).map((angle) => 1 / Math.cos((angle * Math.PI) / 180)),
    ),
  );
  const blade = Math.ceil(kerf * steepest) + 2;
  const lengths = problem.pieces
    .flatMap(({ length, qty }, i) => (out.has(i) ? [] : Array.from({ length: qty }, () => toNm(length))))
    .sort((a, b) => b - a);
  if (lengths.length > 3000) return null;
  const found = problem.stock.flatMap(({ price, count, rack }, stock) => {
    const room = toNm(usableLength(problem, stock));
    const bars: number[] = [];
    for (const length of lengths) {
      if (length > room) return [];
      const fits = bars.findIndex((used) => used + blade + length <= room);
      if (fits >= 0) bars[fits] = at(bars, fits) + blade + length;
      else bars.push(length);
    }
    return count !== null && bars.length > count
      ? []
      : [{ cost: price === null ? null : price * bars.length, count: rack === null ? bars.length : 0 }];
  });
  return leastPlain(found);
}
